import type { Command } from 'commander';
import { catalogueJson } from '../../src/core/exchange/catalogueJson';
import { recipesJson } from '../../src/core/recipes/recipesJson';
import { UsageError, withExample } from '../arguments';

function addList(program: Command, name: string, says: string, list: () => unknown): void {
  const command = program
    .command(name)
    .description(says)
    .option('--json', 'Prints JSON; it has to be given.')
    .action(({ json }: { json?: true }) => {
      if (!json) throw new UsageError(`${name} prints JSON: add --json.`);
      process.stdout.write(`${JSON.stringify(list(), null, 2)}\n`);
    });
  withExample(command, `npm run -s cli -- ${name} --json`);
}

export const addEffects = (program: Command): void =>
  addList(program, 'effects', 'Lists every effect with its parameters, units, ranges and presets.', catalogueJson);

export const addRecipes = (program: Command): void =>
  addList(program, 'recipes', 'Lists every recipe with its settings.', recipesJson);

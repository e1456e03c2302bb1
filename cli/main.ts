import { BadData } from '../src/core/exchange/chainFile';
import { catalogueJson } from '../src/core/exchange/catalogueJson';
import { readArguments, UsageError } from './arguments';
import { measureCommand } from './measure';
import { processCommand } from './process';
import { renderCommand } from './render';

const USAGE =
  'Commands: effects --json | process IN.wav OUT.wav --chain CHAIN.json | render PIECE OUT.wav | measure FILE.wav --json';

function effectsCommand(given: readonly string[]): void {
  const args = readArguments(given, [], ['json'], 0);
  if (!args.flags.has('json')) throw new UsageError('effects prints JSON: add --json.');
  process.stdout.write(`${JSON.stringify(catalogueJson(), null, 2)}\n`);
}

const COMMANDS: ReadonlyMap<string, (given: readonly string[]) => void> = new Map([
  ['effects', effectsCommand],
  ['process', processCommand],
  ['render', renderCommand],
  ['measure', measureCommand],
]);

/** Runs one command; gives the exit code: 0 done, 1 bad data, 2 wrong command line. */
export function main(given: readonly string[]): number {
  const [name = '', ...rest] = given;
  try {
    const command = COMMANDS.get(name);
    if (!command) throw new UsageError(name ? `There is no command "${name}". ${USAGE}` : USAGE);
    command(rest);
    return 0;
  } catch (error) {
    const usage = error instanceof UsageError;
    if (!usage && !(error instanceof BadData)) throw error;
    process.stderr.write(`${error.message}\n`);
    return usage ? 2 : 1;
  }
}

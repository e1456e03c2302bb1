import { Command, CommanderError } from 'commander';
import { BadData } from '../src/core/exchange/chainFile';
import { UnreadableSound } from '../src/core/formats/audio';
import { EditRefused } from '../src/core/piece/edit';
import { reasonOf } from '../src/core/reasonOf';
import { UnreadablePiece } from '../src/core/piece/versions/readPiece';
import { Problem } from '../server/http/problem';
import { UnusableDatabase } from '../server/store/database';
import { UsageError } from './arguments';
import { addDataCommands } from './commands/exchange';
import { addEffects, addRecipes } from './commands/lists';
import { addMeasure } from './commands/measure';
import { addMoves } from './commands/moves';
import { addPiece } from './commands/piece';
import { addPrint } from './commands/print';
import { addProcess } from './commands/process';
import { addRecipe } from './commands/recipe';
import { addRender } from './commands/render';

/** All commands, with their help. */
export function makeProgram(): Command {
  const program = new Command('cli')
    .description('Zephiro without a screen: effects, pieces, recipes and prints for batches.')
    .exitOverride()
    .showSuggestionAfterError(false)
    .configureOutput({
      writeErr: (text) => void process.stderr.write(`${text.trim().replace(/\s*\n\s*/g, ' ')}\n`),
      outputError: (text, write) => write(text.replace(/^error: /, '')),
    });
  for (const add of [
    addEffects,
    addRecipes,
    addProcess,
    addMeasure,
    addRender,
    addPrint,
    addRecipe,
    addMoves,
    addPiece,
    addDataCommands,
  ])
    add(program);
  return program;
}

/** What is wrong with data, as one line; null for a fault of this program. */
function dataFault(error: unknown): string | null {
  if (error instanceof Problem) return `${error.title}: ${error.detail}`;
  const known = [BadData, UnreadablePiece, UnreadableSound, EditRefused, UnusableDatabase];
  if (error instanceof Error && known.some((kind) => error instanceof kind)) return error.message;
  return isSystemError(error)
    ? `A file or a folder could not be used: ${reasonOf(error)}. What was there before is unchanged.`
    : null;
}

/** A folder that cannot be written, a disk that is full, a database that is locked. */
const isSystemError = (error: unknown): boolean =>
  typeof error === 'object' && error !== null && 'code' in error && /^(E[A-Z]+|SQLITE_\w+)$/.test(String(error.code));

/** Runs one command; gives the exit code: 0 done, 1 bad data, 2 wrong command line. */
export async function main(given: readonly string[]): Promise<number> {
  const program = makeProgram();
  try {
    if (given.length === 0) throw new UsageError(`Commands: ${program.commands.map((one) => one.name()).join(', ')}.`);
    await program.parseAsync(given, { from: 'user' });
    return 0;
  } catch (error) {
    // Commander has printed its own message already.
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
    const usage = error instanceof UsageError;
    const message = usage ? error.message : dataFault(error);
    if (message === null) throw error;
    process.stderr.write(`${message.replace(/\s*\n\s*/g, ' ')}\n`);
    return usage ? 2 : 1;
  }
}

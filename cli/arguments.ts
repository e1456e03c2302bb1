import { Command, InvalidArgumentError, Option } from 'commander';

/** A wrong command line: exit code 2. */
export class UsageError extends Error {}

const examples = new WeakMap<Command, string>();

/** Shows a command line that can be typed unchanged, after the help and in the documentation. */
export function withExample(command: Command, line: string): Command {
  examples.set(command, line);
  return command.addHelpText('after', `\nExample:\n  ${line}`);
}

export const exampleOf = (command: Command): string | undefined => examples.get(command);

/** Reads a number of an option. @throws InvalidArgumentError outside `min` to `max` */
export const numberIn =
  (min: number, max: number) =>
  (text: string): number => {
    const value = Number(text);
    if (text.trim() === '' || !(value >= min && value <= max))
      throw new InvalidArgumentError(`It takes a number from ${min} to ${max}.`);
    return value;
  };

export const choiceOption = (flags: string, says: string, choices: readonly string[], initial: string): Option =>
  new Option(flags, says).choices(choices).default(initial);

export const bitsOption = (): Option =>
  choiceOption('--bits <depth>', 'Bits a sample; 16 and 24 are dithered, 32f are floats.', ['16', '24', '32f'], '32f');

/** `--from` and `--to`: a stretch of a piece in bars, the first of which is 1; 3.5 is half way through bar 3. */
export const withBars = (command: Command, otherwise: string): Command =>
  command
    .option('--from <bar>', `First bar; 3.5 is half way through bar 3. ${otherwise}`, numberIn(1, 100_000))
    .option('--to <bar>', 'Bar before whose beginning it ends.', numberIn(1, 100_000));

export interface Bars {
  readonly from?: number;
  readonly to?: number;
}

/** Options that say where pieces and their sounds are. */
export const withFolders = (command: Command): Command =>
  command
    .option('--data <folder>', 'Data folder of the server, in which its pieces are.', 'data')
    .option('--sounds <folder>', 'Folder of the sounds of a piece file; otherwise "sounds" beside it.');

export interface Folders {
  readonly data: string;
  readonly sounds?: string;
}

/** Help text for the PIECE argument, for each command that has one. */
export const PIECE_HELP =
  'A piece file (.json), an archive (.zip), the id or the name of a piece in the data folder, or salt-pier, night-ferry or glasshouse-rain, which are made afresh where the data folder has none.';
export const OUT_HELP =
  'The changed piece as a file (.json, with its new sounds in "sounds" beside it) or an archive (.zip). Left out, the piece in the data folder is saved, and the change can be undone in its history.';

/** A wrong command line: exit code 2. */
export class UsageError extends Error {}

export interface Arguments {
  readonly words: readonly string[];
  readonly options: ReadonlyMap<string, string>;
  readonly flags: ReadonlySet<string>;
}

/**
 * Splits a command line into words, `--name value` options and `--name` flags.
 * @param mostWords words that the command takes at most
 * @throws UsageError for an option that is not listed, comes twice or lacks its value, and for a word too many
 */
export function readArguments(
  given: readonly string[],
  optionNames: readonly string[],
  flagNames: readonly string[],
  mostWords: number,
): Arguments {
  const words: string[] = [];
  const options = new Map<string, string>();
  const flags = new Set<string>();
  for (let i = 0; i < given.length; i += 1) {
    const word = given[i]!;
    if (!word.startsWith('--')) words.push(word);
    else if (flagNames.includes(word.slice(2))) flags.add(word.slice(2));
    else if (optionNames.includes(word.slice(2))) {
      const value = given[i + 1];
      if (value === undefined) throw new UsageError(`${word} needs a value.`);
      if (options.has(word.slice(2))) throw new UsageError(`${word} is given twice.`);
      options.set(word.slice(2), value);
      i += 1;
    } else
      throw new UsageError(
        `${word} is not known here. Known: ${[...optionNames, ...flagNames].map((name) => `--${name}`).join(' ')}.`,
      );
  }
  if (words.length > mostWords) throw new UsageError(`"${words[mostWords]}" is one word too many.`);
  return { words, options, flags };
}

export function numberOption(args: Arguments, name: string, min: number, max: number): number | undefined {
  const text = args.options.get(name);
  if (text === undefined) return undefined;
  const value = Number(text);
  if (text.trim() === '' || !(value >= min && value <= max))
    throw new UsageError(`--${name} takes a number from ${min} to ${max}; "${text}" is none.`);
  return value;
}

export function choiceOption<T extends string>(args: Arguments, name: string, allowed: readonly T[], otherwise: T): T {
  const text = args.options.get(name);
  if (text === undefined) return otherwise;
  const found = allowed.find((candidate) => candidate === text);
  if (!found) throw new UsageError(`--${name} takes ${allowed.join(', ')}; not "${text}".`);
  return found;
}

export function wordAt(args: Arguments, index: number, what: string): string {
  const word = args.words[index];
  if (word === undefined) throw new UsageError(`${what} is missing.`);
  return word;
}

import MiniSearch from 'minisearch';

/** What each field of an entry says, and how much a word found in it counts. */
export type SearchFields<T> = Readonly<Record<string, readonly [weight: number, text: (entry: T) => string]>>;

/** "lo-fi" and "lofi", "low-pass" and "lowpass" are one word. */
const joined = (text: string): string => text.replace(/(\p{L})[-/](\p{L})/gu, '$1$2');
/** A word this short has to be meant as it is written. */
const MIN_FUZZY = 5;

/**
 * A search over entries that finds those which hold every one of the words, in any of their fields; a word may be
 * begun, or have a slip of the pen in it.
 * @returns for words the entries with their scores, likeliest first
 */
export function searchIndex<T extends { readonly id: string }>(
  entries: readonly T[],
  fields: SearchFields<T>,
): (words: string) => { readonly entry: T; readonly score: number }[] {
  const index = new MiniSearch<T>({
    fields: Object.keys(fields),
    extractField: (entry, field) => (field === 'id' ? entry.id : joined(fields[field]![1](entry))),
    processTerm: (term) => term.toLowerCase(),
    searchOptions: {
      boost: Object.fromEntries(Object.entries(fields).map(([field, [weight]]) => [field, weight])),
      combineWith: 'AND',
      prefix: true,
      fuzzy: (term) => (term.length >= MIN_FUZZY ? 0.2 : false),
    },
  });
  index.addAll(entries);
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  return (words) => index.search(joined(words)).map(({ id, score }) => ({ entry: byId.get(String(id))!, score }));
}

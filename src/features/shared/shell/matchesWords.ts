/** Whether a name has every word that is looked for, anywhere and in any order; all names match no words. */
export function matchesWords(name: string, words: string): boolean {
  const lower = name.toLowerCase();
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => lower.includes(word));
}

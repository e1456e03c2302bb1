/** A name that none of `taken` has: the name itself, or with the first free number from 2 behind it. */
export function freeName(name: string, taken: readonly string[]): string {
  let found = name;
  for (let n = 2; taken.includes(found); n += 1) found = `${name} ${n}`;
  return found;
}

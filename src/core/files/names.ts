import sanitize from 'sanitize-filename';

/** Disks take 255 bytes a name: room for two of these, a place, a date and a kind. */
const MAX_NAME_BYTES = 80;

/** As much of a text as so many bytes of UTF-8 hold, whole characters only. */
function cutToBytes(text: string, bytes: number): string {
  const { read } = new TextEncoder().encodeInto(text, new Uint8Array(bytes));
  return text.slice(0, read);
}

/** A name with its own characters, but for those that some disk does not take. */
export function fileName(name: string): string {
  const clean = sanitize(name.normalize('NFC'), { replacement: ' ' }).replace(/\s+/g, ' ').trim();
  return cutToBytes(clean, MAX_NAME_BYTES).replace(/[. ]+$/, '') || 'sound';
}

/**
 * Name of the archive that holds files of these names: what they have in common, with what they are in between.
 * @param names at least one, without what says their kind
 */
export function archiveName(names: readonly string[], what: string): string {
  const parts = names.map((name) => name.split(' - '));
  const [first, ...others] = parts;
  if (!first || others.length === 0) return names[0] ?? what;
  const shortest = Math.min(...parts.map(({ length }) => length));
  const agree = (at: number): boolean => others.every((other) => other.at(at) === first.at(at));
  let begin = 0;
  while (begin < shortest && agree(begin)) begin += 1;
  let end = 0;
  while (end < shortest - begin && agree(-1 - end)) end += 1;
  return [...first.slice(0, begin), what, ...first.slice(first.length - end)].join(' - ');
}

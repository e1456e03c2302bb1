import type { Piece } from '../../core/piece/piece';

/** A name that no track of the piece has yet. */
export function freeName(piece: Piece, wanted: string): string {
  const taken = new Set(piece.tracks.map(({ name }) => name));
  let name = wanted;
  for (let n = 2; taken.has(name); n += 1) name = `${wanted} ${n}`;
  return name.slice(0, 120);
}

import { wellFormed } from '../core/piece/fields';

/** The views a piece has, by the word they have in an address. */
export const VIEW_NAMES = ['piece', 'chain', 'moves', 'play', 'shelf'] as const;
export type ViewName = (typeof VIEW_NAMES)[number];

/** A position in the interface, as the browser's address gives it. */
export interface Address {
  /** Null stands for the piece that was open last. */
  readonly piece: string | null;
  readonly view: ViewName;
  /** The channel in view; null leaves it as it is. */
  readonly channel: string | null;
  /** The effect of it whose editor is open; null for none, and in Moves, which shows no effect. */
  readonly slot: string | null;
}

/** In the address of the piece's own view, the part before the channel. */
const TRACKS = 'tracks';

const isView = (word: string | undefined): word is ViewName => VIEW_NAMES.some((view) => view === word);

/** Views that show the piece as a whole, whatever channel is open. */
const isWhole = (view: ViewName): boolean => view === 'play' || view === 'shelf';

/** A part of an address as text; an invalid escape is kept unchanged. */
function decoded(part: string): string {
  try {
    return decodeURIComponent(part);
  } catch {
    return part;
  }
}

/**
 * Reads `/piece/ID`, `/piece/ID/tracks/CHANNEL/SLOT`, `/piece/ID/chain/CHANNEL/SLOT`, `/piece/ID/moves/CHANNEL` and
 * `/piece/ID/play`, `/piece/ID/shelf`, and the same views without a piece (`/chain`).
 *
 * @returns null for any other address
 */
export function parseAddress(path: string): Address | null {
  const parts = path.split('/').filter(Boolean).map(decoded);
  const named = parts[0] === 'piece' && parts.length > 1;
  const piece = named ? parts[1]! : null;
  const [word, channel = null, slot = null, ...more] = named ? parts.slice(2) : parts;
  if (more.length > 0) return null;
  if (word === undefined || word === TRACKS) return { piece, view: 'piece', channel, slot };
  if (!isView(word) || (word === 'piece' && channel !== null)) return null;
  if (word === 'moves' && slot !== null) return null;
  if (isWhole(word)) return channel === null ? { piece, view: word, channel: null, slot: null } : null;
  return { piece, view: word, channel, slot };
}

/** The address of a place; the inverse of `parseAddress`. A slot without its channel, or in Moves, is left out. */
export function formatAddress({ piece, view, channel, slot }: Address): string {
  const where =
    isWhole(view) || channel === null ? [] : slot === null || view === 'moves' ? [channel] : [channel, slot];
  const word = view === 'piece' ? (where.length > 0 ? [TRACKS] : []) : [view];
  const parts = [...(piece === null ? [] : ['piece', piece]), ...word, ...where];
  return `/${parts.map((part) => encodeURIComponent(wellFormed(part))).join('/')}`;
}

import { produceWithPatches, type Draft } from 'immer';
import { applyPiecePatches, type Edited, type HistoryEntry } from './edit';
import { channelIds, paramOf } from './find';
import { pieceSchema, type Piece } from './piece';
import { axesOf } from './playField';

/** An edit that cannot be taken out by itself, and the later edit that depends on it. */
export class StandsOnIt extends Error {}

type Json = unknown;
const isRecord = (value: Json): value is Record<string, Json> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const idOf = (value: Json): string | undefined =>
  isRecord(value)
    ? typeof value.id === 'string'
      ? value.id
      : typeof value.to === 'string'
        ? value.to
        : undefined
    : undefined;
const isKeyed = (value: Json): value is Json[] => Array.isArray(value) && value.every((one) => idOf(one) !== undefined);
const same = (a: Json, b: Json): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

/** Path to a value: names of fields, and ids of items of lists. */
type Place = readonly string[];

/**
 * Reverts an edit below later ones: where a value is still as the edit left it, it becomes what it was before; other
 * values keep the changes of later edits. Lists are compared by the ids of their items, so that their order does not
 * matter.
 * @param clash called with paths that both the edit and later ones have changed
 */
function without(before: Json, after: Json, now: Json, place: Place, clash: (place: Place) => void): Json {
  if (same(before, after)) return now;
  if (same(now, after)) return before;
  if (isRecord(before) && isRecord(after) && isRecord(now)) {
    const keys = new Set([...Object.keys(now), ...Object.keys(before)]);
    const entries = [...keys].flatMap((key) => {
      const value = without(before[key], after[key], now[key], [...place, key], clash);
      return value === undefined ? [] : [[key, value] as const];
    });
    return Object.fromEntries(entries);
  }
  if (isKeyed(before) && isKeyed(after) && isKeyed(now)) return listWithout(before, after, now, place, clash);
  clash(place);
  return now;
}

function listWithout(
  before: readonly Json[],
  after: readonly Json[],
  now: readonly Json[],
  place: Place,
  clash: (place: Place) => void,
): Json[] {
  const find = (list: readonly Json[], id: string): Json | undefined => list.find((one) => idOf(one) === id);
  const kept: Json[] = now.flatMap((one) => {
    const id = idOf(one)!;
    const value = without(find(before, id), find(after, id), one, [...place, id], clash);
    return value === undefined || value === null ? [] : [value];
  });
  // What the edit removed comes back behind what preceded it then.
  before.forEach((one, i) => {
    const id = idOf(one)!;
    if (find(after, id) !== undefined || find(now, id) !== undefined) return;
    const neighbour = i === 0 ? -1 : kept.findIndex((other) => idOf(other) === idOf(before[i - 1] ?? null));
    kept.splice(neighbour + 1, 0, one);
  });
  return kept;
}

const valueAt = (value: Json, place: Place): Json =>
  place.reduce<Json>(
    (at, name) => (Array.isArray(at) ? at.find((one) => idOf(one) === name) : isRecord(at) ? at[name] : undefined),
    value,
  );

/** The piece after so many entries of its history. */
function pieceAfter(piece: Piece, entries: readonly HistoryEntry[], cursor: number, count: number): Piece {
  let at = piece;
  for (let i = cursor; i > count; i -= 1) at = applyPiecePatches(at, entries[i - 1]!.backward);
  return at;
}

/** The first later entry after which a value is no longer as the edit left it. */
function whoChanged(
  piece: Piece,
  entries: readonly HistoryEntry[],
  cursor: number,
  index: number,
  place: Place,
): string {
  const left = valueAt(pieceAfter(piece, entries, cursor, index + 1), place);
  for (let count = index + 2; count <= cursor; count += 1)
    if (!same(valueAt(pieceAfter(piece, entries, cursor, count), place), left)) return entries[count - 1]!.label;
  return entries[cursor - 1]!.label;
}

/** A reference to something that no longer exists; null when there is none. */
function hanging(
  piece: Piece,
  before: Piece,
): { readonly what: string; readonly is: (other: Piece) => boolean } | null {
  const channels = new Set(channelIds(piece));
  for (const list of ['lanes', 'links'] as const) {
    for (const { id, target } of piece[list]) {
      if (paramOf(piece, target) === undefined && paramOf(before, target) !== undefined)
        return { what: 'moves of it', is: (other) => other[list].some((one) => one.id === id) };
    }
  }
  for (const field of piece.fields ?? []) {
    const lost = axesOf(field).some(({ target }) => !paramOf(piece, target) && paramOf(before, target));
    if (lost)
      return {
        what: `the field ${field.name}`,
        is: (other) => other.fields?.some(({ id }) => id === field.id) ?? false,
      };
  }
  for (const clip of piece.tracks.flatMap(({ clips }) => clips)) {
    if (!piece.sounds[clip.sound])
      return {
        what: `the clip ${clip.name}`,
        is: (other) =>
          other.tracks.some(({ clips }) => clips.some(({ id, sound }) => id === clip.id && sound === clip.sound)),
      };
  }
  for (const channel of [...piece.tracks, ...piece.returns]) {
    const send = channel.sends.find(({ to }) => !channels.has(to));
    if (send)
      return {
        what: `what ${channel.name} sends to it`,
        is: (other) =>
          [...other.tracks, ...other.returns].some(
            ({ id, sends }) => id === channel.id && sends.some(({ to }) => to === send.to),
          ),
      };
  }
  return null;
}

/**
 * Reverts one edit in the middle of the history, as an edit of its own.
 * @param index of the entry, below `cursor`
 * @throws StandsOnIt naming the later edit that depends on it; nothing is changed then
 */
export function takeOut(piece: Piece, entries: readonly HistoryEntry[], cursor: number, index: number): Edited {
  const entry = entries[index]!;
  const after = pieceAfter(piece, entries, cursor, index + 1);
  const before = applyPiecePatches(after, entry.backward);
  const clashes: Place[] = [];
  const merged = without(before, after, piece, [], (place) => clashes.push(place)) as Piece;
  const refuse = (who: string): never => {
    throw new StandsOnIt(
      `“${entry.label}” cannot be taken out by itself: “${who}” stands on it. Take that out first, or go back in the history. Nothing was changed.`,
    );
  };
  if (clashes.length > 0) refuse(whoChanged(piece, entries, cursor, index, clashes[0]!));
  const left = hanging(merged, piece);
  if (left)
    refuse(
      entries.slice(index + 1, cursor).find((_, i) => left.is(pieceAfter(piece, entries, cursor, index + 2 + i)))
        ?.label ?? left.what,
    );
  if (!pieceSchema.safeParse(merged).success) refuse('what came later');
  const [next, forward, backward] = produceWithPatches(piece, (draft) => assign(draft, merged));
  return { piece: next, label: `Take out: ${entry.label}`.slice(0, 300), forward, backward };
}

/** Makes a draft equal to the other value, writing only what differs. */
function assign(draft: Draft<Piece>, goal: Piece): void {
  const walk = (at: Record<string, Json>, to: Record<string, Json>): void => {
    for (const key of Object.keys(at)) if (!(key in to)) delete at[key];
    for (const [key, value] of Object.entries(to)) {
      if (same(at[key], value)) continue;
      if (isRecord(at[key]) && isRecord(value)) walk(at[key], value);
      else at[key] = value;
    }
  };
  walk(draft as unknown as Record<string, Json>, goal as unknown as Record<string, Json>);
}

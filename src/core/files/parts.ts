import { compilePlan } from '../engine/compilePlan';
import type { Plan } from '../engine/plan';
import type { Tail } from '../engine/render';
import type { Cue } from '../formats/wavHead';
import { barsText } from '../music/grid';
import { beatsToSamples } from '../music/tempo';
import { chainOf, channelIds, slotsIn } from '../piece/find';
import type { Piece, Print, Track } from '../piece/piece';
import { tempoOf } from '../piece/tempoOf';
import { fileName } from './names';
import type { ExportOrder } from './order';

/** One file of an export: what is rendered for it, or which sound it is. */
export interface ExportPart {
  readonly source:
    | {
        readonly kind: 'render';
        readonly plan: Plan;
        readonly fromSample: number;
        readonly toSample: number;
        readonly tail: Tail;
      }
    | { readonly kind: 'sound'; readonly hash: string };
  readonly sampleRate: number;
  readonly cues: readonly Cue[];
  readonly loop: { readonly first: number; readonly last: number } | undefined;
  readonly timeStamp: number;
}

/** "bars 3 to 5", or nothing for all of the piece. */
const placeName = (piece: Piece, { fromBeat, toBeat }: ExportOrder): string[] =>
  fromBeat === 0 && toBeat === piece.lengthBeats ? [] : [barsText(fromBeat, toBeat, tempoOf(piece))];

/** "Salt Pier - 03 Crates - bars 3 to 5 - 2026-05-01" */
const joined = (parts: readonly string[]): string => parts.map(fileName).join(' - ');

/**
 * Names of the files of an export, in order, without what says their kind: piece, part, place, date.
 * @param date of the export, as 2026-05-01
 */
export function exportNames(piece: Piece, order: ExportOrder, date: string): string[] {
  if (order.what === 'prints') return printsOf(piece, order).map(({ name }) => joined([piece.name, name, date]));
  const named = (part: string): string => joined([piece.name, part, ...placeName(piece, order), date]);
  if (order.what === 'mix') return [named('mix')];
  return piece.tracks.map((track, i) => named(`${String(i + 1).padStart(2, '0')} ${track.name}`));
}

/** One file of an export. @throws RangeError when there is none of that index */
export function exportPart(piece: Piece, order: ExportOrder, index: number): ExportPart {
  const { what } = order;
  const [track, print] = [piece.tracks[index], printsOf(piece, order)[index]];
  if (what === 'prints' && print) return printPart(piece, print);
  if (what === 'stems' && track) return rendered(piece, stemOf(piece, track), order);
  if (what === 'mix' && index === 0) return rendered(piece, piece, order);
  throw new RangeError(`There is no file ${index} in this export.`);
}

const printsOf = (piece: Piece, { prints }: ExportOrder): Print[] =>
  piece.prints.filter(({ id }) => prints.includes(id));

/** A track alone with what it sends; the others are there, unheard, for what follows them. */
export const stemOf = (piece: Piece, track: Track): Piece =>
  track.mute
    ? { ...piece, tracks: [track] }
    : { ...piece, tracks: piece.tracks.map((other) => ({ ...other, solo: other.id === track.id })) };

function rendered(piece: Piece, part: Piece, { fromBeat, toBeat, tail }: ExportOrder): ExportPart {
  const at = (beat: number): number => beatsToSamples(beat, tempoOf(piece), piece.sampleRate);
  const [fromSample, toSample] = [at(fromBeat), at(toBeat)];
  const cues = (piece.sections ?? [])
    .filter(({ beat }) => beat >= fromBeat && beat < toBeat)
    .map((section) => ({ frame: at(section.beat) - fromSample, name: section.name }));
  return {
    sampleRate: piece.sampleRate,
    cues,
    loop: undefined,
    timeStamp: fromSample,
    source: {
      kind: 'render',
      plan: compilePlan({ ...part, loop: { ...part.loop, on: false } }),
      fromSample,
      toSample,
      tail: tail === 'silent' ? { kind: 'silent' } : { kind: 'seconds', seconds: 0 },
    },
  };
}

const printPart = (piece: Piece, print: Print): ExportPart => ({
  source: { kind: 'sound', hash: print.sound },
  sampleRate: print.sampleRate,
  cues: [],
  loop: piece.sounds[print.sound]?.loop,
  timeStamp: print.startSample,
});

/** Hashes of all sounds that are heard when a piece plays: those of clips, and those that effects work with. */
export const soundsPlayed = (piece: Piece): string[] => [
  ...new Set([
    ...piece.tracks.flatMap(({ clips }) => clips.map(({ sound }) => sound)),
    ...channelIds(piece).flatMap((id) => slotsIn(chainOf(piece, id)).flatMap(({ sound }) => (sound ? [sound] : []))),
  ]),
];

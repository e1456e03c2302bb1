import { compilePlan, type Plan } from '../engine/plan';
import type { Tail } from '../engine/render';
import type { Cue } from '../formats/wavHead';
import { beatsToSamples } from '../music/tempo';
import { chainOf, channelIds, slotsIn } from '../piece/find';
import type { Piece, Track } from '../piece/piece';
import { tempoOf } from '../piece/tempoOf';
import type { ExportOrder } from './order';

/** One file of an export: what is rendered for it, or which sound it is. */
export interface ExportPart {
  /** Of the file, without what says its kind. */
  readonly name: string;
  readonly source: { readonly kind: 'render'; readonly plan: Plan; readonly fromSample: number; readonly toSample: number; readonly tail: Tail } | { readonly kind: 'sound'; readonly hash: string };
  readonly sampleRate: number;
  readonly cues: readonly Cue[];
  readonly loop: { readonly first: number; readonly last: number } | undefined;
  readonly timeStamp: number;
}

/** Letters, figures and a few signs: a name that every disk takes. */
const fileName = (name: string): string => name.replace(/[^\p{L}\p{N} ,.-]/gu, '').replace(/\s+/g, ' ').trim().slice(0, 80) || 'sound';

/** The files of an export, in order. */
export function exportParts(piece: Piece, order: ExportOrder): ExportPart[] {
  if (order.what === 'prints') return printParts(piece, order);
  if (order.what === 'mix') return [rendered(piece, piece, order, fileName(piece.name))];
  return piece.tracks.map((track, i) => rendered(piece, stemOf(piece, track), order, `${fileName(piece.name)} - ${String(i + 1).padStart(2, '0')} ${fileName(track.name)}`));
}

/** A track alone with what it sends; the others are there, unheard, for what follows them. */
export const stemOf = (piece: Piece, track: Track): Piece =>
  track.mute ? { ...piece, tracks: [track] } : { ...piece, tracks: piece.tracks.map((other) => ({ ...other, solo: other.id === track.id })) };

function rendered(piece: Piece, part: Piece, { fromBeat, toBeat, tail }: ExportOrder, name: string): ExportPart {
  const at = (beat: number): number => beatsToSamples(beat, tempoOf(piece), piece.sampleRate);
  const [fromSample, toSample] = [at(fromBeat), at(toBeat)];
  const cues = (piece.sections ?? []).filter(({ beat }) => beat >= fromBeat && beat < toBeat).map((section) => ({ frame: at(section.beat) - fromSample, name: section.name }));
  return {
    name, sampleRate: piece.sampleRate, cues, loop: undefined, timeStamp: fromSample,
    source: { kind: 'render', plan: compilePlan({ ...part, loop: { ...part.loop, on: false } }), fromSample, toSample, tail: tail === 'silent' ? { kind: 'silent' } : { kind: 'seconds', seconds: 0 } },
  };
}

const printParts = (piece: Piece, { prints }: ExportOrder): ExportPart[] =>
  piece.prints.filter(({ id }) => prints.includes(id)).map((print) => ({
    name: fileName(print.name), source: { kind: 'sound', hash: print.sound }, sampleRate: print.sampleRate, cues: [], loop: piece.sounds[print.sound]?.loop, timeStamp: print.startSample,
  }));

/** Hashes of all sounds that are heard when a piece plays: those of clips, and those that effects work with. */
export const soundsPlayed = (piece: Piece): string[] => [
  ...new Set([
    ...piece.tracks.flatMap(({ clips }) => clips.map(({ sound }) => sound)),
    ...channelIds(piece).flatMap((id) => slotsIn(chainOf(piece, id)).flatMap(({ sound }) => (sound ? [sound] : []))),
  ]),
];

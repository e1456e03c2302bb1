import { compilePlan } from '../engine/compilePlan';
import type { Plan } from '../engine/plan';
import type { Tail } from '../engine/render';
import type { Cue } from '../formats/wavHead';
import { beatsToSamples } from '../music/tempo';
import { chainOf, channelIds, slotsIn } from '../piece/find';
import type { Piece, Print, Track } from '../piece/piece';
import { tempoOf } from '../piece/tempoOf';
import type { ExportOrder } from './order';

/** One file of an export: what is rendered for it, or which sound it is. */
export interface ExportPart {
  /** Of the file, without what says its kind. */
  readonly name: string;
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

/** Letters, figures and a few signs: a name that every disk takes. */
export const fileName = (name: string): string =>
  name
    .replace(/[^\p{L}\p{N} ,.-]/gu, '')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, 80) || 'sound';

/** Names of the files of an export, in order, without what says their kind. */
export function exportNames(piece: Piece, order: ExportOrder): string[] {
  if (order.what === 'prints') return printsOf(piece, order).map(({ name }) => fileName(name));
  if (order.what === 'mix') return [fileName(piece.name)];
  return piece.tracks.map(
    (track, i) => `${fileName(piece.name)} - ${String(i + 1).padStart(2, '0')} ${fileName(track.name)}`,
  );
}

/** One file of an export. @throws RangeError when there is none of that index */
export function exportPart(piece: Piece, order: ExportOrder, index: number): ExportPart {
  const name = exportNames(piece, order)[index];
  if (name === undefined) throw new RangeError(`There is no file ${index} in this export.`);
  if (order.what === 'prints') return printPart(piece, printsOf(piece, order)[index]!, name);
  return rendered(piece, order.what === 'mix' ? piece : stemOf(piece, piece.tracks[index]!), order, name);
}

const printsOf = (piece: Piece, { prints }: ExportOrder): Print[] =>
  piece.prints.filter(({ id }) => prints.includes(id));

/** A track alone with what it sends; the others are there, unheard, for what follows them. */
export const stemOf = (piece: Piece, track: Track): Piece =>
  track.mute
    ? { ...piece, tracks: [track] }
    : { ...piece, tracks: piece.tracks.map((other) => ({ ...other, solo: other.id === track.id })) };

function rendered(piece: Piece, part: Piece, { fromBeat, toBeat, tail }: ExportOrder, name: string): ExportPart {
  const at = (beat: number): number => beatsToSamples(beat, tempoOf(piece), piece.sampleRate);
  const [fromSample, toSample] = [at(fromBeat), at(toBeat)];
  const cues = (piece.sections ?? [])
    .filter(({ beat }) => beat >= fromBeat && beat < toBeat)
    .map((section) => ({ frame: at(section.beat) - fromSample, name: section.name }));
  return {
    name,
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

const printPart = (piece: Piece, print: Print, name: string): ExportPart => ({
  name,
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

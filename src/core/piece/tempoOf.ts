import { tempoMapOf } from './moves/tempoLane';
import type { MetreChange, Tempo, TempoMap } from '../music/tempo';
import { metreAt } from '../music/metre';
import type { ValueContext } from '../params/param';
import type { Lane, Piece, Section } from './piece';

type Timed = Pick<Piece, 'tempo' | 'sampleRate' | 'lanes'> & { readonly sections?: Piece['sections'] };

const knownMaps = new WeakMap<Lane, { readonly base: Piece['tempo']; readonly map: TempoMap }>();
const knownMetres = new WeakMap<readonly Section[], readonly MetreChange[]>();

/** The lane of the tempo, if there is an active one. */
export const tempoLane = (piece: Pick<Piece, 'lanes'>): Lane | undefined =>
  piece.lanes.find(({ on, target }) => on && target.kind === 'tempo');

function mapOf(piece: Timed, lane: Lane): TempoMap {
  const kept = knownMaps.get(lane);
  if (kept && kept.base === piece.tempo) return kept.map;
  const map = tempoMapOf(piece, lane);
  knownMaps.set(lane, { base: piece.tempo, map });
  return map;
}

function metresOf(sections: readonly Section[]): readonly MetreChange[] {
  const kept = knownMetres.get(sections);
  if (kept) return kept;
  const metres = sections.flatMap(({ beat, metre }) => (metre ? [{ ...metre, beat }] : []));
  knownMetres.set(sections, metres);
  return metres;
}

/** The tempo of a piece without its moves, but with its metres: for the length of note values. */
export const constantTempoOf = ({ tempo, sections }: Timed): Tempo =>
  sections ? { ...tempo, metres: metresOf(sections) } : tempo;

/** The tempo of a piece with its moves and metres: for conversions between beats, samples and bars. */
export function tempoOf(piece: Timed): Tempo {
  const lane = tempoLane(piece);
  const metres = piece.sections ? metresOf(piece.sections) : [];
  if (!lane && metres.length === 0) return piece.tempo;
  return { ...piece.tempo, ...(lane ? { map: mapOf(piece, lane) } : {}), ...(metres.length > 0 ? { metres } : {}) };
}

/** Context for parsing and formatting values at a beat: note values follow the metre there. */
export function contextAt(piece: Timed, beat: number): ValueContext {
  const { beatsPerBar } = metreAt(beat, constantTempoOf(piece));
  return { tempo: { ...piece.tempo, beatsPerBar }, sampleRate: piece.sampleRate };
}

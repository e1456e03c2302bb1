import type { LaneTrack } from '../moves/evaluate';
import { basePosition, laneTrack, trackAt } from '../moves/lane';
import { layStretch, type StretchPoint } from '../moves/stretch';
import { thin, type Reading } from '../moves/thin';
import { TOLERANCE } from '../moves/record';
import { beatsToSamples } from '../music/tempo';
import { tempoOf } from '../piece/tempoOf';
import { contextOf, findLane, paramOf, sameTarget } from '../piece/find';
import { MACRO_LEVEL, macroParam, MAIN, type Lane, type Link, type Piece, type Target } from '../piece/piece';
import { modulatorAt, modulatorTrack, type Modulator } from './modulator';

const held = (position: number): number => Math.min(1, Math.max(0, position));

/** Where a parameter with links stands, as a place on its rail at a beat of the piece. */
export interface LinkedRail {
  /** The stretch of the rail over which it can go. */
  readonly low: number;
  readonly high: number;
  at(beat: number): number;
}

/** Where a follower stands at a beat; what it follows is sound, which a piece alone does not tell. */
export type Followed = (modulator: Modulator) => (beat: number) => number;
const NO_RESTS: NonNullable<Link['rests']> = [];
const STILL: Followed = () => () => 0;

/** What the links of a target do to it, over its lane or its base value; null when it has none. */
export function linkedRail(piece: Piece, target: Target, followed: Followed = STILL): LinkedRail | null {
  const links = piece.links.filter((link) => sameTarget(link.target, target));
  const param = paramOf(piece, target);
  if (links.length === 0 || !param) return null;
  const turning = links.flatMap((link) => {
    const modulator = piece.modulators.find(({ id }) => id === link.modulator);
    return modulator ? [{ at: modulator.kind === 'follower' ? followed(modulator) : standing(piece, modulator), depth: link.depth, rests: link.rests ?? NO_RESTS, oneSided: modulator.kind === 'macro' || modulator.kind === 'follower' }] : [];
  });
  const lane = findLane(piece, target);
  const track = lane?.on ? laneTrack(piece, lane, param) : null;
  const base = basePosition(piece, target, param);
  const reach = (way: 1 | -1): number => turning.reduce((sum, { depth, oneSided }) => sum + (oneSided ? Math.max(0, way * depth) : Math.abs(depth)), 0);
  const [low, high] = extremes(track, base);
  return {
    low: held(low - reach(-1)), high: held(high + reach(1)),
    at: (beat) => held((track ? trackAt(track, beat) : base) + turning.reduce((sum, { at, depth, rests }) => (rests.some(({ start, end }) => beat >= start && beat < end) ? sum : sum + depth * at(beat)), 0)),
  };
}

/** Where a modulator stands at a beat: a macro where its own lane or level has it. */
function standing(piece: Piece, modulator: Modulator): (beat: number) => number {
  if (modulator.kind !== 'macro') {
    const track = modulatorTrack(modulator, contextOf(piece));
    // What turns by note values is counted by the unmoved tempo, as in the engine.
    const tempo = track.byBeat ? piece.tempo : tempoOf(piece);
    return (beat) => modulatorAt(track, beatsToSamples(beat, tempo, piece.sampleRate));
  }
  const lane = findLane(piece, { channel: MAIN, effect: null, param: macroParam(modulator.id) });
  const track = lane?.on ? laneTrack(piece, lane, MACRO_LEVEL) : null;
  return (beat) => (track ? trackAt(track, beat) : modulator.level);
}

function extremes(track: LaneTrack | null, base: number): [number, number] {
  if (!track) return [base, base];
  return [track.positions.reduce((a, b) => Math.min(a, b), 1), track.positions.reduce((a, b) => Math.max(a, b), 0)];
}

const READINGS_PER_BEAT = 192;

/** What the links of a target do between two beats, laid into its lane as moves that can be corrected by hand; around them it stays as it was. */
export function laneFromLinks(piece: Piece, target: Target, fromBeat: number, toBeat: number, newId: string, followed: Followed = STILL): Lane | null {
  const rail = linkedRail(piece, target, followed);
  const param = paramOf(piece, target);
  if (!rail || !param) return null;
  const count = Math.max(2, Math.round((toBeat - fromBeat) * READINGS_PER_BEAT));
  const readings = Array.from({ length: count + 1 }, (_, i): Reading => {
    const beat = fromBeat + ((toBeat - fromBeat) * i) / count;
    return { beat: beat - fromBeat, position: rail.at(Math.min(beat, toBeat - 1e-9)) };
  });
  const number = param.kind === 'number';
  const kept = number ? thin(readings, TOLERANCE) : readings.filter((reading, i) => reading.position !== readings[i - 1]?.position);
  const points = kept.map(({ beat, position }): StretchPoint => ({ beat, position, value: 0, shape: number ? 'line' : 'hold', bend: 0 }));
  return layStretch(piece, target, fromBeat, { lengthBeats: toBeat - fromBeat, unit: 'own', points }, 1, newId);
}

import type { LaneTrack } from '../../automation/evaluate';
import { basePosition, laneTrack, trackAt } from '../moves/lane';
import { pasteLaneRange, type LaneRangePoint } from '../moves/laneRange';
import { thin, type Reading } from '../../automation/thin';
import { TOLERANCE } from '../moves/record';
import { placeByBars } from '../../music/grid';
import { metreSpans } from '../../music/metre';
import { beatsToSamples } from '../../music/tempo';
import { constantTempoOf, tempoOf } from '../tempoOf';
import { contextOf, findLane, paramOf, sameTarget } from '../find';
import { MACRO_LEVEL, type Lane, type Link, type Piece, type Target } from '../piece';
import { linkOffset, type LinkTransfer } from '../../automation/linkTransfer';
import type { Follower, Modulator, Run } from '../../automation/modulator';
import { modulatorAt, modulatorTrack } from '../../automation/modulatorTrack';

const held = (position: number): number => Math.min(1, Math.max(0, position));

/** Value of a parameter with links at a beat, as a position on its rail. */
export interface LinkedRail {
  /** The range of the rail that it can reach. */
  readonly low: number;
  readonly high: number;
  at(beat: number): number;
}

/** Output of a follower or a run at a beat, which the piece alone does not determine. */
export type LiveOutput = (modulator: Follower | Run) => (beat: number) => number;
const NO_RESTS: NonNullable<Link['rests']> = [];
const STILL: LiveOutput = () => () => 0;

/** A link's depth, curve and range, with defaults. */
export const linkTransferOf = ({ depth, curve, range }: Pick<Link, 'depth' | 'curve' | 'range'>): LinkTransfer => ({
  depth,
  curve: curve ?? 0,
  low: range?.low ?? 0,
  high: range?.high ?? 1,
});

/** The modulators that are linked to a target. */
export const modulatorsOf = (piece: Piece, target: Target): Modulator[] =>
  piece.modulators.filter(({ id }) =>
    piece.links.some((link) => link.modulator === id && sameTarget(link.target, target)),
  );

/** Whether a modulator's output is only known while the piece plays, as it depends on sound or on a hold. */
export const isLive = (modulator: Modulator): modulator is Follower | Run =>
  modulator.kind === 'follower' || modulator.kind === 'run';

/** The value of a target with its links, over its lane or base value; null when it has none. */
export function linkedRail(piece: Piece, target: Target, live: LiveOutput = STILL): LinkedRail | null {
  const links = piece.links.filter((link) => sameTarget(link.target, target));
  const param = paramOf(piece, target);
  if (links.length === 0 || !param) return null;
  const turning = links.flatMap((link) => {
    const modulator = piece.modulators.find(({ id }) => id === link.modulator);
    return modulator
      ? [
          {
            at: isLive(modulator) ? live(modulator) : standing(piece, modulator, live),
            transfer: linkTransferOf(link),
            rests: link.rests ?? NO_RESTS,
            least: modulator.kind === 'macro' || modulator.kind === 'follower' ? 0 : -1,
          },
        ]
      : [];
  });
  const lane = findLane(piece, target);
  const track = lane?.on ? laneTrack(piece, lane, param) : null;
  const base = basePosition(piece, target, param);
  const [low, high] = extremes(track, base);
  return {
    low: held(
      turning.reduce(
        (sum, { transfer, least }) => sum + Math.min(0, linkOffset(low, 1, transfer), linkOffset(low, least, transfer)),
        low,
      ),
    ),
    high: held(
      turning.reduce(
        (sum, { transfer, least }) =>
          sum + Math.max(0, linkOffset(high, 1, transfer), linkOffset(high, least, transfer)),
        high,
      ),
    ),
    at: (beat) => {
      const at = track ? trackAt(track, beat) : base;
      return held(
        turning.reduce(
          (sum, { at: turn, transfer, rests }) =>
            rests.some(({ start, end }) => beat >= start && beat < end)
              ? sum
              : sum + linkOffset(at, turn(beat), transfer),
          at,
        ),
      );
    },
  };
}

/** Value of a modulator at a beat; of a macro by its own lane or level, and what is linked to it. */
function standing(piece: Piece, modulator: Modulator, live: LiveOutput): (beat: number) => number {
  if (modulator.kind !== 'macro') {
    const track = modulatorTrack(modulator, { ...contextOf(piece), tempo: constantTempoOf(piece) });
    const moved = tempoOf(piece);
    // Modulators with note values use the tempo without its moves, as in the engine.
    const tempo = track.byBeat ? piece.tempo : moved;
    const place = (beat: number): number =>
      track.byBar ? placeByBars(beat, metreSpans(moved), piece.tempo.beatsPerBar) : beat;
    return (beat) => modulatorAt(track, beatsToSamples(place(beat), tempo, piece.sampleRate));
  }
  const target: Target = { kind: 'macro', macro: modulator.id };
  // A macro is never linked to a macro, so that there is no recursion.
  const rail = linkedRail(piece, target, live);
  if (rail) return rail.at;
  const lane = findLane(piece, target);
  const track = lane?.on ? laneTrack(piece, lane, MACRO_LEVEL) : null;
  return (beat) => (track ? trackAt(track, beat) : modulator.level);
}

function extremes(track: LaneTrack | null, base: number): [number, number] {
  if (!track) return [base, base];
  return [track.positions.reduce((a, b) => Math.min(a, b), 1), track.positions.reduce((a, b) => Math.max(a, b), 0)];
}

const READINGS_PER_BEAT = 192;

/**
 * Converts the effect of a target's links between two beats to points of its lane, which can be edited; outside of them
 * the lane is unchanged.
 */
export function laneFromLinks(
  piece: Piece,
  target: Target,
  fromBeat: number,
  toBeat: number,
  newId: string,
  live: LiveOutput = STILL,
): Lane | null {
  const rail = linkedRail(piece, target, live);
  const param = paramOf(piece, target);
  if (!rail || !param) return null;
  const count = Math.max(2, Math.round((toBeat - fromBeat) * READINGS_PER_BEAT));
  const readings = Array.from({ length: count + 1 }, (_, i): Reading => {
    const beat = fromBeat + ((toBeat - fromBeat) * i) / count;
    return { beat: beat - fromBeat, position: rail.at(Math.min(beat, toBeat - 1e-9)) };
  });
  const number = param.kind === 'number';
  const kept = number
    ? thin(readings, TOLERANCE)
    : readings.filter((reading, i) => reading.position !== readings[i - 1]?.position);
  const points = kept.map(({ beat, position }): LaneRangePoint => ({
    beat,
    position,
    value: 0,
    shape: number ? 'line' : 'hold',
    bend: 0,
  }));
  return pasteLaneRange(piece, target, fromBeat, { lengthBeats: toBeat - fromBeat, unit: 'own', points }, 1, newId);
}

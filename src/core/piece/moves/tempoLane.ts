import type { TempoMap } from '../../music/tempo';
import { paramAtPosition } from '../../params/resolve';
import { TEMPO, type Lane, type Piece } from '../piece';
import { splitPoints } from '../../automation/editPoints';
import { laneTrack, trackAt } from './lane';
import type { Point } from '../../automation/point';

/** A ramp is played as segments of constant tempo, this long in beats: less than a millisecond off the smooth ramp. */
const STRETCH_BEATS = 1 / 16;

/** The time of a piece as moved by a lane of tempo. */
export function tempoMapOf(piece: Pick<Piece, 'tempo' | 'sampleRate'>, lane: Pick<Lane, 'unit' | 'points'>): TempoMap {
  const track = laneTrack(piece, lane, TEMPO);
  const bpmOf = (beat: number): number => paramAtPosition(TEMPO, trackAt(track, beat));
  const beats: number[] = [0];
  const bpm: number[] = [bpmOf(0)];
  track.times.forEach((from, i) => {
    const to = track.times[i + 1] ?? from;
    const still =
      i === track.times.length - 1 || lane.points[i]!.shape === 'hold' || track.positions[i] === track.positions[i + 1];
    const count = still ? 1 : Math.max(1, Math.ceil((to - from) / STRETCH_BEATS));
    for (let k = 0; k < count; k += 1) {
      beats.push(from + ((to - from) * k) / count);
      bpm.push(still ? bpmOf(from) : bpmOf(from + ((to - from) * (k + 0.5)) / count));
    }
  });
  const seconds = new Float64Array(beats.length);
  for (let i = 1; i < beats.length; i += 1)
    seconds[i] = seconds[i - 1]! + ((beats[i]! - beats[i - 1]!) * 60) / bpm[i - 1]!;
  return { beats: Float64Array.from(beats), seconds, bpm: Float64Array.from(bpm) };
}

/**
 * Points of a tempo lane that moves to `bpm` from a beat on, over a number of beats or at once, and stays there up to
 * the next points.
 */
export function tempoChange(
  piece: Pick<Piece, 'tempo' | 'sampleRate'>,
  points: readonly Point[],
  beat: number,
  overBeats: number,
  bpm: number,
): Point[] {
  const from = points.length > 0 ? [...points] : [{ beat: 0, value: piece.tempo.bpm, shape: 'hold' as const, bend: 0 }];
  const track = laneTrack(piece, { unit: 'own', points: from }, TEMPO);
  const before = paramAtPosition(TEMPO, trackAt(track, beat));
  const kept = splitPoints(from, beat, before);
  const end = beat + overBeats;
  const early = kept.filter((point) => point.beat < beat);
  const last = early[early.length - 1];
  // A step needs a constant value before it.
  const held =
    overBeats === 0 && last && last.shape !== 'hold' && last.value === before
      ? [...early.slice(0, -1), { ...last, shape: 'hold' as const }]
      : early;
  const change: Point[] = overBeats === 0 ? [] : [{ beat, value: before, shape: 'line', bend: 0 }];
  return [
    ...held,
    ...change,
    { beat: end, value: bpm, shape: 'hold', bend: 0 },
    ...kept.filter((point) => point.beat > end),
  ];
}

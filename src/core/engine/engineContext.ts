import type { LoudnessMatcher } from './matcher';
import type { BlockMixer } from './blockMixer';
import type { StepClock } from './stepClock';

/** State of an engine that its channels and effects share in a step. */
export interface EngineContext {
  readonly sampleRate: number;
  /** Owns and mixes the engine's blocks. */
  readonly mixer: BlockMixer;
  /** Position in the piece. */
  seconds: number;
  /** Time of the present beat if the whole piece had the present tempo: oscillators that follow note values use it. */
  constantTempoSeconds: number;
  /** The same for the present metre too: oscillators that follow notes of a bar use it. */
  constantMetreSeconds: number;
  /** Musical time of the step, for effects that start on the grid. */
  readonly time: StepClock;
  /** Matches the loudness of the compared effect to that of its input. */
  readonly matcher: LoudnessMatcher;
  /** The compared effect; null for none. */
  matched: object | null;
}

import type { MetreSpan } from '../music/metre';

export type MetreStretch = Pick<MetreSpan, 'beatsPerBar' | 'beat' | 'end'>;

/**
 * Musical time of the step that is being processed, for effects that start on the grid. It is that of the sound that
 * enters the effect: effects before it in the chain may have latency.
 */
export interface StepTime {
  readonly playing: boolean;
  /** Length of a bar in quarter notes, of the piece. */
  readonly beatsPerBar: number;
  /** The metre at `beat`: its bar in quarter notes, and where it begins and the next one does (Infinity for the last). */
  readonly metre: MetreStretch;
  /** Position in quarter notes at the first sample of the step. */
  readonly beat: number;
  /** The same as if every bar were as long as the piece's own: for steps that are counted in bars. */
  readonly barBeat: number;
  /** Samples from the first sample of the step to the sample of a position in quarter notes. */
  samplesUntil(beat: number): number;
  /** The same for a position counted as `barBeat` is. */
  samplesUntilBarBeat(barBeat: number): number;
}

/** Time of a piece that is not played: holds start at once. */
export const STANDING: StepTime = {
  playing: false,
  beatsPerBar: 4,
  metre: { beatsPerBar: 4, beat: 0, end: Infinity },
  beat: 0,
  barBeat: 0,
  samplesUntil: () => 0,
  samplesUntilBarBeat: () => 0,
};

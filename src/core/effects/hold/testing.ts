import type { StepTime } from '../stepTime';

/** Time of a piece at an even tempo, from its beginning; for tests and measurements. */
export class EvenTime implements StepTime {
  playing = true;
  /** Position in the piece of the step's first sample. */
  at = 0;

  constructor(
    private readonly bpm: number,
    private readonly sampleRate: number,
    readonly beatsPerBar = 4,
    readonly metre = { beatsPerBar, beat: 0, end: Infinity },
  ) {}

  get beat(): number {
    return (this.at * this.bpm) / (60 * this.sampleRate);
  }

  samplesUntil(beat: number): number {
    return Math.round((beat * 60 * this.sampleRate) / this.bpm) - this.at;
  }

  get barBeat(): number {
    return this.beat;
  }

  samplesUntilBarBeat(barBeat: number): number {
    return this.samplesUntil(barBeat);
  }
}

import { STEP_FRAMES } from '../dsp/blocks';
import { DelayLine, readableBlock } from '../dsp/delayLine';
import { DENORMAL_GUARD } from '../dsp/denormals';

/** Shortest delay in samples: the interpolation needs samples ahead of it. */
export const MIN_DELAY = 4;

/** A delay line with feedback whose delay time may change at every sample. */
export class SweptLine {
  /** Delay at each sample of the coming block, in samples; MIN_DELAY or more. */
  readonly delays = new Float64Array(STEP_FRAMES);
  readonly out = new Float64Array(STEP_FRAMES);
  private readonly line: DelayLine;
  private readonly part = new Float64Array(STEP_FRAMES);
  private readonly delayed = new Float64Array(STEP_FRAMES);

  /** @param longest delay in samples */
  constructor(longest: number) {
    this.line = new DelayLine(longest + 2 * STEP_FRAMES, STEP_FRAMES);
  }

  clear(): void {
    this.line.clear();
  }

  /** Reads a block into `out`. @param from, to feedback at the beginning and the end of the block */
  process(input: Float64Array, from: number, to: number): void {
    if (from === 0 && to === 0) this.pass(input);
    else this.recirculate(input, from, (to - from) / STEP_FRAMES);
  }

  private pass(input: Float64Array): void {
    const { delays } = this;
    this.line.write(input, STEP_FRAMES);
    for (let i = 0; i < STEP_FRAMES; i += 1) delays[i] = delays[i]! + STEP_FRAMES;
    this.line.readMoving(delays, STEP_FRAMES, this.out);
  }

  /** In parts no longer than the shortest delay, so that nothing is read before it was written. */
  private recirculate(input: Float64Array, from: number, step: number): void {
    const { delays, part, delayed: heard, out } = this;
    let shortest = delays[0]!;
    for (let i = 1; i < STEP_FRAMES; i += 1) if (delays[i]! < shortest) shortest = delays[i]!;
    const run = readableBlock(shortest, STEP_FRAMES);
    let share = from;
    for (let at = 0; at < STEP_FRAMES; at += run) {
      const n = at + run > STEP_FRAMES ? STEP_FRAMES - at : run;
      for (let i = 0; i < n; i += 1) part[i] = delays[at + i]!;
      this.line.readMoving(part, n, heard);
      for (let i = 0; i < n; i += 1) {
        share += step;
        out[at + i] = heard[i]!;
        part[i] = input[at + i]! + share * heard[i]! + DENORMAL_GUARD - DENORMAL_GUARD;
      }
      this.line.write(part, n);
    }
  }
}

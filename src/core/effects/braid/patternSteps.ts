import { STEP_FRAMES } from '../../dsp/blocks';
import type { StepTime } from '../stepTime';
import { strandAtStep, type StrandPattern } from './pattern';

/** The shortest step at the fastest tempo is longer than a block: at most the end of a gate, a line and another end. */
const MAX_FOUND = 4;
/** One more for `keepUntil`. */
const MAX_CHANGES = MAX_FOUND + 1;

/** The strands that a pattern lets in during one block of `STEP_FRAMES`, each from a sample on. */
export class PatternSteps {
  /** Samples into the block, ascending; the first is 0. */
  readonly at = new Int32Array(MAX_CHANGES);
  /** Position of the strand that is let in from there on, 1 to 8; 0 for none. */
  readonly position = new Int8Array(MAX_CHANGES);
  count = 0;

  /** Lets one strand in for the whole block. */
  hold(position: number): void {
    this.at[0] = 0;
    this.position[0] = position;
    this.count = 1;
  }

  /** Replaces what was found before a sample of the block, 1 to STEP_FRAMES - 1, by one strand. */
  keepUntil(sample: number, position: number): void {
    let now = 0;
    while (now + 1 < this.count && this.at[now + 1]! <= sample) now += 1;
    const then = this.position[now]!;
    const up = 1 - now;
    if (up > 0) for (let i = this.count - 1; i > now; i -= 1) this.set(i + up, this.at[i]!, this.position[i]!);
    else for (let i = now + 1; i < this.count; i += 1) this.set(i + up, this.at[i]!, this.position[i]!);
    this.set(0, 0, position);
    this.set(1, sample, then);
    this.count += up;
  }

  private set(change: number, at: number, position: number): void {
    this.at[change] = at;
    this.position[change] = position;
  }

  /**
   * Finds the strands of a pattern whose steps are counted from the beginning of the piece.
   * @param length of a step in quarter notes
   * @param inBars the length is counted in bars, which are as long as they are where they are
   * @param open share of a step in which its strand is let in
   * @param lag samples by which all of it happens later
   */
  find(pattern: StrandPattern, time: StepTime, length: number, inBars: boolean, open: number, lag: number): void {
    const here = inBars ? time.barBeat : time.beat;
    if (!time.playing) {
      this.hold(strandAtStep(pattern, Math.floor(here / length + 1e-9)));
      return;
    }
    // A line up to half a sample before the block counts as on its first sample: its position is rounded.
    let step = Math.ceil(here / length);
    while (samplesUntil(time, step * length, inBars) + lag > 0) step -= 1;
    this.count = 0;
    this.add(0, strandAtStep(pattern, step));
    for (;;) {
      if (open < 1) this.add(samplesUntil(time, (step + open) * length, inBars) + lag, 0);
      step += 1;
      const line = samplesUntil(time, step * length, inBars) + lag;
      if (line >= STEP_FRAMES) return;
      this.add(line, strandAtStep(pattern, step));
    }
  }

  /** A change before the block is one at its first sample, in place of earlier ones. */
  private add(at: number, position: number): void {
    if (at >= STEP_FRAMES || this.count === MAX_FOUND) return;
    if (at <= 0) this.count = 0;
    this.at[this.count] = at > 0 ? at : 0;
    this.position[this.count] = position;
    this.count += 1;
  }
}

const samplesUntil = (time: StepTime, place: number, inBars: boolean): number =>
  inBars ? time.samplesUntilBarBeat(place) : time.samplesUntil(place);

import type { StereoBlock } from '../../dsp/blocks';
import type { History } from './history';

/** One read of the history at constant speed, with a gain; or the input itself. */
export class SliceReading {
  /** Frames since the start of the hold at which it begins, between samples. */
  start = 0;
  private source = 0;
  private speed = 1;
  private gain = 0;
  private live = false;

  /** @param source position in the history at its start  @param speed negative for backwards */
  set(start: number, source: number, speed: number, gain: number): void {
    this.start = start;
    this.source = source;
    this.speed = speed;
    this.gain = gain;
    this.live = false;
  }

  /** Passes the input from `start` on. */
  setLive(start: number, gain: number): void {
    this.set(start, 0, 1, gain);
    this.live = true;
  }

  copy(other: SliceReading): void {
    this.start = other.start;
    this.source = other.source;
    this.speed = other.speed;
    this.gain = other.gain;
    this.live = other.live;
  }

  /**
   * Adds [from, to) of a step to `out`.
   * @param share of the crossfade that has passed at `from`, and `shareStep` its increment per sample
   * @param fades out instead of in
   * @param time frames since the start of the hold at the first sample of the step
   */
  add(
    out: StereoBlock,
    input: StereoBlock,
    history: History,
    time: number,
    from: number,
    to: number,
    share: number,
    shareStep: number,
    fades: boolean,
  ): void {
    let left = input.left;
    let right = input.right;
    if (!this.live) {
      history.read(this.source + (time + from - this.start) * this.speed, this.speed, 0, from, to);
      left = history.outLeft;
      right = history.outRight;
    }
    let gone = share;
    for (let i = from; i < to; i += 1) {
      const smooth = gone * gone * (3 - 2 * gone);
      const gain = this.gain * (fades ? 1 - smooth : smooth);
      out.left[i] = out.left[i]! + gain * left[i]!;
      out.right[i] = out.right[i]! + gain * right[i]!;
      gone += shareStep;
    }
  }
}

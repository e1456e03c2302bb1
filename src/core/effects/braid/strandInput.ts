import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { smoothToward } from '../../dsp/onePole';

/**
 * Matrix from the input's left and right to a strand's, by the index of the choice: both, left, right, mid, side. Side
 * is inverted on the right, so that mid and side add up to the input.
 */
const LEFT_TO_LEFT = [1, 1, 0, 0.5, 0.5];
const RIGHT_TO_LEFT = [0, 0, 1, 0.5, -0.5];
const LEFT_TO_RIGHT = [0, 1, 0, 0.5, -0.5];
const RIGHT_TO_RIGHT = [1, 0, 1, 0.5, 0.5];

/** Extracts a strand's part of the input; a change of choice or share is ramped linearly over each step. */
export class StrandInput {
  private ll = 1;
  private rl = 0;
  private lr = 0;
  private rr = 1;
  private openNow = 1;

  /** True while nothing passes. */
  get shut(): boolean {
    return this.openNow === 0;
  }

  /** A new strand fades in. */
  shutAtOnce(): void {
    this.openNow = 0;
  }

  /** Jumps to a choice. */
  jump(choice: number, open: number): void {
    this.ll = LEFT_TO_LEFT[choice]!;
    this.rl = RIGHT_TO_LEFT[choice]!;
    this.lr = LEFT_TO_RIGHT[choice]!;
    this.rr = RIGHT_TO_RIGHT[choice]!;
    this.openNow = open;
  }

  /** @param open gain at the end of the step  @param share of its way that a choice goes in a step */
  process(input: StereoBlock, out: StereoBlock, choice: number, open: number, share: number, openShare: number): void {
    let { ll, rl, lr, rr } = this;
    this.rampTo(choice, share);
    let from = this.openNow;
    this.openNow = smoothToward(this.openNow, open, openShare, 1e-4);
    const n = STEP_FRAMES;
    const llStep = (this.ll - ll) / n;
    const rlStep = (this.rl - rl) / n;
    const lrStep = (this.lr - lr) / n;
    const rrStep = (this.rr - rr) / n;
    const openStep = (this.openNow - from) / n;
    for (let i = 0; i < n; i += 1) {
      ll += llStep;
      rl += rlStep;
      lr += lrStep;
      rr += rrStep;
      from += openStep;
      const l = input.left[i]! * from;
      const r = input.right[i]! * from;
      out.left[i] = l * ll + r * rl;
      out.right[i] = l * lr + r * rr;
    }
  }

  private rampTo(choice: number, share: number): void {
    this.ll = smoothToward(this.ll, LEFT_TO_LEFT[choice]!, share, 1e-5);
    this.rl = smoothToward(this.rl, RIGHT_TO_LEFT[choice]!, share, 1e-5);
    this.lr = smoothToward(this.lr, LEFT_TO_RIGHT[choice]!, share, 1e-5);
    this.rr = smoothToward(this.rr, RIGHT_TO_RIGHT[choice]!, share, 1e-5);
  }
}

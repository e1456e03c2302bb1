import { clearBlock, STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import type { PatternSteps } from './patternSteps';

/**
 * Opens and shuts one strand, beginning at the sample at which its step begins or ends. The gain is the smoothstep of a
 * linear ramp: while one strand opens and another shuts, their gains add up to one.
 */
export class StrandGate {
  /** Value of the ramp, 0 to 1. */
  private ramp = 1;
  /** The gain of each sample of the last block; not written where `moved` is false. */
  readonly gains = new Float64Array(STEP_FRAMES);
  /** False where the gate was open, or shut, during the whole of the last block. */
  moved = false;

  /** True where nothing passes now. */
  get shut(): boolean {
    return this.ramp === 0;
  }

  /** Is open or shut at once. */
  jump(open: boolean): void {
    this.ramp = open ? 1 : 0;
  }

  /**
   * Computes the gains of the next block.
   * @param steps null to be open all the time
   * @param position of the strand
   * @param opens how much the ramp rises per sample
   * @param shuts how much it falls per sample
   */
  step(steps: PatternSteps | null, position: number, opens: number, shuts: number): void {
    this.moved = !this.isUnchanged(steps, position);
    if (!this.moved) return;
    const { gains } = this;
    const changes = steps === null ? 1 : steps.count;
    let { ramp } = this;
    for (let c = 0; c < changes; c += 1) {
      const from = steps === null ? 0 : steps.at[c]!;
      const to = c + 1 < changes ? steps!.at[c + 1]! : STEP_FRAMES;
      const goal = steps === null || steps.position[c] === position ? 1 : 0;
      for (let i = from; i < to; i += 1) {
        if (ramp < goal) ramp = ramp + opens < 1 ? ramp + opens : 1;
        else if (ramp > goal) ramp = ramp - shuts > 0 ? ramp - shuts : 0;
        gains[i] = ramp * ramp * (3 - 2 * ramp);
      }
    }
    this.ramp = ramp;
  }

  /** True when the block asks for nothing but the value that the ramp has. */
  private isUnchanged(steps: PatternSteps | null, position: number): boolean {
    if (steps === null) return this.ramp === 1;
    for (let c = 0; c < steps.count; c += 1) if ((steps.position[c] === position ? 1 : 0) !== this.ramp) return false;
    return true;
  }
}

/** Multiplies a block by the gains of a gate. */
export function applyGate({ left, right }: StereoBlock, gate: StrandGate): void {
  if (!gate.moved) {
    if (!gate.shut) return;
    clearBlock(left);
    clearBlock(right);
    return;
  }
  const { gains } = gate;
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    left[i] = left[i]! * gains[i]!;
    right[i] = right[i]! * gains[i]!;
  }
}

import { clearBlock, STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import type { PatternSteps } from './patternSteps';

/**
 * Opens and shuts one strand, from the very sample on at which its step begins or ends. It goes along a straight line
 * whose smoothstep is the gain: while one opens and another shuts, their gains add up to one.
 */
export class StrandGate {
  /** Place on that line, 0 to 1. */
  private place = 1;
  /** The gain of each sample of the last step; of use while `moved`. */
  readonly gains = new Float64Array(STEP_FRAMES);
  /** False where the gate was wholly open, or wholly shut, during the last step. */
  moved = false;

  /** True where nothing passes now. */
  get shut(): boolean {
    return this.place === 0;
  }

  /** Is open or shut at once. */
  jump(open: boolean): void {
    this.place = open ? 1 : 0;
  }

  /**
   * Goes on by a step.
   * @param steps null to stay open, or to open  @param position of the strand  @param opens of the line per sample  @param shuts the same, downwards
   */
  step(steps: PatternSteps | null, position: number, opens: number, shuts: number): void {
    this.moved = !this.stays(steps, position);
    if (!this.moved) return;
    const { gains } = this;
    const changes = steps === null ? 1 : steps.count;
    let { place } = this;
    for (let c = 0; c < changes; c += 1) {
      const from = steps === null ? 0 : steps.at[c]!;
      const to = c + 1 < changes ? steps!.at[c + 1]! : STEP_FRAMES;
      const goal = steps === null || steps.position[c] === position ? 1 : 0;
      for (let i = from; i < to; i += 1) {
        if (place < goal) place = place + opens < 1 ? place + opens : 1;
        else if (place > goal) place = place - shuts > 0 ? place - shuts : 0;
        gains[i] = place * place * (3 - 2 * place);
      }
    }
    this.place = place;
  }

  /** True when nothing in a step asks for another place than that in which it is. */
  private stays(steps: PatternSteps | null, position: number): boolean {
    if (steps === null) return this.place === 1;
    for (let c = 0; c < steps.count; c += 1) if ((steps.position[c] === position ? 1 : 0) !== this.place) return false;
    return true;
  }
}

/** Multiplies a block by the gains of a gate, which may be wholly open or shut. */
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

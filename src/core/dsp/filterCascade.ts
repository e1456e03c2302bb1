import { STEP_FRAMES } from './blocks';
import { startKernel, type KernelRoom } from './kernels/load';
import { FILTER_CASCADE_BYTES } from './kernels/filterCascade/bytes';
import { FILTER_CASCADE_FUSED_BYTES } from './kernels/filterCascade/fusedBytes';
import {
  AT_A1,
  AT_A2,
  AT_MOVING,
  AT_SETTINGS,
  AT_STEPS,
  BYPASSED,
  RAMPING,
  SECTION_FIGURES,
  SECTIONS_AT,
  STEADY,
} from './kernels/filterCascade/layout';
import { filterCascadeReference } from './kernels/filterCascade/reference';

const CODE = { plain: FILTER_CASCADE_BYTES, fused: FILTER_CASCADE_FUSED_BYTES };
const SETTINGS = 5;

interface Sides {
  readonly left: Float64Array;
  readonly right: Float64Array;
}

/**
 * State-variable filters in series, the same for both sides, a block at a time; each section is a `StateVariable`.
 * Source: Andrew Simper, "Solving the continuous SVF equations using trapezoidal integration" (2013).
 */
export class FilterCascade {
  readonly memory: Float64Array;
  private readonly moving: Int32Array;
  private readonly goals: Float64Array;
  private readonly fresh: Uint8Array;
  /** Every section is steady or bypassed, as in the block before. */
  private settled = false;
  /** Some section is not bypassed. */
  private heard = false;
  private readonly kernel: ((sections: number) => void) | null;
  /** The kernel's memory, with the room asked for from this byte on; null where there is none. */
  readonly room: KernelRoom | null;

  /**
   * @param withKernel false leaves the work to TypeScript, which tests compare
   * @param spare bytes in its memory for others
   */
  constructor(
    readonly sections: number,
    withKernel = true,
    spare = 0,
  ) {
    const figures = SECTIONS_AT + SECTION_FIGURES * sections;
    const kernel = withKernel ? startKernel(CODE, figures * 8 + spare) : null;
    const buffer = kernel ? kernel.memory.buffer : new ArrayBuffer(figures * 8);
    this.memory = new Float64Array(buffer, 0, figures);
    this.moving = new Int32Array(buffer, 0, figures * 2);
    this.goals = new Float64Array(SETTINGS * sections);
    this.fresh = new Uint8Array(sections).fill(1);
    this.room = kernel ? { memory: kernel.memory, at: figures * 8 } : null;
    this.kernel = kernel ? (kernel.exports.run as (sections: number) => void) : null;
  }

  clear(): void {
    for (let i = 0; i < this.sections; i += 1) {
      this.memory.fill(0, SECTIONS_AT + i * SECTION_FIGURES, SECTIONS_AT + i * SECTION_FIGURES + AT_SETTINGS);
      this.fresh[i] = 1;
    }
    this.settled = false;
  }

  /** Sets a section's coefficients at the end of the coming block. Output is `direct * x + band * bp + low * lp`. */
  aim(section: number, g: number, k: number, direct: number, band: number, low: number): void {
    const { goals } = this;
    const at = section * SETTINGS;
    if (
      goals[at] === g &&
      goals[at + 1] === k &&
      goals[at + 2] === direct &&
      goals[at + 3] === band &&
      goals[at + 4] === low
    )
      return;
    goals[at] = g;
    goals[at + 1] = k;
    goals[at + 2] = direct;
    goals[at + 3] = band;
    goals[at + 4] = low;
    this.settled = false;
  }

  /** Filters a block in place. */
  process({ left, right }: Sides): void {
    if (this.settled) {
      if (this.heard) this.run(left, right);
      return;
    }
    const { sections } = this;
    this.heard = false;
    this.settled = true;
    for (let s = 0; s < sections; s += 1) {
      const moving = this.prepareRamp(s);
      if (moving !== BYPASSED) this.heard = true;
      if (moving === RAMPING) this.settled = false;
    }
    if (this.heard) this.run(left, right);
    for (let s = 0; s < sections; s += 1) this.finishRamp(s);
  }

  private run(left: Float64Array, right: Float64Array): void {
    const { memory, sections } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      memory[2 * i] = left[i]!;
      memory[2 * i + 1] = right[i]!;
    }
    if (this.kernel) this.kernel(sections);
    else filterCascadeReference(memory, this.moving, sections);
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      left[i] = memory[2 * i]!;
      right[i] = memory[2 * i + 1]!;
    }
  }

  /**
   * Prepares a section's ramps over the block; a section without state takes its coefficients at once.
   * @returns STEADY, RAMPING or BYPASSED
   */
  private prepareRamp(section: number): number {
    const { memory, goals } = this;
    const at = SECTIONS_AT + section * SECTION_FIGURES;
    let moving = STEADY as number;
    for (let i = 0; i < SETTINGS; i += 1) {
      const goal = goals[section * SETTINGS + i]!;
      if (this.fresh[section]) memory[at + AT_SETTINGS + i] = goal;
      const step = (goal - memory[at + AT_SETTINGS + i]!) / STEP_FRAMES;
      memory[at + AT_STEPS + i] = step;
      if (step !== 0) moving = RAMPING;
    }
    this.fresh[section] = 0;
    if (
      moving === STEADY &&
      memory[at + AT_SETTINGS + 2] === 1 &&
      memory[at + AT_SETTINGS + 3] === 0 &&
      memory[at + AT_SETTINGS + 4] === 0
    ) {
      // It is bypassed; when its weights begin to move they start from zero, so its state may be cleared.
      moving = BYPASSED;
      if (this.moving[2 * (at + AT_MOVING)] !== BYPASSED) for (let i = 0; i < AT_SETTINGS; i += 1) memory[at + i] = 0;
    }
    this.moving[2 * (at + AT_MOVING)] = moving;
    if (moving !== STEADY) return moving;
    const g = memory[at + AT_SETTINGS]!;
    const a1 = 1 / (1 + g * (g + memory[at + AT_SETTINGS + 1]!));
    memory[at + AT_A1] = a1;
    memory[at + AT_A2] = g * a1;
    return moving;
  }

  private finishRamp(section: number): void {
    const at = SECTIONS_AT + section * SECTION_FIGURES + AT_SETTINGS;
    for (let i = 0; i < SETTINGS; i += 1) this.memory[at + i] = this.goals[section * SETTINGS + i]!;
  }
}

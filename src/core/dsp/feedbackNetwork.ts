import { STEP_FRAMES } from './blocks';
import { NETWORK_BYTES } from './kernels/network/bytes';
import { NETWORK_FUSED_BYTES } from './kernels/network/fusedBytes';
import { startKernel } from './kernels/load';
import { networkMemoryIn, NETWORK_LINES, RINGS_AT, SHELF_FIGURES, type NetworkMemory } from './kernels/network/layout';
import { networkStep } from './kernels/network/reference';

const CODE = { plain: NETWORK_BYTES, fused: NETWORK_FUSED_BYTES };

type Step = (size: number, place: number, stages: number, moving: number) => number;

/**
 * Sixteen delay lines that feed one another through an orthogonal matrix, each with two second-order shelves in series.
 * Source: J.-M. Jot and A. Chaigne, "Digital delay networks for designing artificial reverberators" (1991); the matrix
 * is a Walsh-Hadamard transform, of which a part may be left out to keep lines apart. Runs in steps of NETWORK_FRAMES.
 * Lines must stay longer than a step and shorter than `size - NETWORK_FRAMES - 4`.
 */
export class FeedbackNetwork {
  readonly memory: NetworkMemory;
  /** Number of the matrix's four stages that mix. */
  stages = 4;
  readonly size: number;
  private place = 0;
  private readonly kernel: Step | null;
  private readonly goal = new Float32Array(SHELF_FIGURES * NETWORK_LINES);
  /** Steps until the shelves are steady: one to reach the last goal, and one to set their increments to zero. */
  private stepsToSettle = 0;

  /**
   * @param longest longest delay in samples
   * @param withKernel false leaves the work to TypeScript, which tests compare
   */
  constructor(longest: number, withKernel = true) {
    let size = 4 * STEP_FRAMES;
    while (size < longest + STEP_FRAMES + 4) size *= 2;
    this.size = size;
    const bytes = RINGS_AT + NETWORK_LINES * size * 4;
    const kernel = withKernel ? startKernel(CODE, bytes) : null;
    this.memory = networkMemoryIn(kernel ? kernel.memory.buffer : new ArrayBuffer(bytes), size);
    this.kernel = kernel ? (kernel.exports.step as Step) : null;
  }

  clear(): void {
    this.memory.rings.fill(0);
    this.memory.states.fill(0);
    this.place = 0;
  }

  /** Sets the goal of shelf coefficient `index` of a line for the end of the coming step. */
  aim(line: number, index: number, value: number): void {
    const at = index * NETWORK_LINES + line;
    const goal = Math.fround(value);
    if (this.goal[at] === goal) return;
    this.goal[at] = goal;
    this.stepsToSettle = 2;
  }

  /** Sets all coefficients to their goals at once. */
  jump(): void {
    this.memory.now.set(this.goal);
    this.memory.move.fill(0);
    this.stepsToSettle = 0;
  }

  /** @returns the highest level written into a line */
  step(): number {
    const { goal, memory } = this;
    const { now, move, delays, slopes } = memory;
    let moving = 0;
    if (this.stepsToSettle > 0) {
      this.stepsToSettle -= 1;
      for (let i = 0; i < goal.length; i += 1) {
        const step = (goal[i]! - now[i]!) / STEP_FRAMES;
        move[i] = step;
        if (step !== 0) moving = 1;
      }
    }
    const peak = this.kernel
      ? this.kernel(this.size, this.place, this.stages, moving)
      : networkStep(memory, this.size, this.place, this.stages);
    if (moving) for (let i = 0; i < goal.length; i += 1) now[i] = goal[i]!;
    for (let line = 0; line < NETWORK_LINES; line += 1) delays[line] = delays[line]! + slopes[line]! * STEP_FRAMES;
    this.place = (this.place + STEP_FRAMES) & (this.size - 1);
    return peak;
  }
}

import { ECHO_LOOP_BYTES } from '../../dsp/kernels/echoLoopBytes';
import { SINC_TAPS, sincCoefficients } from '../../dsp/sincTable';
import type { StateVariable } from '../../dsp/stateVariable';
import { STEP_FRAMES, type StereoRun } from '../define';
import type { LoopColour } from './loopTone';
import type { SteadyGains } from './steadyLoop';

/** Where things lie in the kernel's memory, in bytes; the same figures stand in echoLoop.as.ts. */
const KERNEL_AT = 256;
const INPUT_AT = 512;
const OUTPUT_AT = 1536;
const RINGS_AT = 4096;
const PAGE = 65_536;
/** Places of the settings, in pairs of left and right. */
const STATE_1 = 20;
const STATE_2 = 22;

type Step = (readLeft: number, readRight: number, writeLeft: number, writeRight: number, between: number, filtered: number, crossing: number) => number;

let compiled: WebAssembly.Module | null | undefined;

function compile(): WebAssembly.Module | null {
  if (compiled !== undefined) return compiled;
  try {
    compiled = new WebAssembly.Module(ECHO_LOOP_BYTES);
  } catch {
    // Without SIMD the TypeScript loop does the same work.
    compiled = null;
  }
  return compiled;
}

/** The steady loop as WebAssembly, with both rings in its own memory; `null` from `create` where it cannot run. */
export class EchoKernel {
  readonly ringLeft: Float32Array<ArrayBuffer>;
  readonly ringRight: Float32Array<ArrayBuffer>;
  private readonly settings: Float64Array;
  private readonly coefficients: Float32Array;
  private readonly inLeft: Float64Array;
  private readonly inRight: Float64Array;
  private readonly outLeft: Float64Array;
  private readonly outRight: Float64Array;
  private readonly wanted = new Float64Array(SINC_TAPS);
  private readonly fractions = Float64Array.of(-1, -1);
  private readonly ringBytes: number;
  private readonly run: Step;

  private constructor(module: WebAssembly.Module, ringSize: number) {
    this.ringBytes = ringSize * 4;
    const memory = new WebAssembly.Memory({ initial: Math.ceil((RINGS_AT + 2 * this.ringBytes) / PAGE) });
    const { step } = new WebAssembly.Instance(module, { env: { memory } }).exports;
    this.run = step as Step;
    this.settings = new Float64Array(memory.buffer, 0, 24);
    this.coefficients = new Float32Array(memory.buffer, KERNEL_AT, 2 * SINC_TAPS);
    this.inLeft = new Float64Array(memory.buffer, INPUT_AT, STEP_FRAMES);
    this.inRight = new Float64Array(memory.buffer, INPUT_AT + STEP_FRAMES * 8, STEP_FRAMES);
    this.outLeft = new Float64Array(memory.buffer, OUTPUT_AT, STEP_FRAMES);
    this.outRight = new Float64Array(memory.buffer, OUTPUT_AT + STEP_FRAMES * 8, STEP_FRAMES);
    this.ringLeft = new Float32Array(memory.buffer, RINGS_AT, ringSize);
    this.ringRight = new Float32Array(memory.buffer, RINGS_AT + this.ringBytes, ringSize);
  }

  static create(ringSize: number): EchoKernel | null {
    const module = compile();
    return module ? new EchoKernel(module, ringSize) : null;
  }

  /** Settings that stay until they are set again. */
  set(colour: LoopColour, gains: SteadyGains): void {
    const { g, k } = colour;
    const a1 = 1 / (1 + g * (g + k));
    this.pair(0, g, g);
    this.pair(1, a1, a1);
    this.pair(2, g * a1, g * a1);
    this.pair(3, colour.direct, colour.direct);
    this.pair(4, colour.band, colour.band);
    this.pair(5, colour.low, colour.low);
    this.pair(6, gains.ownLeft, gains.ownRight);
    this.pair(7, gains.stays, gains.stays);
    this.pair(8, gains.otherLeft, gains.otherRight);
    this.pair(9, gains.goesOver, gains.goesOver);
  }

  private pair(index: number, left: number, right: number): void {
    this.settings[2 * index] = left;
    this.settings[2 * index + 1] = right;
  }

  /** Readies the kernel of one side for reading this far between two samples. */
  aim(side: 0 | 1, fraction: number): void {
    if (this.fractions[side] === fraction) return;
    this.fractions[side] = fraction;
    sincCoefficients(fraction, this.wanted);
    this.coefficients.set(this.wanted, side * SINC_TAPS);
  }

  /**
   * One step. @param readLeft @param readRight indexes in the rings: of the first repeat, or of the first sample under the kernel when `between`
   * @param writeLeft @param writeRight indexes of the next place to write  @returns the highest level written
   */
  step(input: StereoRun, wet: StereoRun, a: StateVariable, b: StateVariable, readLeft: number, readRight: number, writeLeft: number, writeRight: number, between: boolean, filtered: boolean, crossing: boolean): number {
    const { settings, ringBytes } = this;
    this.inLeft.set(input.left);
    this.inRight.set(input.right);
    settings[STATE_1] = a.s1;
    settings[STATE_1 + 1] = b.s1;
    settings[STATE_2] = a.s2;
    settings[STATE_2 + 1] = b.s2;
    const right = RINGS_AT + ringBytes;
    const peak = this.run(
      RINGS_AT + readLeft * 4, right + readRight * 4, RINGS_AT + writeLeft * 4, right + writeRight * 4, between ? 1 : 0, filtered ? 1 : 0, crossing ? 1 : 0,
    );
    a.s1 = settings[STATE_1]! + 1e-15 - 1e-15;
    b.s1 = settings[STATE_1 + 1]! + 1e-15 - 1e-15;
    a.s2 = settings[STATE_2]! + 1e-15 - 1e-15;
    b.s2 = settings[STATE_2 + 1]! + 1e-15 - 1e-15;
    wet.left.set(this.outLeft);
    wet.right.set(this.outRight);
    return peak;
  }
}

import { copyBlock, STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { Diffuser } from '../../dsp/diffuser';
import { ECHO_LOOP_BYTES } from '../../dsp/kernels/echoLoop/bytes';
import { ECHO_LOOP_FUSED_BYTES } from '../../dsp/kernels/echoLoop/fusedBytes';
import { startKernel, type Kernel, type KernelRoom } from '../../dsp/kernels/load';
import { LineReader } from '../../dsp/lineReader';
import { SINC_TAPS, sincCoefficients } from '../../dsp/sincTable';
import type { StateVariable } from '../../dsp/stateVariable';
import type { LoopColour } from './loopTone';
import type { SteadyGains } from './steadyLoop';
import { DENORMAL_GUARD } from '../../dsp/denormals';

const CODE = { plain: ECHO_LOOP_BYTES, fused: ECHO_LOOP_FUSED_BYTES };

/** Where things are in the kernel's memory, in bytes; repeated in kernels/echoLoop/kernel.as.ts. */
const KERNEL_AT = 384;
const INPUT_AT = 512;
const OUTPUT_AT = 1536;
const READER_AT = 3072;
const RINGS_AT = READER_AT + LineReader.bytes;
/** Indices of the settings, in pairs of left and right. */
const STATE_1 = 36;
const STATE_2 = 38;

type Step = (
  readLeft: number,
  readRight: number,
  writeLeft: number,
  writeRight: number,
  between: number,
  filtered: number,
  crossing: number,
) => number;

/**
 * The steady loop and the moving heads as WebAssembly, with both rings in its own memory; `null` from `create` where it
 * cannot run.
 */
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
  /** Reads ramping values, and what is outside the loop. */
  readonly reader: LineReader;
  /** Memory of each side's diffusion. */
  readonly smears: readonly [KernelRoom, KernelRoom];

  private constructor({ memory, exports }: Kernel, ringSize: number, sampleRate: number) {
    this.ringBytes = ringSize * 4;
    const behind = RINGS_AT + 2 * this.ringBytes;
    this.smears = [
      { memory, at: behind },
      { memory, at: behind + Diffuser.bytesAt(sampleRate) },
    ];
    this.run = exports.step as Step;
    this.reader = LineReader.create({ memory, at: READER_AT })!;
    this.settings = new Float64Array(memory.buffer, 0, 40);
    this.coefficients = new Float32Array(memory.buffer, KERNEL_AT, 2 * SINC_TAPS);
    this.inLeft = new Float64Array(memory.buffer, INPUT_AT, STEP_FRAMES);
    this.inRight = new Float64Array(memory.buffer, INPUT_AT + STEP_FRAMES * 8, STEP_FRAMES);
    this.outLeft = new Float64Array(memory.buffer, OUTPUT_AT, STEP_FRAMES);
    this.outRight = new Float64Array(memory.buffer, OUTPUT_AT + STEP_FRAMES * 8, STEP_FRAMES);
    this.ringLeft = new Float32Array(memory.buffer, RINGS_AT, ringSize);
    this.ringRight = new Float32Array(memory.buffer, RINGS_AT + this.ringBytes, ringSize);
  }

  static create(ringSize: number, sampleRate: number): EchoKernel | null {
    const kernel = startKernel(CODE, RINGS_AT + 8 * ringSize + 2 * Diffuser.bytesAt(sampleRate));
    return kernel && new EchoKernel(kernel, ringSize, sampleRate);
  }

  /** Sets values that stay until they are set again. */
  set(colour: LoopColour, gains: SteadyGains): void {
    const { g, k } = colour;
    const a1 = 1 / (1 + g * (g + k));
    const a2 = g * a1;
    const { direct, band, low } = colour;
    // The filter of stateVariable.ts as a matrix from both states and the sample to both next states and the output,
    const own1 = 2 * a1 - 1,
      own2 = -2 * a2,
      ownX = 2 * a2;
    const low1 = 2 * a2,
      low2 = 1 - 2 * g * a2,
      lowX = 2 * g * a2;
    const out1 = band * a1 + low * a2,
      out2 = low * (1 - g * a2) - band * a2,
      outX = direct + band * a2 + low * g * a2;
    // and the same applied twice: the states two samples later, and the second output.
    this.both(0, own1 * own1 + own2 * low1);
    this.both(1, own1 * own2 + own2 * low2);
    this.both(2, own1 * ownX + own2 * lowX);
    this.both(3, ownX);
    this.both(4, low1 * own1 + low2 * low1);
    this.both(5, low1 * own2 + low2 * low2);
    this.both(6, low1 * ownX + low2 * lowX);
    this.both(7, lowX);
    this.both(8, outX);
    this.both(9, out1);
    this.both(10, out2);
    this.both(11, out1 * own1 + out2 * low1);
    this.both(12, out1 * own2 + out2 * low2);
    this.both(13, out1 * ownX + out2 * lowX);
    this.pair(14, gains.ownLeft, gains.ownRight);
    this.both(15, gains.stays);
    this.pair(16, gains.otherLeft, gains.otherRight);
    this.both(17, gains.goesOver);
  }

  private both(index: number, value: number): void {
    this.pair(index, value, value);
  }

  private pair(index: number, left: number, right: number): void {
    this.settings[2 * index] = left;
    this.settings[2 * index + 1] = right;
  }

  /** Sets the interpolation kernel of one side to a fraction of a sample. */
  aim(side: 0 | 1, fraction: number): void {
    if (this.fractions[side] === fraction) return;
    this.fractions[side] = fraction;
    sincCoefficients(fraction, this.wanted);
    this.coefficients.set(this.wanted, side * SINC_TAPS);
  }

  /**
   * One step.
   * @param readLeft
   * @param readRight indexes in the rings: of the first repeat, or of the first sample under the kernel when `between`
   * @param writeLeft
   * @param writeRight indexes of the next sample to write
   * @returns the highest level written
   */
  step(
    input: StereoBlock,
    wet: StereoBlock,
    a: StateVariable,
    b: StateVariable,
    readLeft: number,
    readRight: number,
    writeLeft: number,
    writeRight: number,
    between: boolean,
    filtered: boolean,
    crossing: boolean,
  ): number {
    const { settings, ringBytes } = this;
    copyBlock(input.left, this.inLeft);
    copyBlock(input.right, this.inRight);
    settings[STATE_1] = a.s1;
    settings[STATE_1 + 1] = b.s1;
    settings[STATE_2] = a.s2;
    settings[STATE_2 + 1] = b.s2;
    const right = RINGS_AT + ringBytes;
    const peak = this.run(
      RINGS_AT + readLeft * 4,
      right + readRight * 4,
      RINGS_AT + writeLeft * 4,
      right + writeRight * 4,
      between ? 1 : 0,
      filtered ? 1 : 0,
      crossing ? 1 : 0,
    );
    a.s1 = settings[STATE_1]! + DENORMAL_GUARD - DENORMAL_GUARD;
    b.s1 = settings[STATE_1 + 1]! + DENORMAL_GUARD - DENORMAL_GUARD;
    a.s2 = settings[STATE_2]! + DENORMAL_GUARD - DENORMAL_GUARD;
    b.s2 = settings[STATE_2 + 1]! + DENORMAL_GUARD - DENORMAL_GUARD;
    copyBlock(this.outLeft, wet.left);
    copyBlock(this.outRight, wet.right);
    return peak;
  }
}

import type { OversampleWork } from './kernels/oversample/layout';
import { startKernel, type KernelRoom } from './kernels/load';
import { OVERSAMPLE_BYTES } from './kernels/oversample/bytes';
import { OVERSAMPLE_FUSED_BYTES } from './kernels/oversample/fusedBytes';
import { oversampleReference } from './kernels/oversample/reference';
import { toFloat32Block, toFloat64Block, STEP_FRAMES } from './blocks';
import { besselI0 } from './sincTable';

const CODE = { plain: OVERSAMPLE_BYTES, fused: OVERSAMPLE_FUSED_BYTES };

/**
 * Side taps of one half of each stage's filter: the first must fall from 20 to 28 kHz, the others have room, and fall
 * further.
 */
const HALVES = [18, 6, 6] as const;
/** Taps that the kernel takes at once; as many zeros precede those of a stage. */
const TAPS_AT_ONCE = 12;
/** Floats in a cache line. */
const LINE = 16;
/** Kaiser's beta of each: for 90, 110 and 120 dB. By then a tone that aliases is itself far lower than its images. */
const BETAS = [8.96, 11, 12] as const;

/** Latency of a shaper, in samples at the high rate. */
export const SHAPER_LATENCY = 3;
/** Header words of the table, and the index of the one with the delay after the shaper. */
const HEADER = 6;
const FILLING_AT = 2;

/** A custom curve. */
export interface Shaper {
  /** Its latency in samples of the high rate: 0, or SHAPER_LATENCY. */
  readonly latency: number;
  /**
   * Shapes `n` samples in place.
   * @param drive gain before the curve, growing by `step` with each sample
   * @param side 0 left, 1 right
   */
  shape(cells: Float32Array, at: number, n: number, drive: number, step: number, side: 0 | 1): void;
}

/**
 * Offsets of a stage's rows within a channel, in floats: each row is preceded by room for the last samples. The table
 * has them in this order.
 */
interface Stage {
  readonly half: number;
  readonly taps: number;
  readonly input: number;
  readonly even: number;
  readonly odd: number;
  /** Input samples per step. */
  readonly n: number;
}

/**
 * Shapes sound at 2, 4 or 8 times its rate, so that harmonics above half of it do not alias. Half-band filters of
 * linear phase, with Kaiser windows; the delay is `latency` samples.
 * Source: fredric j. harris, "Multirate Signal Processing for Communication Systems" (2004), chapter 8.
 */
export class Oversampler {
  /** Whole samples at the base rate. */
  readonly latency: number;
  /** Memory for a shaper's own kernel behind everything else; null where no kernel works. */
  readonly room: KernelRoom | null;
  private readonly cells: Float32Array<ArrayBuffer>;
  private readonly work: OversampleWork;
  /** Stages between the base rate and the highest. */
  private readonly count: number;
  /** Input and output of both channels. */
  private readonly ins: readonly Float32Array[];
  private readonly outs: readonly Float32Array[];
  /** Offsets within a channel, in floats: of the samples at the highest rate, and of the output. */
  private readonly top: number;
  private readonly result: number;
  private readonly channelFigures: number;
  /** Added delay in samples of the high rate, so that the latency is a whole number of samples at the base rate. */
  private readonly filling: number;
  private readonly places: Int32Array;
  /** Where the channels begin, behind the taps of all stages. */
  private readonly shared: number;

  /**
   * @param factor 2, 4 or 8
   * @param withKernel false leaves the work to TypeScript, which tests compare
   * @param roomBytes of room for a shaper
   */
  constructor(
    private readonly factor: 2 | 4 | 8,
    withKernel = true,
    roomBytes = 0,
  ) {
    const count = Math.log2(factor);
    this.count = count;
    let at = HEADER + 6 * count;
    // Every row is aligned to a cache line.
    const take = (history: number, n: number): number => {
      const begin = LINE * Math.ceil((at + history) / LINE);
      at = begin + n;
      return begin;
    };
    const halves = HALVES.slice(0, count);
    const tapsAt = halves.map((half) => take(TAPS_AT_ONCE, 2 * half));
    const lastTaps = [DECIMATION_TAPS.filter((_, k) => k % 2 === 0), DECIMATION_TAPS.filter((_, k) => k % 2 === 1)];
    const lastAt = lastTaps.map(({ length }) => take(TAPS_AT_ONCE, length));
    this.shared = LINE * Math.ceil(at / LINE);
    at = 0;
    const stages = halves.map((half, s): Stage => {
      const n = STEP_FRAMES << s;
      return {
        half,
        taps: tapsAt[s]!,
        input: take(2 * half + TAPS_AT_ONCE, n),
        even: take(2 * half + TAPS_AT_ONCE, n),
        odd: take(2 * half + TAPS_AT_ONCE, n),
        n,
      };
    });
    const lateTop = stages.reduce((sum, { half }, s) => sum + 2 * (2 * half - 1) * (factor >> (s + 1)), 0);
    const filling = SHAPER_LATENCY + ((factor - ((lateTop + SHAPER_LATENCY) % factor)) % factor);
    this.filling = filling;
    this.latency = (lateTop + filling) / factor;
    this.top = take(filling, STEP_FRAMES * factor);
    this.result = take(0, STEP_FRAMES * factor);
    this.channelFigures = LINE * Math.ceil(at / LINE);
    const figures = LINE * Math.ceil((this.shared + 2 * at) / LINE);
    const kernel = withKernel ? startKernel(CODE, figures * 4 + roomBytes) : null;
    this.room = kernel ? { memory: kernel.memory, at: figures * 4 } : null;
    const bytes = kernel ? kernel.memory.buffer : new ArrayBuffer(figures * 4);
    this.cells = new Float32Array(bytes, 0, figures);
    const places = new Int32Array(bytes, 0, HEADER + 6 * count);
    places.set([
      this.top,
      this.result,
      filling,
      STEP_FRAMES * factor,
      ...lastAt,
      ...stages.flatMap(({ half, taps, input, even, odd, n }) => [half, taps, input, even, odd, n]),
    ]);
    this.work = kernel ? (kernel.exports as unknown as OversampleWork) : oversampleReference(this.cells, places);
    const rows = (at: number): Float32Array[] =>
      [0, 1].map((side) => this.cells.subarray(this.shared + side * this.channelFigures + at).subarray(0, STEP_FRAMES));
    this.ins = rows(stages[0]!.input);
    this.outs = rows(this.result);
    stages.forEach(({ half, taps }, s) => this.cells.set(halfBand(half, BETAS[s]!), taps));
    lastTaps.forEach((taps, i) => this.cells.set(taps, lastAt[i]!));
    this.places = places;
  }

  clear(): void {
    this.cells.fill(0, this.shared);
  }

  /**
   * Shapes a block in place.
   * @param kind index in DRIVE_KINDS, or -1 for a custom shaper
   * @param from, to drive at the ends of the block, 1 = clean
   * @param shaper shapes samples of the high rate where they are
   */
  process(
    block: { readonly left: Float64Array; readonly right: Float64Array },
    kind: number,
    from: number,
    to: number,
    shaper: Shaper | null = null,
  ): void {
    this.places[FILLING_AT] = this.filling - (shaper ? shaper.latency : 0);
    this.side(block.left, 0, kind, from, to, shaper);
    this.side(block.right, 1, kind, from, to, shaper);
  }

  private side(io: Float64Array, side: 0 | 1, kind: number, from: number, to: number, shaper: Shaper | null): void {
    const { cells, work, count, factor } = this;
    const base = this.shared + side * this.channelFigures;
    toFloat32Block(io, this.ins[side]!);
    const topFrames = STEP_FRAMES * factor;
    const step = (to - from) / topFrames;
    work.rise(4 * base, 0, count, shaper ? -1 : kind, from, step);
    if (shaper) shaper.shape(cells, base + this.top, topFrames, from, step, side);
    work.fall(4 * base, 0, count);
    toFloat64Block(this.outs[side]!, io);
  }
}

/**
 * Half of the 71 taps of the last filter on the way down, from the first to the one in the middle: even to 0.03 dB up
 * to 0.405 of the plain rate, 62 dB down from half of it on, so that nothing aliases, and 79 from 0.546 on. A half-band
 * filter is 6 dB down at half the rate. Equal ripple after T. W. Parks and J. H. McClellan, "Chebyshev Approximation
 * for Nonrecursive Digital Filters" (1972), weights 4, 15, 100.
 */
const DECIMATION_HALF = [
  -0.000051703, 0.000358115, 0.001012152, 0.000837854, -0.00055031, -0.00130356, 0.000252866, 0.002022664, 0.000515923,
  -0.002663349, -0.001840892, 0.002930822, 0.003700505, -0.00248775, -0.005926729, 0.000996646, 0.008180154,
  0.001817389, -0.009947053, -0.006100113, 0.010557817, 0.011812807, -0.009213699, -0.018701852, 0.004987512,
  0.026302477, 0.003283806, -0.033980499, -0.017455614, 0.041008166, 0.041837601, -0.046662546, -0.092231069,
  0.050330383, 0.313550668, 0.448398887,
];
const DECIMATION_TAPS = normalize([...DECIMATION_HALF, ...DECIMATION_HALF.slice(0, -1).reverse()]);

/** Exactly one at 0 Hz. */
function normalize(taps: readonly number[]): number[] {
  const sum = taps.reduce((all, tap) => all + tap, 0);
  return taps.map((tap) => tap / sum);
}

/**
 * Every second tap of a half-band filter of 4 half - 1 taps; the one in its middle is a half, the others are nothing.
 */
function halfBand(half: number, beta: number): Float32Array {
  const middle = 2 * half - 1;
  const taps = Float64Array.from({ length: 2 * half }, (_, k) => {
    const x = 2 * k - middle;
    return (
      ((Math.sin((Math.PI * x) / 2) / (Math.PI * x)) * besselI0(beta * Math.sqrt(1 - (x / (middle + 1)) ** 2))) /
      besselI0(beta)
    );
  });
  // Exactly one at 0 Hz: together with the middle one the taps add up to 1.
  const sum = taps.reduce((all, tap) => all + tap, 0);
  return Float32Array.from(taps, (tap) => (tap * 0.5) / sum);
}

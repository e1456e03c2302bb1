import { compiledKernel } from './kernels/load';
import { OVERSAMPLE_BYTES } from './kernels/oversampleBytes';
import { scriptedOversampling } from './oversampleScript';

/** Samples in a run. */
export const OVERSAMPLED_FRAMES = 64;
const PAGE = 65_536;
/** Side taps of one half of each stage's filter: the first must fall from 20 to 28 kHz, the others have room. */
const HALVES = [20, 6, 4] as const;
/** Kaiser's beta for 100 dB. */
const BETA = 10;

/** Addresses are bytes. */
export interface OversampleWork {
  up(from: number, to: number, taps: number, count: number, half: number, n: number): void;
  split(from: number, even: number, odd: number, n: number): void;
  down(even: number, odd: number, to: number, taps: number, count: number, half: number, n: number): void;
  shape(at: number, kind: number, from: number, step: number, n: number): void;
}

/** A curve of one's own. */
export interface Shaper {
  /** Shapes `n` samples in place. @param drive gain before the curve, growing by `step` with each sample */
  shape(cells: Float32Array, at: number, n: number, drive: number, step: number): void;
}

/** Where one stage lies in a channel, in figures from its beginning: each of its rows has room before it for what came last. */
interface Stage {
  readonly half: number;
  readonly taps: number;
  readonly input: number;
  readonly even: number;
  readonly odd: number;
  /** Samples that come in at a step. */
  readonly n: number;
}

/**
 * Shapes sound at 2, 4 or 8 times its rate, so that harmonics beyond half of it do not come back as other tones. Half-band filters of
 * linear phase, windowed after Kaiser; all is later by `latency` samples.
 * Source: fredric j. harris, "Multirate Signal Processing for Communication Systems" (2004), chapter 8.
 */
export class Oversampler {
  /** Whole samples at the plain rate. */
  readonly latency: number;
  private readonly cells: Float32Array<ArrayBuffer>;
  private readonly work: OversampleWork;
  private readonly stages: readonly Stage[];
  /** The highest rate: what is shaped, behind what fills the delay up to whole samples. */
  private readonly top: number;
  private readonly filling: number;
  private readonly channelFigures: number;
  private readonly result: number;
  /** Where the channels begin, behind the taps of all stages. */
  private readonly shared: number;

  /** @param factor 2, 4 or 8  @param withKernel false leaves the work to TypeScript, which tests compare */
  constructor(private readonly factor: 2 | 4 | 8, withKernel = true) {
    const count = Math.log2(factor);
    let at = 0;
    const take = (history: number, n: number): number => {
      const begin = at + history;
      at = begin + n;
      return begin;
    };
    const tapsAt = HALVES.slice(0, count).map((half) => take(0, 2 * half));
    const shared = at;
    at = 0;
    this.stages = HALVES.slice(0, count).map((half, s) => {
      const n = OVERSAMPLED_FRAMES << s;
      return { half, taps: tapsAt[s]!, n, input: take(2 * half, n), even: take(2 * half, n), odd: take(half, n) };
    });
    const lateTop = this.stages.reduce((sum, { half }, s) => sum + 2 * (2 * half - 1) * (factor >> (s + 1)), 0);
    this.filling = (factor - (lateTop % factor)) % factor;
    this.latency = (lateTop + this.filling) / factor;
    this.top = take(this.filling, OVERSAMPLED_FRAMES * factor);
    this.result = take(0, OVERSAMPLED_FRAMES * factor);
    this.channelFigures = at;
    const figures = shared + 2 * at;
    const module = withKernel ? compiledKernel(OVERSAMPLE_BYTES) : null;
    const memory = module ? new WebAssembly.Memory({ initial: Math.ceil((figures * 4) / PAGE) }) : null;
    this.cells = memory ? new Float32Array(memory.buffer, 0, figures) : new Float32Array(figures);
    this.work = module && memory ? (new WebAssembly.Instance(module, { env: { memory } }).exports as unknown as OversampleWork) : scriptedOversampling(this.cells);
    this.stages.forEach(({ half, taps }) => this.cells.set(halfBand(half), taps));
    this.shared = shared;
  }

  clear(): void {
    this.cells.fill(0, this.shared);
  }

  /**
   * Shapes a run in place. @param kind index in DRIVE_KINDS, or -1 for a shaper of one's own  @param from, to drive at the ends of the run, 1 = clean
   * @param shaper shapes samples of the high rate where they lie
   */
  process(run: { readonly left: Float64Array; readonly right: Float64Array }, kind: number, from: number, to: number, shaper: Shaper | null = null): void {
    this.side(run.left, this.shared, kind, from, to, shaper);
    this.side(run.right, this.shared + this.channelFigures, kind, from, to, shaper);
  }

  private side(io: Float64Array, base: number, kind: number, from: number, to: number, shaper: Shaper | null): void {
    const { cells, work, stages, factor } = this;
    const last = stages.length - 1;
    const first = base + stages[0]!.input;
    for (let i = 0; i < OVERSAMPLED_FRAMES; i += 1) cells[first + i] = io[i]!;
    const topFrames = OVERSAMPLED_FRAMES * factor;
    for (let s = 0; s <= last; s += 1) {
      const { half, taps, input, n } = stages[s]!;
      const next = s === last ? this.top : stages[s + 1]!.input;
      work.up(4 * (base + input), 4 * (base + next), 4 * taps, 2 * half, half - 1, n);
      this.keep(base + input, n, 2 * half);
    }
    if (shaper) shaper.shape(cells, base + this.top, topFrames, from, (to - from) / topFrames);
    else work.shape(4 * (base + this.top), kind, from, (to - from) / topFrames, topFrames);
    for (let s = last; s >= 0; s -= 1) {
      const { half, taps, even, odd, n } = stages[s]!;
      const source = s === last ? base + this.top - this.filling : base + this.result;
      work.split(4 * source, 4 * (base + even), 4 * (base + odd), n);
      work.down(4 * (base + even), 4 * (base + odd), 4 * (base + this.result), 4 * taps, 2 * half, half, n);
      this.keep(base + even, n, 2 * half);
      this.keep(base + odd, n, half);
    }
    this.keep(base + this.top, topFrames, this.filling);
    for (let i = 0; i < OVERSAMPLED_FRAMES; i += 1) io[i] = cells[base + this.result + i]!;
  }

  /** Lays the last figures of a row before its beginning. */
  private keep(row: number, n: number, history: number): void {
    this.cells.copyWithin(row - history, row + n - history, row + n);
  }
}

/** Every second tap of a half-band filter of 4 half - 1 taps; the one in its middle is a half, the others are nothing. */
function halfBand(half: number): Float32Array {
  const middle = 2 * half - 1;
  const taps = Float64Array.from({ length: 2 * half }, (_, k) => {
    const x = 2 * k - middle;
    return (Math.sin((Math.PI * x) / 2) / (Math.PI * x)) * bessel(BETA * Math.sqrt(1 - (x / (middle + 1)) ** 2)) / bessel(BETA);
  });
  // Exactly one at standing still: together with the middle the taps make up the whole.
  const sum = taps.reduce((all, tap) => all + tap, 0);
  return Float32Array.from(taps, (tap) => (tap * 0.5) / sum);
}

/** The modified Bessel function of order nought. */
function bessel(x: number): number {
  let sum = 1;
  let term = 1;
  for (let k = 1; term > 1e-12 * sum; k += 1) {
    term *= (x / (2 * k)) ** 2;
    sum += term;
  }
  return sum;
}

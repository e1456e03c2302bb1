import { startKernel } from '../../dsp/kernels/load';
import { TRUE_PEAK_BYTES } from '../../dsp/kernels/truePeakBytes';
import { TRUE_PEAK_FUSED_BYTES } from '../../dsp/kernels/truePeakFusedBytes';
import { besselI0 } from '../../dsp/sincTable';
import { STEP_FRAMES } from '../define';

const TAPS = 81;
const HALF = (TAPS - 1) / 2;
/** Kaiser's beta for 50 dB. */
const BETA = 4.5;
/** Middle of the transition band, as a share of Nyquist: passes up to 0.9, 50 dB down from 0.98 on. */
const CUTOFF = 0.94;

/** Group delay in samples. */
export const BAND_LIMITER_DELAY = HALF;

function makeTaps(): Float64Array {
  const taps = Float64Array.from({ length: TAPS }, (_, k) => {
    const x = k - HALF;
    const ideal = x === 0 ? CUTOFF : Math.sin(Math.PI * CUTOFF * x) / (Math.PI * x);
    return ideal * besselI0(BETA * Math.sqrt(1 - (x / (HALF + 1)) ** 2));
  });
  const sum = taps.reduce((all, tap) => all + tap, 0);
  return taps.map((tap) => tap / sum);
}

const KERNEL = makeTaps();
const CODE = { plain: TRUE_PEAK_BYTES, fused: TRUE_PEAK_FUSED_BYTES };
/** Places in the memory of the kernel, in figures: taps, then what came last and the step, then what comes of it. */
const ROW_AT = 96;
const OUT_AT = ROW_AT + TAPS - 1 + STEP_FRAMES;
const FIGURES = OUT_AT + STEP_FRAMES;

type Filter = (taps: number, count: number, row: number, out: number) => void;

/**
 * Linear-phase low-pass for one channel that removes the few percent below the Nyquist frequency: components there make peaks between
 * samples that only a very long interpolator finds. Delays by BAND_LIMITER_DELAY samples.
 */
export class BandLimiter {
  private readonly recent: Float32Array;
  private readonly filtered: Float32Array;
  private readonly work: Filter | null;
  /** Steps until no sample above the floor is under the kernel. */
  private loudSteps = 0;

  /** @param withKernel false leaves the work to TypeScript, which tests compare */
  constructor(withKernel = true) {
    const kernel = withKernel ? startKernel(CODE, 4 * FIGURES) : null;
    const cells = new Float32Array(kernel ? kernel.memory.buffer : new ArrayBuffer(4 * FIGURES), 0, FIGURES);
    cells.set(KERNEL);
    this.recent = cells.subarray(ROW_AT, OUT_AT);
    this.filtered = cells.subarray(OUT_AT, FIGURES);
    this.work = kernel ? (kernel.exports.filter as Filter) : null;
  }

  clear(): void {
    this.recent.fill(0);
    this.loudSteps = 0;
  }

  /** Filters one step. @param floor while no sample under the kernel exceeds this, the step is only delayed */
  run(input: Float64Array, floor: number, out: Float64Array): void {
    const { recent, filtered } = this;
    for (let i = 0; i < TAPS - 1; i += 1) recent[i] = recent[i + STEP_FRAMES]!;
    for (let i = 0; i < STEP_FRAMES; i += 1) recent[i + TAPS - 1] = input[i]!;
    this.loudSteps = isOver(input, floor) ? 1 + Math.ceil(TAPS / STEP_FRAMES) : Math.max(0, this.loudSteps - 1);
    if (this.loudSteps === 0) {
      for (let i = 0; i < STEP_FRAMES; i += 1) out[i] = recent[i + HALF]!;
      return;
    }
    if (this.work) {
      this.work(0, TAPS, 4 * ROW_AT, 4 * OUT_AT);
      for (let i = 0; i < STEP_FRAMES; i += 1) out[i] = filtered[i]!;
      return;
    }
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      let sum = KERNEL[HALF]! * recent[i + HALF]!;
      for (let k = 0; k < HALF; k += 1) sum += KERNEL[k]! * (recent[i + k]! + recent[i + TAPS - 1 - k]!);
      out[i] = sum;
    }
  }
}

function isOver(samples: Float64Array, floor: number): boolean {
  for (let i = 0; i < STEP_FRAMES; i += 1) if (samples[i]! > floor || -samples[i]! > floor) return true;
  return false;
}

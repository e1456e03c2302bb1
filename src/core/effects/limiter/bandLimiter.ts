import { STEP_FRAMES } from '../../dsp/blocks';
import { makeFirs, type Fir } from '../../dsp/fir';
import { besselI0 } from '../../dsp/sincTable';

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
/**
 * Linear-phase low-pass for one channel that removes the few percent below the Nyquist frequency: components there make
 * peaks between samples that only a very long interpolator finds. Delays by BAND_LIMITER_DELAY samples.
 */
export class BandLimiter {
  /** Steps until no sample above the floor is under the kernel. */
  private loudSteps = 0;

  private constructor(private readonly fir: Fir) {
    fir.taps.set(KERNEL);
  }

  /** One for each channel. @param withKernel false leaves the work to TypeScript, which tests compare */
  static pair(withKernel = true): readonly [BandLimiter, BandLimiter] {
    const [left, right] = makeFirs(2, TAPS, 0, withKernel) as readonly [Fir, Fir];
    return [new BandLimiter(left), new BandLimiter(right)];
  }

  clear(): void {
    this.fir.row.fill(0);
    this.loudSteps = 0;
  }

  /**
   * Filters one step.
   * @param floor while no sample under the kernel exceeds this, the step is only delayed
   * @returns what comes of it, valid until the next step
   */
  run(input: Float64Array, floor: number): Float32Array {
    const { row, out } = this.fir;
    row.copyWithin(0, STEP_FRAMES);
    let peak = 0;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const x = input[i]!;
      row[i + TAPS - 1] = x;
      if (x > peak) peak = x;
      else if (-x > peak) peak = -x;
    }
    if (peak > floor) this.loudSteps = 1 + Math.ceil(TAPS / STEP_FRAMES);
    else if (this.loudSteps > 0) this.loudSteps -= 1;
    if (this.loudSteps === 0) for (let i = 0; i < STEP_FRAMES; i += 1) out[i] = row[i + HALF]!;
    else this.fir.run();
    return out;
  }
}

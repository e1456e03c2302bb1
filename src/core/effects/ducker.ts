import { STEP_FRAMES, type StereoBlock } from '../dsp/blocks';
import { onePoleCoefficient } from '../dsp/onePole';
import { DENORMAL_GUARD } from '../dsp/denormals';

const ATTACK_SECONDS = 0.005;
/** Ducking reaches its full depth this far above its threshold. */
const KNEE_DB = 12;

/**
 * Lowers the wet signal while the input is loud. The peak of the input is measured once a step; the gain ramps
 * linearly.
 */
export class Ducker {
  private level = 0;
  private gain = 1;
  private readonly attackShare: number;

  constructor(private readonly sampleRate: number) {
    this.attackShare = onePoleCoefficient(ATTACK_SECONDS, STEP_FRAMES, sampleRate);
  }

  clear(): void {
    this.level = 0;
    this.gain = 1;
  }

  process(input: StereoBlock, wet: StereoBlock, depthDb: number, thresholdDb: number, releaseMs: number): void {
    if (depthDb <= 0 && this.gain === 1) return;
    const n = STEP_FRAMES;
    let peak = 0;
    for (let i = 0; i < n; i += 1) {
      const l = Math.abs(input.left[i]!);
      const r = Math.abs(input.right[i]!);
      if (l > peak) peak = l;
      if (r > peak) peak = r;
    }
    const share = peak > this.level ? this.attackShare : onePoleCoefficient(releaseMs / 1000, n, this.sampleRate);
    this.level += (peak - this.level) * share + DENORMAL_GUARD - DENORMAL_GUARD;
    const over = (20 * Math.log10(this.level + 1e-9) - thresholdDb) / KNEE_DB;
    const depth = over <= 0 ? 0 : over >= 1 ? depthDb : depthDb * over;
    const goal = depth === 0 ? 1 : Math.pow(10, -depth / 20);
    const step = (goal - this.gain) / n;
    let gain = this.gain;
    for (let i = 0; i < n; i += 1) {
      gain += step;
      wet.left[i] = wet.left[i]! * gain;
      wet.right[i] = wet.right[i]! * gain;
    }
    this.gain = goal;
  }
}

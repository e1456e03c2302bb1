import { hann } from '../../dsp/hann';
import { sincRun } from '../../dsp/sincReader';
import { STEP_FRAMES, stereoRun, type StereoRun } from '../define';

const RING = 16_384;
const MASK = RING - 1;
const GRAIN_SECONDS = 0.04;
const LATENCY_SECONDS = 0.05;
const REACH_SECONDS = 0.008;
/** Every so many samples are compared when a grain looks for its place. */
const STRIDE = 4;

/**
 * Moves the pitch by reading short grains faster or slower, each laid where it goes on most like the one before.
 * Source: W. Verhelst and M. Roelands, "An Overlap-Add Technique Based on Waveform Similarity (WSOLA)" (1993).
 */
export class GrainShift {
  readonly latency: number;
  private readonly left = new Float32Array(RING);
  private readonly right = new Float32Array(RING);
  private readonly window: Float64Array;
  private readonly first = stereoRun();
  private readonly half: number;
  private readonly reach: number;
  private came = 0;
  /** Where both grains read, the older one first, and how far into the younger one it is. */
  private older = 0;
  private younger = 0;
  private into = 0;
  private ratio = 1;

  constructor(sampleRate: number) {
    this.half = Math.round((GRAIN_SECONDS * sampleRate) / 2);
    this.window = hann(2 * this.half);
    this.latency = Math.round(LATENCY_SECONDS * sampleRate);
    this.reach = Math.round(REACH_SECONDS * sampleRate);
  }

  clear(ratio: number): void {
    this.left.fill(0);
    this.right.fill(0);
    this.came = 0;
    this.ratio = ratio;
    this.older = this.younger = -this.latency;
    this.into = 0;
  }

  process(input: StereoRun, wet: StereoRun, ratio: number): void {
    const { left, right, window } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      left[(this.came + i) & MASK] = input.left[i]!;
      right[(this.came + i) & MASK] = input.right[i]!;
    }
    const step = (ratio - this.ratio) / STEP_FRAMES;
    let at = 0;
    while (at < STEP_FRAMES) {
      const length = this.lengthOf(ratio);
      if (this.into >= length) this.begin(this.came + at);
      const n = Math.min(STEP_FRAMES - at, length - this.into);
      const speed = this.ratio + step;
      sincRun(left, MASK, this.older, speed, step, this.first.left, at, at + n);
      sincRun(right, MASK, this.older, speed, step, this.first.right, at, at + n);
      sincRun(left, MASK, this.younger, speed, step, wet.left, at, at + n);
      sincRun(right, MASK, this.younger, speed, step, wet.right, at, at + n);
      for (let i = at; i < at + n; i += 1) {
        const share = window[Math.min(this.half, Math.round(((this.into + i - at) / length) * this.half))]!;
        wet.left[i] = this.first.left[i]! + share * (wet.left[i]! - this.first.left[i]!);
        wet.right[i] = this.first.right[i]! + share * (wet.right[i]! - this.first.right[i]!);
      }
      const passed = n * (this.ratio + (step * (n + 1)) / 2);
      this.older += passed;
      this.younger += passed;
      this.ratio += step * n;
      this.into += n;
      at += n;
    }
    this.came += STEP_FRAMES;
    this.ratio = ratio;
  }

  /** Half a grain: as long as may be without overtaking what has come in. */
  private lengthOf(ratio: number): number {
    if (ratio <= 1.8) return this.half;
    const most = (this.latency - this.reach - 2 * STEP_FRAMES) / (2 * (ratio - 1));
    return most < this.half ? Math.floor(most) : this.half;
  }

  /** The younger grain becomes the older; a new one begins near where the time wants it, where it goes on like the other. */
  private begin(now: number): void {
    this.older = this.younger;
    this.into = 0;
    const wanted = now - this.latency;
    this.younger = wanted + this.bestShift(wanted);
  }

  private bestShift(wanted: number): number {
    const { left, right, reach } = this;
    const n = Math.min(this.half, 960);
    let best = 0;
    let most = -Infinity;
    for (let shift = -reach; shift <= reach; shift += 1) {
      let product = 0;
      let power = 1e-9;
      for (let i = 0; i < n; i += STRIDE) {
        const a = Math.round(this.older + i);
        const b = Math.round(wanted + shift + i);
        const here = left[b & MASK]! + right[b & MASK]!;
        product += here * (left[a & MASK]! + right[a & MASK]!);
        power += here * here;
      }
      const alike = product / Math.sqrt(power);
      if (alike > most) {
        most = alike;
        best = shift;
      }
    }
    return best;
  }
}

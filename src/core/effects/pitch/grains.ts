import { hann } from '../../dsp/hann';
import { SincRings } from '../../dsp/sincRings';
import { STEP_FRAMES, type StereoRun } from '../define';

const RING = 16_384;
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
  private readonly rings = new SincRings(RING);
  private readonly window: Float64Array;
  private readonly half: number;
  private readonly compared: number;
  private readonly reach: number;
  /** What a new grain is compared with, and where it is looked for, both sides added: every STRIDE-th sample of the one, all of the other. */
  private readonly model: Float32Array;
  private readonly field: Float32Array;
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
    this.compared = Math.min(this.half, 960);
    this.model = new Float32Array(Math.ceil(this.compared / STRIDE));
    this.field = new Float32Array(this.compared + 2 * this.reach + STRIDE);
  }

  clear(ratio: number): void {
    this.rings.clear();
    this.came = 0;
    this.ratio = ratio;
    this.older = this.younger = -this.latency;
    this.into = 0;
  }

  process(input: StereoRun, wet: StereoRun, ratio: number): void {
    const { rings, window } = this;
    rings.write(this.came, input.left, input.right, STEP_FRAMES);
    const step = (ratio - this.ratio) / STEP_FRAMES;
    let at = 0;
    while (at < STEP_FRAMES) {
      const length = this.lengthOf(ratio);
      if (this.into >= length) this.begin(this.came + at);
      const n = Math.min(STEP_FRAMES - at, length - this.into);
      const speed = this.ratio + step;
      rings.read(this.older, speed, step, at, at + n);
      for (let i = at; i < at + n; i += 1) {
        wet.left[i] = rings.outLeft[i]!;
        wet.right[i] = rings.outRight[i]!;
      }
      rings.read(this.younger, speed, step, at, at + n);
      for (let i = at; i < at + n; i += 1) {
        const share = window[Math.min(this.half, Math.round(((this.into + i - at) / length) * this.half))]!;
        wet.left[i] = wet.left[i]! + share * (rings.outLeft[i]! - wet.left[i]!);
        wet.right[i] = wet.right[i]! + share * (rings.outRight[i]! - wet.right[i]!);
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
    this.younger = wanted + (this.ratio === 1 ? 0 : this.bestShift(wanted));
  }

  /** By how much a grain near a place is moved so as to go on most like the older one: the likeness of both, by every STRIDE-th sample. */
  private bestShift(wanted: number): number {
    const { rings, reach, model, field } = this;
    const a = Math.round(this.older);
    const b = Math.round(wanted) - reach;
    for (let i = 0; i < model.length; i += 1) model[i] = rings.monoAt(a + i * STRIDE);
    for (let i = 0; i < field.length; i += 1) field[i] = rings.monoAt(b + i);
    // The place that the time wants, unless another is more alike: so silence stays in time.
    let best = 0;
    let most = this.likeness(reach);
    for (let shift = 0; shift <= 2 * reach; shift += 1) {
      const alike = this.likeness(shift);
      if (alike > most) {
        most = alike;
        best = shift - reach;
      }
    }
    return best;
  }

  /** How alike the older grain and the field from a shift on are: their product over the root of the field's power. */
  private likeness(shift: number): number {
    const { model, field, compared } = this;
    let product = 0;
    let power = 1e-9;
    for (let i = 0, at = shift; i * STRIDE < compared; i += 1, at += STRIDE) {
      const here = field[at]!;
      product += here * model[i]!;
      power += here * here;
    }
    return product / Math.sqrt(power);
  }
}

import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { hann } from '../../dsp/hann';
import { SincRings } from '../../dsp/sincRings';
import { OnsetQueue } from './onsetQueue';

const GRAIN_SECONDS = 0.04;
const LATENCY_SECONDS = 0.05;
/** History needed beyond the latency: a grain and its search range, read four times as fast. */
const RING_SECONDS = 0.25;
const REACH_SECONDS = 0.008;
/** Time before a hit over which its grain fades in. */
const ATTACK_SECONDS = 0.002;
/** Stride of the comparison when a grain's position is searched. */
const STRIDE = 4;

/**
 * Shifts the pitch by reading short grains faster or slower, each at the position where it best continues the one
 * before. A hit begins a grain of its own, exactly when it is due; no grain before it reads beyond it, and none after
 * it reads before it.
 * Source: W. Verhelst and M. Roelands, "An Overlap-Add Technique Based on Waveform Similarity (WSOLA)" (1993).
 */
export class GrainShift {
  private readonly rings: SincRings;
  private readonly window: Float64Array;
  private readonly half: number;
  private readonly compared: number;
  private readonly searchRange: number;
  /**
   * The samples that a new grain is compared with, and its search range, as the sum of both channels: every STRIDE-th
   * of the former, all of the latter.
   */
  private readonly model: Float32Array;
  private readonly field: Float32Array;
  readonly onsets: OnsetQueue;
  private readonly attack: number;
  private received = 0;
  /** Read positions of both grains, the older one first, and the progress within the younger one. */
  private older = 0;
  private younger = 0;
  private into = 0;
  /** Samples over which the younger grain fades in. */
  private length: number;
  private ratio = 1;

  /** @param latency in samples, 50 ms at least */
  constructor(
    sampleRate: number,
    readonly latency = Math.round(LATENCY_SECONDS * sampleRate),
  ) {
    this.rings = new SincRings(2 ** Math.ceil(Math.log2(latency + RING_SECONDS * sampleRate)));
    this.half = Math.round((GRAIN_SECONDS * sampleRate) / 2);
    this.window = hann(2 * this.half);
    this.onsets = new OnsetQueue(sampleRate);
    this.attack = Math.round(ATTACK_SECONDS * sampleRate);
    this.length = this.half;
    this.searchRange = Math.round(REACH_SECONDS * sampleRate);
    this.compared = Math.min(this.half, 960);
    this.model = new Float32Array(Math.ceil(this.compared / STRIDE));
    this.field = new Float32Array(this.compared + 2 * this.searchRange + STRIDE);
  }

  clear(ratio: number): void {
    this.rings.clear();
    this.received = 0;
    this.ratio = ratio;
    this.older = this.younger = -this.latency;
    this.into = 0;
    this.length = this.half;
    this.onsets.clear();
  }

  /** Position in the input that corresponds to the coming step's output. */
  get due(): number {
    return this.received - this.latency;
  }

  /** Records a step without output: the next output begins with a grain in time. */
  record(input: StereoBlock, ratio: number): void {
    this.take(input);
    this.received += STEP_FRAMES;
    this.ratio = ratio;
    this.older = this.younger = this.due;
    this.into = this.length;
  }

  private take(input: StereoBlock): void {
    this.rings.write(this.received, input.left, input.right, STEP_FRAMES);
    this.onsets.detect(this.received, input.left, input.right);
  }

  process(input: StereoBlock, wet: StereoBlock, ratio: number): void {
    const { rings, window } = this;
    this.take(input);
    const step = (ratio - this.ratio) / STEP_FRAMES;
    let at = 0;
    while (at < STEP_FRAMES) {
      if (this.into >= this.length) this.begin(this.received + at);
      const { length } = this;
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
    this.received += STEP_FRAMES;
    this.ratio = ratio;
  }

  /** Half a grain: as long as possible without overtaking the input, from whose end it is half a grain away. */
  private lengthOf(ratio: number): number {
    if (ratio <= 1.8) return this.half;
    const most = (this.latency - this.searchRange - 2 * STEP_FRAMES) / (ratio - 1);
    return most < this.half ? Math.floor(most) : this.half;
  }

  /**
   * The younger grain becomes the older; a new one begins near the nominal position, where it best continues the other.
   */
  private begin(now: number): void {
    const { ratio, attack } = this;
    this.older = this.younger;
    this.into = 0;
    const due = now - this.latency;
    const length = this.lengthOf(ratio);
    // Samples within its attack are due by its end.
    const hit = ratio === 1 ? Infinity : this.onsets.first(due, due + 2 * length + attack);
    if (hit - due <= attack + 1) {
      this.length = Math.max(1, Math.round(hit - due));
      this.younger = hit - ratio * this.length;
      return;
    }
    const untilAttack = hit - attack - due;
    this.length = Math.min(
      length,
      Math.round(untilAttack > length ? Math.max(length / 2, untilAttack / 2) : untilAttack),
    );
    // A grain is in time where it is loudest.
    const wanted = due - (ratio - 1) * this.length;
    const latest = hit === Infinity ? Infinity : hit - ratio * (hit - due);
    const earliest = this.onsets.lastUpTo(due);
    this.younger = ratio === 1 ? wanted : this.placed(clamp(wanted, earliest, latest), earliest, latest);
  }

  /** Position near a given one at which a grain best continues the older one, between the hits. */
  private placed(wanted: number, earliest: number, latest: number): number {
    return clamp(wanted + this.bestShift(wanted), earliest, latest);
  }

  /**
   * Shift of a grain near a position that continues the older one best: by the correlation of every STRIDE-th sample.
   */
  private bestShift(wanted: number): number {
    const { rings, searchRange: reach, model, field } = this;
    const a = Math.round(this.older);
    const b = Math.round(wanted) - reach;
    for (let i = 0; i < model.length; i += 1) model[i] = rings.monoAt(a + i * STRIDE);
    for (let i = 0; i < field.length; i += 1) field[i] = rings.monoAt(b + i);
    // The nominal position, unless another correlates better: so silence stays in time.
    let best = 0;
    let most = this.likeness(reach);
    for (let shift = 0; shift <= 2 * reach; shift += 1) {
      const alike = this.likeness(shift);
      if (alike > most) {
        most = alike;
        best = shift - reach;
      }
    }
    return best + this.between(a, b + reach + best);
  }

  /**
   * Fraction of a sample to the best shift: the maximum of a parabola through the products of all samples there and at
   * both neighbours.
   */
  private between(a: number, b: number): number {
    const before = this.productOf(a, b - 1);
    const here = this.productOf(a, b);
    const after = this.productOf(a, b + 1);
    const bend = before - 2 * here + after;
    if (!(bend < 0) || before > here || after > here) return 0;
    return (0.5 * (before - after)) / bend;
  }

  private productOf(a: number, b: number): number {
    const { rings, compared } = this;
    let product = 0;
    for (let i = 0; i < compared; i += 1) product += rings.monoAt(a + i) * rings.monoAt(b + i);
    return product;
  }

  /**
   * Correlation of the older grain and the search range from a shift on, normalised by the root of the range's power.
   */
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

const clamp = (place: number, least: number, most: number): number =>
  place < least ? least : place > most ? most : place;

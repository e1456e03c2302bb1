import { TruePeak } from '../dsp/truePeak';
import { KWeighted } from './kWeighting';
import { lufs } from './loudness';

const HOP_SECONDS = 0.1;
const MOMENTARY_HOPS = 4;
const SHORT_HOPS = 30;
const ABSOLUTE_GATE = -70;
const RELATIVE_GATE = 10;
/**
 * The loudness of past blocks is kept as a histogram in tenths of a decibel, from the absolute gate up: an hour costs
 * no more than a minute.
 */
const BINS = 1000;
const PER_DB = 10;

/** Loudness of a stereo stream by ITU-R BS.1770-4, and its true peak. */
export class RunningLoudness {
  private readonly filters: readonly [KWeighted, KWeighted];
  private readonly peaks = [new TruePeak(), new TruePeak()] as const;
  private readonly hop: number;
  private readonly hops = new Float64Array(SHORT_HOPS);
  private readonly counts = new Float64Array(BINS);
  private readonly powers = new Float64Array(BINS);
  private sum = 0;
  private filled = 0;
  private count = 0;
  private peak = 0;

  constructor(sampleRate: number) {
    this.filters = [new KWeighted(sampleRate), new KWeighted(sampleRate)];
    this.hop = Math.round(HOP_SECONDS * sampleRate);
  }

  /** Resets what was accumulated since the beginning. */
  clear(): void {
    this.counts.fill(0);
    this.powers.fill(0);
    this.peak = 0;
  }

  process(left: Float32Array, right: Float32Array, from: number, to: number): void {
    let at = from;
    while (at < to) {
      const n = Math.min(to - at, this.hop - this.filled);
      this.sum += this.filters[0].energy(left, at, n) + this.filters[1].energy(right, at, n);
      for (let i = at; i < at + n; i += 1)
        this.peak = Math.max(
          this.peak,
          this.peaks[0].next(left[i]!, this.peak),
          this.peaks[1].next(right[i]!, this.peak),
        );
      this.filled += n;
      at += n;
      if (this.filled === this.hop) this.endHop();
    }
  }

  private endHop(): void {
    this.hops[this.count % SHORT_HOPS] = this.sum / this.hop;
    this.count += 1;
    this.sum = 0;
    this.filled = 0;
    if (this.count < MOMENTARY_HOPS) return;
    const power = this.mean(MOMENTARY_HOPS);
    const bin = Math.floor((lufs(power) - ABSOLUTE_GATE) * PER_DB);
    if (!(bin >= 0)) return;
    const held = Math.min(BINS - 1, bin);
    this.counts[held] = this.counts[held]! + 1;
    this.powers[held] = this.powers[held]! + power;
  }

  private mean(hops: number): number {
    const n = Math.min(hops, this.count);
    let sum = 0;
    for (let i = 1; i <= n; i += 1) sum += this.hops[(this.count - i) % SHORT_HOPS]!;
    return n > 0 ? sum / n : 0;
  }

  get momentary(): number {
    return loud(this.mean(MOMENTARY_HOPS));
  }

  get shortTerm(): number {
    return loud(this.mean(SHORT_HOPS));
  }

  get integrated(): number {
    const whole = this.over(0);
    if (whole === 0) return -Infinity;
    const gate = Math.max(0, Math.floor((lufs(whole) - RELATIVE_GATE - ABSOLUTE_GATE) * PER_DB));
    return loud(this.over(gate));
  }

  get truePeakDb(): number {
    return this.peak > 0 ? 20 * Math.log10(this.peak) : -Infinity;
  }

  /** Mean power of the blocks from a bin on. */
  private over(bin: number): number {
    let count = 0;
    let power = 0;
    for (let i = bin; i < BINS; i += 1) {
      count += this.counts[i]!;
      power += this.powers[i]!;
    }
    return count > 0 ? power / count : 0;
  }
}

const loud = (power: number): number => (power > 0 ? lufs(power) : -Infinity);

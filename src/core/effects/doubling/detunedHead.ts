import { STEP_FRAMES } from '../../dsp/blocks';
import type { DelayLine } from '../../dsp/delayLine';

/** Range in which a detuned head drifts before it has to jump back: longer than a period of a bass note. */
export const WINDOW_SECONDS = 0.06;
const FADE_SECONDS = 0.02;
/** The new position is searched this far to both sides: half a period of 42 Hz. */
const REACH_SECONDS = 0.012;
const COMPARED_SECONDS = 0.025;
/** Strides of the coarse search, in the samples compared and in the positions. */
const STRIDE = 4;
/** Reach of the fine search to both sides of the coarse result, sample by sample. */
const FINE = 8;

/**
 * A detuned read head: its delay falls or rises evenly, and before it leaves its range another head takes over where
 * the waveform matches best, so that nothing cancels in the crossfade.
 * Source: W. Verhelst and M. Roelands, "An Overlap-Add Technique Based on Waveform Similarity (WSOLA)" (1993).
 */
export class DetunedHead {
  private readonly window: number;
  private readonly searchRange: number;
  private readonly compared: number;
  private readonly fadeStep: number;
  private readonly delays = new Float64Array(STEP_FRAMES);
  private readonly other = new Float64Array(STEP_FRAMES);
  /** Delay beyond the voice's own, of the head that sounds and of the one that takes over. */
  private extra = 0;
  private next = 0;
  /** Share of the takeover that is done; 1 or more while only one head sounds. */
  private fade = 1;
  /** Correlation of both heads, -1 to 1. */
  private alike = 1;

  constructor(
    private readonly line: DelayLine,
    sampleRate: number,
  ) {
    this.window = WINDOW_SECONDS * sampleRate;
    this.searchRange = Math.floor(REACH_SECONDS * sampleRate);
    this.compared = Math.floor(COMPARED_SECONDS * sampleRate);
    this.fadeStep = 1 / Math.round(FADE_SECONDS * sampleRate);
  }

  /** @param rate by which its delay falls with each sample */
  clear(rate: number): void {
    this.extra = rate > 0 ? 0.8 * this.window : rate < 0 ? 0.2 * this.window : 0;
    this.fade = 1;
  }

  /** Reads a step. @param start, end the voice's own delay at its ends, in samples */
  read(start: number, end: number, rate: number, out: Float64Array): void {
    if (this.fade >= 1 && this.mustMove(rate)) this.takeOver(start, rate);
    this.readAt(this.extra, start, end, rate, out);
    this.extra -= rate * STEP_FRAMES;
    if (this.fade >= 1) return;
    const { other, fadeStep, alike } = this;
    this.readAt(this.next, start, end, rate, other);
    this.next -= rate * STEP_FRAMES;
    let { fade } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      fade = fade + fadeStep > 1 ? 1 : fade + fadeStep;
      const rest = 1 - fade;
      // As loud in the middle as at both ends, whatever the correlation.
      out[i] = (rest * out[i]! + fade * other[i]!) / Math.sqrt(rest * rest + fade * fade + 2 * rest * fade * alike);
    }
    this.fade = fade;
    if (fade >= 1) this.extra = this.next;
  }

  private mustMove(rate: number): boolean {
    const fades = Math.abs(rate) / this.fadeStep + 2 * STEP_FRAMES * Math.abs(rate);
    return rate > 0 ? this.extra < fades : rate < 0 ? this.extra > this.window - fades : this.extra !== 0;
  }

  /** Finds where the other head begins. Without detune it has no extra delay. */
  private takeOver(start: number, rate: number): void {
    this.fade = 0;
    if (rate === 0) {
      this.next = 0;
      this.alike = clampCorrelation(this.likeness(start, 0, 1));
      return;
    }
    const wanted = rate > 0 ? 0.8 * this.window : 0.2 * this.window;
    let best = wanted;
    let most = -Infinity;
    for (let shift = -this.searchRange; shift <= this.searchRange; shift += STRIDE) {
      const alike = this.likeness(start, wanted + shift, STRIDE);
      if (alike > most) {
        most = alike;
        best = wanted + shift;
      }
    }
    this.refine(start, best);
  }

  /** Searches round a position sample by sample, and between samples by a parabola through the best three. */
  private refine(start: number, around: number): void {
    let best = around;
    let most = -Infinity;
    for (let shift = -FINE; shift <= FINE; shift += 1) {
      const alike = this.likeness(start, around + shift, 1);
      if (alike > most) {
        most = alike;
        best = around + shift;
      }
    }
    const before = this.likeness(start, best - 1, 1);
    const after = this.likeness(start, best + 1, 1);
    const bend = before - 2 * most + after;
    const off = bend < -1e-9 ? (0.5 * (before - after)) / bend : 0;
    this.next = best + (off > 1 ? 1 : off < -1 ? -1 : off);
    this.alike = clampCorrelation(most);
  }

  /**
   * Correlation of the samples just before both heads, from -1 to 1; 1 where there is nothing to compare.
   * @param extra delay of the other head
   */
  private likeness(start: number, extra: number, stride: number): number {
    const { ring, mask, place } = this.line;
    // A whole number of samples from the sounding head, so that both are read at the same fraction.
    const from = Math.floor(place - STEP_FRAMES - start - this.extra);
    const apart = Math.round(extra - this.extra);
    let both = 0;
    let one = 1e-12;
    let other = 1e-12;
    for (let i = 0; i < this.compared; i += stride) {
      const x = ring[(from - i) & mask]!;
      const y = ring[(from - apart - i) & mask]!;
      both += x * y;
      one += x * x;
      other += y * y;
    }
    return one < 1e-10 || other < 1e-10 ? 1 : both / Math.sqrt(one * other);
  }

  private readAt(extra: number, start: number, end: number, rate: number, out: Float64Array): void {
    const { delays } = this;
    const step = (end - start) / STEP_FRAMES - rate;
    const from = STEP_FRAMES + start + extra;
    for (let i = 0; i < STEP_FRAMES; i += 1) delays[i] = from + step * (i + 1);
    this.line.readMoving(delays, STEP_FRAMES, out);
  }
}

/**
 * Two heads that cancel are crossfaded as uncorrelated ones: compensating for it would amplify single moments without
 * limit.
 */
const clampCorrelation = (value: number): number => (value > 1 ? 1 : value > 0 ? value : 0);

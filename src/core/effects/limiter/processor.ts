import { TRUE_PEAK_BOUND, TRUE_PEAK_DELAY, TruePeak } from '../../dsp/truePeak';
import { STEP_FRAMES, type EffectProcessor, type StereoRun } from '../define';
import { placesOf } from '../places';
import { Quiet } from '../quiet';
import { SlidingLeast, SlidingMean } from './gainPath';
import { limiterParams } from './params';

const AT = placesOf(limiterParams);
const LONGEST_SECONDS = 0.008;
/** The moving gain itself lifts the peaks between samples a little: that much is kept free, 0.05 dB. */
const MARGIN = 0.9942;

/**
 * Bows before a peak comes: the gain it will need is held over the look-ahead and then averaged over the same time, so it
 * arrives in a smooth line exactly when the peak does.
 */
export class LimiterProcessor implements EffectProcessor {
  private readonly meters = [new TruePeak(), new TruePeak()] as const;
  private readonly least: SlidingLeast;
  private readonly mean: SlidingMean;
  private readonly left: Float64Array;
  private readonly right: Float64Array;
  private readonly quiet: Quiet;
  private place = 0;
  private length = 1;
  private released = 1;
  private gain = 1;
  private ceiling = 1;
  private lowest = 1;

  constructor(private readonly sampleRate: number) {
    const longest = Math.ceil(LONGEST_SECONDS * sampleRate) + TRUE_PEAK_DELAY + 2;
    this.least = new SlidingLeast(longest);
    this.mean = new SlidingMean(longest);
    this.left = new Float64Array(longest + 1);
    this.right = new Float64Array(longest + 1);
    this.quiet = new Quiet(2 * LONGEST_SECONDS, sampleRate);
  }

  get silent(): boolean {
    return this.quiet.silent;
  }

  /** Samples by which all is later. */
  get latency(): number {
    return this.length - 1 + TRUE_PEAK_DELAY;
  }

  takeGuardGain(): number {
    const value = this.lowest;
    this.lowest = 1;
    return value;
  }

  reset(seconds: number, values: Float64Array): void {
    this.locate(seconds, values);
  }

  locate(_seconds: number, values: Float64Array): void {
    this.start(this.lengthOf(values));
    this.gain = gainOf(values);
    this.ceiling = ceilingOf(values);
    this.quiet.clear();
  }

  private lengthOf(values: Float64Array): number {
    return Math.max(2, Math.round((values[AT.lookAhead]! * this.sampleRate) / 1000));
  }

  private start(length: number): void {
    this.length = length;
    this.least.clear();
    this.mean.clear(length);
    this.left.fill(0);
    this.right.fill(0);
    this.meters[0].clear();
    this.meters[1].clear();
    this.place = 0;
    this.released = 1;
  }

  process(input: StereoRun, wet: StereoRun, values: Float64Array): void {
    this.quiet.listen(input);
    if (this.lengthOf(values) !== this.length) this.start(this.lengthOf(values));
    const n = STEP_FRAMES;
    const { left, right, length, meters, least, mean } = this;
    const size = left.length;
    const delay = length - 1 + TRUE_PEAK_DELAY;
    const between = values[AT.truePeak]! >= 0.5;
    const release = 1 - Math.exp(-1000 / (values[AT.release]! * this.sampleRate));
    const gainStep = (gainOf(values) - this.gain) / n;
    const ceilingStep = (ceilingOf(values) - this.ceiling) / n;
    // Quieter than this, nothing between the samples can reach the ceiling.
    const floor = Math.min(this.ceiling, ceilingOf(values)) / TRUE_PEAK_BOUND;
    let { gain, ceiling, released, place, lowest } = this;
    for (let i = 0; i < n; i += 1) {
      gain += gainStep;
      ceiling += ceilingStep;
      const l = input.left[i]! * gain;
      const r = input.right[i]! * gain;
      left[place] = l;
      right[place] = r;
      let read = place - delay;
      if (read < 0) read += size;
      const peak = this.peakAt(place, between ? Math.max(meters[0].next(l, floor), meters[1].next(r, floor)) : 0);
      const needed = peak > ceiling ? ceiling / peak : 1;
      const held = least.next(needed, length);
      released = held < released ? held : released + (held - released) * release;
      const now = mean.next(released);
      if (now < lowest) lowest = now;
      wet.left[i] = left[read]! * now;
      wet.right[i] = right[read]! * now;
      place += 1;
      if (place === size) place = 0;
    }
    this.gain = gainOf(values);
    this.ceiling = ceilingOf(values);
    this.released = released;
    this.place = place;
    this.lowest = lowest;
  }

  /** Peak of the sample TRUE_PEAK_DELAY ago, and of what lies between it and the next. */
  private peakAt(place: number, between: number): number {
    let at = place - TRUE_PEAK_DELAY;
    if (at < 0) at += this.left.length;
    const l = Math.abs(this.left[at]!);
    const r = Math.abs(this.right[at]!);
    const sample = l > r ? l : r;
    return between > sample ? between : sample;
  }
}

const gainOf = (values: Float64Array): number => (values[AT.gain] === 0 ? 1 : Math.pow(10, values[AT.gain]! / 20));
const ceilingOf = (values: Float64Array): number => MARGIN * Math.pow(10, values[AT.ceiling]! / 20);

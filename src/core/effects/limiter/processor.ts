import { clearBlock, STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../../dsp/blocks';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import { TRUE_PEAK_BOUND, TRUE_PEAK_DELAY } from '../../dsp/truePeak';
import { TruePeakPair } from '../../dsp/truePeakPair';
import { dbToGain } from '../../params/format';
import { type EffectProcessor } from '../define';
import { paramIndices } from '../paramIndices';
import { SilenceDetector } from '../silenceDetector';
import { SlidingMinimum, SlidingMean } from './gainPath';
import { BAND_LIMITER_DELAY, BandLimiter } from './bandLimiter';
import { limiterParams } from './params';

const P = paramIndices(limiterParams);
const LONGEST_SECONDS = 0.008;
/** The moving gain itself raises true peaks slightly: 0.09 dB of headroom. */
const MARGIN = 0.99;
/** The release approaches 1 without reaching it; from here on, 1e-8 dB below, a gain counts as 1. */
const NEARLY_UNITY = 1 - 1e-9;
/** From this share of the ceiling on, components near Nyquist could lift a peak over it. */
const NEAR = 0.8;
/** Seconds in which the band near Nyquist fades in again. */
const BAND_RETURN_SECONDS = 0.02;
/** Samples from a sample's arrival until the peaks around it are known. */
const PEAK_LATENCY = BAND_LIMITER_DELAY + TRUE_PEAK_DELAY;

/**
 * Look-ahead limiter: the gain that a peak needs is held over the look-ahead and then averaged over the same time, so
 * that it is reached smoothly exactly when the peak arrives.
 */
export class LimiterProcessor implements EffectProcessor {
  private readonly meter = new TruePeakPair();
  private readonly minimum: SlidingMinimum;
  private readonly mean: SlidingMean;
  private readonly left: Float64Array;
  private readonly right: Float64Array;
  private readonly quiet: SilenceDetector;
  private readonly releaseOf = new MemoizedUnary((samples) => 1 - Math.exp(-1000 / samples));
  private readonly gainOf = new MemoizedUnary(dbToGain);
  private readonly ceilingOf = new MemoizedUnary((db) => MARGIN * dbToGain(db));
  private readonly risen = makeStereoBlock();
  /** The input without the band just below Nyquist, and the filters for both channels. */
  private readonly bandLimiters = BandLimiter.pair();
  private readonly bandLimited = makeStereoBlock();
  private readonly limitedLeft: Float64Array;
  private readonly limitedRight: Float64Array;
  /**
   * Crossfade from input (0) to band-limited input (1) per sample of the step, its value, and samples until it goes
   * back.
   */
  private readonly shares = new Float64Array(STEP_FRAMES);
  private limitedShare = 0;
  private limitedFor = 0;
  private readonly peaks = new Float64Array(STEP_FRAMES);
  private readonly gains = new Float64Array(STEP_FRAMES);
  private writeIndex = 0;
  private length = 1;
  private released = 1;
  /** Samples since a gain was under 1. */
  private unityFrames = 0;
  private gain = 1;
  private ceiling = 1;
  private lowest = 1;

  constructor(private readonly sampleRate: number) {
    const longest = Math.ceil(LONGEST_SECONDS * sampleRate) + PEAK_LATENCY + 2;
    this.minimum = new SlidingMinimum(longest);
    this.mean = new SlidingMean(longest);
    this.left = new Float64Array(longest + 1 + STEP_FRAMES);
    this.right = new Float64Array(longest + 1 + STEP_FRAMES);
    this.limitedLeft = new Float64Array(longest + 1 + STEP_FRAMES);
    this.limitedRight = new Float64Array(longest + 1 + STEP_FRAMES);
    this.quiet = new SilenceDetector(2 * LONGEST_SECONDS, sampleRate);
  }

  get silent(): boolean {
    return this.quiet.silent;
  }

  /** Latency in samples. */
  get latency(): number {
    return this.length - 1 + PEAK_LATENCY;
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
    this.gain = this.gainOf.at(values[P.gain]!);
    this.ceiling = this.ceilingOf.at(values[P.ceiling]!);
    this.quiet.reset();
  }

  private lengthOf(values: Float64Array): number {
    return Math.max(2, Math.round((values[P.lookAhead]! * this.sampleRate) / 1000));
  }

  private start(length: number): void {
    this.length = length;
    this.minimum.clear();
    this.mean.clear(length);
    this.left.fill(0);
    this.right.fill(0);
    this.meter.clear();
    this.bandLimiters[0].clear();
    this.bandLimiters[1].clear();
    this.limitedLeft.fill(0);
    this.limitedRight.fill(0);
    this.limitedShare = 0;
    this.limitedFor = 0;
    this.writeIndex = 0;
    this.released = 1;
    this.unityFrames = 3 * length;
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    if (this.lengthOf(values) !== this.length) this.start(this.lengthOf(values));
    const gainGoal = this.gainOf.at(values[P.gain]!);
    const ceilingGoal = this.ceilingOf.at(values[P.ceiling]!);
    const begin = this.writeIndex;
    this.take(input, gainGoal);
    const between = values[P.truePeak]! >= 0.5;
    this.limitBand(begin, between ? NEAR * Math.min(this.ceiling, ceilingGoal) : Infinity);
    this.measure(between, NEAR * Math.min(this.ceiling, ceilingGoal));
    const highest = this.addSamplePeaks(begin, between);
    if (this.isAtUnity && highest <= NEAR * Math.min(this.ceiling, ceilingGoal)) {
      this.ceiling = ceilingGoal;
      this.delay(wet, begin);
      return;
    }
    this.findNeeded(ceilingGoal, between);
    this.minimum.run(this.gains, STEP_FRAMES, this.length);
    this.release(this.releaseOf.at(values[P.release]! * this.sampleRate));
    this.mean.run(this.gains, STEP_FRAMES);
    this.give(wet, begin);
  }

  /** True when every gain in both windows is 1, and the output has nothing of the band-limited input. */
  private get isAtUnity(): boolean {
    return this.unityFrames >= 3 * this.length && this.limitedShare === 0 && this.limitedFor === 0;
  }

  /** Writes the input into the rings. */
  private take(input: StereoBlock, goal: number): void {
    const { left, right, risen } = this;
    const step = (goal - this.gain) / STEP_FRAMES;
    let { gain, writeIndex: place } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      gain += step;
      const l = input.left[i]! * gain;
      const r = input.right[i]! * gain;
      risen.left[i] = left[place] = l;
      risen.right[i] = right[place] = r;
      place += 1;
      if (place === left.length) place = 0;
    }
    this.gain = goal;
    this.writeIndex = place;
  }

  /** Peaks between the samples. @param floor quieter than this, nothing between the samples can reach the ceiling */
  private measure(between: boolean, floor: number): void {
    clearBlock(this.peaks);
    if (!between) return;
    this.meter.run(this.bandLimited.left, this.bandLimited.right, floor, this.peaks);
  }

  /** Writes the band-limited input into its rings. @param floor while no peak can exceed this, it is only delayed */
  private limitBand(begin: number, floor: number): void {
    const { risen, limitedLeft, limitedRight, bandLimiters } = this;
    const { left, right } = this.bandLimited;
    const size = limitedLeft.length;
    const ofLeft = bandLimiters[0].run(risen.left, floor / TRUE_PEAK_BOUND);
    const ofRight = bandLimiters[1].run(risen.right, floor / TRUE_PEAK_BOUND);
    let at = begin - BAND_LIMITER_DELAY;
    if (at < 0) at += size;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      left[i] = limitedLeft[at] = ofLeft[i]!;
      right[i] = limitedRight[at] = ofRight[i]!;
      at += 1;
      if (at === size) at = 0;
    }
  }

  /** Raises the peaks to those of the samples themselves, PEAK_LATENCY ago. @returns the highest */
  private addSamplePeaks(begin: number, between: boolean): number {
    const { peaks } = this;
    const left = between ? this.limitedLeft : this.left;
    const right = between ? this.limitedRight : this.right;
    const size = left.length;
    let at = begin - PEAK_LATENCY;
    if (at < 0) at += size;
    let highest = 0;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const l = Math.abs(left[at]!);
      const r = Math.abs(right[at]!);
      let peak = peaks[i]!;
      if (l > peak) peak = l;
      if (r > peak) peak = r;
      peaks[i] = peak;
      if (peak > highest) highest = peak;
      at += 1;
      if (at === size) at = 0;
    }
    return highest;
  }

  /**
   * The gain that each sample of PEAK_LATENCY ago needs, including the peak between it and the next; and the crossfade
   * to the band-limited input, which is complete by the time that the first peak near the ceiling leaves.
   */
  private findNeeded(goal: number, between: boolean): void {
    const { peaks, gains, shares, length } = this;
    const rise = 1 / length;
    const fall = 1 / (BAND_RETURN_SECONDS * this.sampleRate);
    let { limitedShare, limitedFor } = this;
    const step = (goal - this.ceiling) / STEP_FRAMES;
    let { ceiling } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      ceiling += step;
      const peak = peaks[i]!;
      gains[i] = peak > ceiling ? ceiling / peak : 1;
      if (between && peak > NEAR * ceiling) limitedFor = 2 * length;
      else limitedFor -= 1;
      if (limitedFor > 0) limitedShare = limitedShare + rise > 1 ? 1 : limitedShare + rise;
      else limitedShare = limitedShare < fall ? 0 : limitedShare - fall;
      shares[i] = limitedShare;
    }
    this.limitedShare = limitedShare;
    this.limitedFor = limitedFor < 0 ? 0 : limitedFor;
    this.ceiling = goal;
  }

  /** Instant attack, exponential release. @param share release coefficient per sample */
  private release(share: number): void {
    const { gains } = this;
    let { released } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const held = gains[i]!;
      released = held < released ? held : released + (held - released) * share;
      gains[i] = released;
    }
    this.released = released;
  }

  /** Writes the delayed input: what `give` does while every gain is 1. */
  private delay(wet: StereoBlock, begin: number): void {
    const { left, right } = this;
    const size = left.length;
    let at = begin - this.latency;
    if (at < 0) at += size;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      wet.left[i] = left[at]!;
      wet.right[i] = right[at]!;
      at += 1;
      if (at === size) at = 0;
    }
  }

  private give(wet: StereoBlock, begin: number): void {
    const { left, right, gains, shares, limitedLeft, limitedRight } = this;
    const size = left.length;
    let lowest = 1;
    let at = begin - this.latency;
    if (at < 0) at += size;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const now = gains[i]!;
      if (now < lowest) lowest = now;
      const share = shares[i]!;
      wet.left[i] = (left[at]! + share * (limitedLeft[at]! - left[at]!)) * now;
      wet.right[i] = (right[at]! + share * (limitedRight[at]! - right[at]!)) * now;
      at += 1;
      if (at === size) at = 0;
    }
    if (lowest < this.lowest) this.lowest = lowest;
    this.unityFrames = lowest > NEARLY_UNITY ? this.unityFrames + STEP_FRAMES : 0;
  }
}

import { clearBlock, STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../../dsp/blocks';
import { smoothToward, DcBlock, onePoleCoefficient } from '../../dsp/onePole';
import { PeakGuard } from '../../dsp/peakGuard';
import { TapBank } from '../../dsp/tapBank';
import { type EffectProcessor } from '../define';
import { isAudible } from '../silenceDetector';
import { commonParams, loopGain } from '../common';
import { MAX_TAPS, tapsParams } from './params';
import { ChangeDetector } from '../changeDetector';
import { TapHead } from './tapHead';
import { DENORMAL_GUARD } from '../../dsp/denormals';

const ORDER = Object.keys({ ...commonParams, ...tapsParams });
const at = (id: string): number => ORDER.indexOf(id);
const COUNT = at('count'),
  STRETCH = at('stretch'),
  SWING = at('swing'),
  RISE = at('rise'),
  DENSITY = at('density');
const FEEDBACK = at('feedback'),
  WIDTH = at('width'),
  INPUT = at('input'),
  CHANGE = at('change');
/** Index of the first tap's values; each has six in a row. */
const FIRST_TAP = at('time1');
const PER_TAP = 6;
const TIME = 0,
  LEVEL = 1,
  PAN = 2,
  LOW_CUT = 3,
  HIGH_CUT = 4,
  REVERSE = 5;

const LONGEST_SECONDS = 4 * 4 + 4.2;
const CEILING = 1.5;
const GUARD_RELEASE_SECONDS = 0.2;
const DC_HZ = 5;
const SWITCH_SECONDS = 0.01;
const SILENCE = 1e-6;
/** The order in which density removes taps: evenly over the pattern. */
const LAST_TO_GO = [0, 8, 4, 12, 2, 10, 6, 14, 1, 9, 5, 13, 3, 11, 7, 15] as const;
const RANK = LAST_TO_GO.map((_, tap) => LAST_TO_GO.indexOf(tap as 0));

/** Up to sixteen separate repeats of the input, each with its own time, level, pan and tone. */
export class TapsProcessor implements EffectProcessor {
  private readonly bank: TapBank;
  private readonly heads: readonly TapHead[];
  private readonly guard: PeakGuard;
  private readonly back: TapHead;
  private readonly into = makeStereoBlock();
  private readonly returned = makeStereoBlock();
  /** DC would not decay in the loop without this filter. */
  private readonly noOffset: readonly [DcBlock, DcBlock];
  private readonly share: number;
  private readonly seen = new ChangeDetector(ORDER.length);
  private readonly delays = new Float64Array(MAX_TAPS);
  private readonly levels = new Float64Array(MAX_TAPS);
  private readonly pans = new Float64Array(MAX_TAPS);
  private input = 1;
  private feedback = 0;
  private quietFrames = Infinity;
  private longest = 0;
  private period = 0;

  /** @param withKernel false leaves all work to TypeScript, which tests compare */
  constructor(
    private readonly sampleRate: number,
    withKernel = true,
  ) {
    this.bank = new TapBank(LONGEST_SECONDS * sampleRate, withKernel);
    this.heads = Array.from({ length: MAX_TAPS }, () => new TapHead(this.bank, sampleRate));
    this.back = new TapHead(this.bank, sampleRate);
    this.guard = new PeakGuard(CEILING, GUARD_RELEASE_SECONDS, sampleRate);
    this.noOffset = [new DcBlock(DC_HZ, sampleRate), new DcBlock(DC_HZ, sampleRate)];
    this.share = onePoleCoefficient(SWITCH_SECONDS, STEP_FRAMES, sampleRate);
  }

  get silent(): boolean {
    return this.quietFrames > this.longest + 0.2 * this.sampleRate;
  }

  takeGuardGain(): number {
    return this.guard.takeLowest();
  }

  reset(seconds: number, values: Float64Array): void {
    this.bank.clear();
    this.locate(seconds, values);
  }

  locate(_seconds: number, values: Float64Array): void {
    for (let tap = 0; tap < MAX_TAPS; tap += 1)
      this.heads[tap]!.jump(this.delayOf(tap, values), this.levelOf(tap, values), this.panOf(tap, values));
    this.back.jump(this.periodOf(values), 1, 0);
    this.input = values[INPUT]!;
    this.feedback = values[FEEDBACK]!;
    this.guard.clear();
    this.noOffset.forEach((each) => each.clear());
    this.quietFrames = Infinity;
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    const glide = values[CHANGE]! < 0.5;
    this.updateTaps(values);
    const peak = this.write(input, values, glide);
    clearBlock(wet.left);
    clearBlock(wet.right);
    this.longest = 0;
    for (let tap = 0; tap < MAX_TAPS; tap += 1) {
      const delay = this.delays[tap]!;
      const from = FIRST_TAP + tap * PER_TAP;
      const head = this.heads[tap]!;
      head.aim(
        delay,
        this.levels[tap]!,
        this.pans[tap]!,
        values[from + LOW_CUT]!,
        values[from + HIGH_CUT]!,
        values[from + REVERSE]! >= 0.5,
      );
      const lasts = delay * (values[from + REVERSE]! >= 0.5 ? 2 : 1);
      if (head.level > 0 && lasts > this.longest) this.longest = lasts;
      head.addToSums(wet, glide);
    }
    this.bank.addSums(wet.left, wet.right);
    // The loop may be longer than the time of the last audible tap.
    if (this.feedback > 0 && this.period > this.longest) this.longest = this.period;
    this.quietFrames = peak > SILENCE || isAudible(wet) ? 0 : this.quietFrames + STEP_FRAMES;
  }

  /** Computes the goals of all taps, when any value has changed. */
  private updateTaps(values: Float64Array): void {
    const { delays, levels, pans } = this;
    if (!this.seen.update(values)) return;
    this.period = this.periodOf(values);
    for (let tap = 0; tap < MAX_TAPS; tap += 1) {
      delays[tap] = this.delayOf(tap, values);
      levels[tap] = this.levelOf(tap, values);
      pans[tap] = this.panOf(tap, values);
    }
  }

  /** The pattern repeats after the time of its last tap. */
  private periodOf(values: Float64Array): number {
    let last = 2 * STEP_FRAMES;
    for (let tap = 0; tap < Math.round(values[COUNT]!); tap += 1) {
      const delay = this.delayOf(tap, values);
      if (delay > last) last = delay;
    }
    return last;
  }

  private write(input: StereoBlock, values: Float64Array, glide: boolean): number {
    const n = STEP_FRAMES;
    const { into, returned } = this;
    clearBlock(returned.left);
    clearBlock(returned.right);
    const feedbackGoal = loopGain(values[FEEDBACK]!);
    if (this.feedback > 0 || feedbackGoal > 0) {
      this.back.aim(this.period - n, 1, 0, 20, 20_000, false);
      this.back.addTo(returned, glide);
      this.noOffset[0].process(returned.left, n);
      this.noOffset[1].process(returned.right, n);
    }
    const inputGoal = smoothToward(this.input, values[INPUT]!, this.share);
    const inputStep = (inputGoal - this.input) / n;
    const feedbackStep = (feedbackGoal - this.feedback) / n;
    let level = this.input;
    let feedback = this.feedback;
    let peak = 0;
    for (let i = 0; i < n; i += 1) {
      level += inputStep;
      feedback += feedbackStep;
      const l = input.left[i]! * level + returned.left[i]! * feedback + DENORMAL_GUARD - DENORMAL_GUARD;
      const r = input.right[i]! * level + returned.right[i]! * feedback + DENORMAL_GUARD - DENORMAL_GUARD;
      into.left[i] = l;
      into.right[i] = r;
      const most = Math.abs(l) > Math.abs(r) ? Math.abs(l) : Math.abs(r);
      if (most > peak) peak = most;
    }
    this.input = inputGoal;
    this.feedback = feedbackGoal;
    this.guard.process(into.left, into.right, n);
    this.bank.write(into.left, into.right);
    return peak;
  }

  /** Time in samples: its own, scaled; every second one is delayed by the swing's share of its gap. */
  private delayOf(tap: number, values: Float64Array): number {
    const ms = values[FIRST_TAP + tap * PER_TAP + TIME]!;
    const before = tap > 0 ? values[FIRST_TAP + (tap - 1) * PER_TAP + TIME]! : 0;
    const swing = tap & 1 && ms > before ? 0.5 * values[SWING]! * (ms - before) : 0;
    return ((ms + swing) * values[STRETCH]! * this.sampleRate) / 1000;
  }

  private levelOf(tap: number, values: Float64Array): number {
    const count = Math.round(values[COUNT]!);
    const heard = tap < count && RANK[tap]! < Math.ceil(values[DENSITY]! * MAX_TAPS);
    if (!heard) return 0;
    const rise =
      values[RISE] === 0 || count < 2
        ? 1
        : Math.pow(10, (values[RISE]! * (tap / (count - 1) - (values[RISE]! > 0 ? 1 : 0))) / 20);
    return values[FIRST_TAP + tap * PER_TAP + LEVEL]! * rise;
  }

  private panOf(tap: number, values: Float64Array): number {
    return values[FIRST_TAP + tap * PER_TAP + PAN]! * values[WIDTH]!;
  }
}

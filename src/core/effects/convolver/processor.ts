import { clearBlock, STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../../dsp/blocks';
import { Convolution, type PreparedImpulse } from '../../dsp/convolution';
import { DelayLine } from '../../dsp/delayLine';
import { smoothToward, onePoleCoefficient } from '../../dsp/onePole';
import { KeptTuning, StateVariable } from '../../dsp/stateVariable';
import { LONGEST_IMPULSE_SECONDS } from '../../impulses/make';
import { type EffectProcessor } from '../define';
import { SECOND_ORDER_Q } from '../filter/processor';
import { paramIndices } from '../paramIndices';
import { SilenceDetector } from '../silenceDetector';
import { widen } from '../widen';
import { convolverParams } from './params';

const P = paramIndices(convolverParams);
const PRE_SECONDS = 0.5;
const GLIDE = 0.5;
const SWITCH_SECONDS = 0.02;
const OFF_LOW_HZ = 20;
const OFF_HIGH_HZ = 20_000;

/** Convolves with an impulse that is prepared elsewhere. The input is switched to a new one; the old one rings out. */
export class ConvolverProcessor implements EffectProcessor {
  private readonly convolutions: [Convolution, Convolution];
  private readonly quiets: [SilenceDetector, SilenceDetector];
  private readonly shares = [1, 0] as [number, number];
  /** Output gain of each: one that has to make room for a new impulse is faded out first. */
  private readonly outs = [1, 1] as [number, number];
  private readonly rung = makeStereoBlock();
  private readonly loaded = [false, false] as [boolean, boolean];
  private current: 0 | 1 = 0;
  private waiting: PreparedImpulse | null = null;
  private readonly pre: readonly [DelayLine, DelayLine];
  private readonly into = makeStereoBlock();
  private readonly fed = makeStereoBlock();
  private readonly delays = new Float64Array(STEP_FRAMES);
  private readonly filters = Array.from({ length: 4 }, () => new StateVariable());
  private readonly quiet: SilenceDetector;
  private readonly share: number;
  private readonly lows: KeptTuning;
  private readonly highs: KeptTuning;
  private preNow = 0;
  private open = 1;
  private width = 1;
  private cutting = false;

  constructor(
    private readonly sampleRate: number,
    withKernel = true,
  ) {
    const longest = LONGEST_IMPULSE_SECONDS * sampleRate;
    this.convolutions = [new Convolution(longest, withKernel), new Convolution(longest, withKernel)];
    this.pre = [
      new DelayLine(PRE_SECONDS * sampleRate + 2 * STEP_FRAMES, STEP_FRAMES),
      new DelayLine(PRE_SECONDS * sampleRate + 2 * STEP_FRAMES, STEP_FRAMES),
    ];
    const memory = LONGEST_IMPULSE_SECONDS + PRE_SECONDS + 0.3;
    this.quiet = new SilenceDetector(memory, sampleRate);
    this.quiets = [new SilenceDetector(memory, sampleRate), new SilenceDetector(memory, sampleRate)];
    this.lows = new KeptTuning(SECOND_ORDER_Q, sampleRate);
    this.highs = new KeptTuning(SECOND_ORDER_Q, sampleRate);
    this.share = onePoleCoefficient(SWITCH_SECONDS, STEP_FRAMES, sampleRate);
  }

  get silent(): boolean {
    return this.quiet.silent;
  }

  takeGuardGain(): number {
    return 1;
  }

  /** Loads an impulse as soon as the convolution before the current one has rung out. */
  setImpulse(impulse: PreparedImpulse): void {
    if (!this.loaded[0] && !this.loaded[1]) {
      this.convolutions[0].load(impulse);
      this.loaded[0] = true;
      return;
    }
    this.waiting = impulse;
  }

  reset(seconds: number, values: Float64Array): void {
    this.quiets[0].reset();
    this.quiets[1].reset();
    this.pre[0].clear();
    this.pre[1].clear();
    this.locate(seconds, values);
  }

  locate(_seconds: number, values: Float64Array): void {
    // Rounding depends on where partitions begin: the same input shall give the same bits, whatever came before.
    this.convolutions[0].clear();
    this.convolutions[1].clear();
    this.preNow = Math.round((values[P.preDelay]! * this.sampleRate) / 1000);
    this.open = values[P.input]!;
    this.width = values[P.width]!;
    for (let i = 0; i < this.filters.length; i += 1) this.filters[i]!.clear();
    this.cutting = cuts(values);
    this.quiet.reset();
    if (this.waiting) this.takeWaiting(1);
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    const idle = this.current === 0 ? 1 : 0;
    if (this.waiting && (this.outs[idle] === 0 || this.quiets[idle].silent)) this.takeWaiting(0);
    this.enter(input, values);
    clearBlock(wet.left);
    clearBlock(wet.right);
    this.feed(0, wet);
    this.feed(1, wet);
    this.cut(wet, values);
    widen(wet, STEP_FRAMES, this.width, values[P.width]!);
    this.width = values[P.width]!;
  }

  /** The idle convolution gets the new impulse; the input is crossfaded to it. @param at once when 1 */
  private takeWaiting(at: 0 | 1): void {
    const other = this.current === 0 ? 1 : 0;
    this.convolutions[other].load(this.waiting!);
    this.loaded[other] = true;
    this.outs[other] = 1;
    this.waiting = null;
    this.current = other;
    if (at === 1) {
      this.shares[other] = 1;
      this.shares[other === 0 ? 1 : 0] = 0;
    }
  }

  private enter(input: StereoBlock, values: Float64Array): void {
    const n = STEP_FRAMES;
    const { into } = this;
    const goal = smoothToward(this.open, values[P.input]!, this.share);
    const step = (goal - this.open) / n;
    let open = this.open;
    for (let i = 0; i < n; i += 1) {
      open += step;
      into.left[i] = input.left[i]! * open;
      into.right[i] = input.right[i]! * open;
    }
    this.open = goal;
    const wanted = Math.round((values[P.preDelay]! * this.sampleRate) / 1000);
    const most = GLIDE * n;
    const next =
      wanted > this.preNow + most ? this.preNow + most : wanted < this.preNow - most ? this.preNow - most : wanted;
    this.delay(0, into.left, next);
    this.delay(1, into.right, next);
    this.preNow = next;
  }

  private delay(side: 0 | 1, io: Float64Array, next: number): void {
    const n = STEP_FRAMES;
    const line = this.pre[side];
    line.write(io, n);
    if (next === 0 && this.preNow === 0) return;
    const step = (next - this.preNow) / n;
    for (let i = 0; i < n; i += 1) this.delays[i] = n + this.preNow + step * (i + 1);
    if (step === 0) line.readFixed(n + next, n, io);
    else line.readLinear(this.delays, n, io);
  }

  private feed(which: 0 | 1, wet: StereoBlock): void {
    if (!this.loaded[which]) return;
    const { into, fed } = this;
    const from = this.shares[which];
    const to = smoothToward(from, which === this.current ? 1 : 0, this.share);
    this.shares[which] = to;
    const step = (to - from) / STEP_FRAMES;
    let share = from;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      share += step;
      fed.left[i] = into.left[i]! * share;
      fed.right[i] = into.right[i]! * share;
    }
    this.quiets[which].measureInput(fed);
    if (!this.quiets[which].silent) this.sound(which, wet);
  }

  private sound(which: 0 | 1, wet: StereoBlock): void {
    const { fed, rung } = this;
    clearBlock(rung.left);
    clearBlock(rung.right);
    this.convolutions[which].addTo(fed.left, fed.right, rung.left, rung.right);
    const from = this.outs[which];
    const to = smoothToward(from, this.waiting && which !== this.current ? 0 : 1, this.share, 1e-4);
    this.outs[which] = to;
    const step = (to - from) / STEP_FRAMES;
    let level = from;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      level += step;
      wet.left[i] = wet.left[i]! + rung.left[i]! * level;
      wet.right[i] = wet.right[i]! + rung.right[i]! * level;
    }
  }

  private cut(wet: StereoBlock, values: Float64Array): void {
    const wanted = cuts(values);
    if (!wanted && !this.cutting) return;
    // Filters that are cleared run for a step before they are heard: their state belongs to another sound.
    const entering = !this.cutting;
    if (entering) for (let i = 0; i < this.filters.length; i += 1) this.filters[i]!.clear();
    const low = !entering && values[P.lowCut]! > OFF_LOW_HZ;
    const high = !entering && values[P.highCut]! < OFF_HIGH_HZ;
    const lows = this.lows.at(values[P.lowCut]!);
    const highs = this.highs.at(values[P.highCut]!);
    for (let side = 0; side < 2; side += 1) {
      const io = side === 0 ? wet.left : wet.right;
      this.filters[side]!.process(io, STEP_FRAMES, lows.g, lows.k, 1, low ? -lows.k : 0, low ? -1 : 0);
      this.filters[2 + side]!.process(io, STEP_FRAMES, highs.g, highs.k, high ? 0 : 1, 0, high ? 1 : 0);
    }
    this.cutting = entering || wanted;
  }
}

const cuts = (values: Float64Array): boolean => values[P.lowCut]! > OFF_LOW_HZ || values[P.highCut]! < OFF_HIGH_HZ;

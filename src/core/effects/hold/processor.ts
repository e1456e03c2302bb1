import { clearBlock, copyBlock, makeStereoBlock, STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { KeptTuning, StateVariable } from '../../dsp/stateVariable';
import { dryGain, wetGain } from '../common';
import type { EffectProcessor } from '../define';
import { paramIndices } from '../paramIndices';
import { isAudible } from '../silenceDetector';
import { STANDING, type StepTime } from '../stepTime';
import { History } from './history';
import { gridBeats, HEARD, holdParams } from './params';
import { GainRamp } from './ramp';
import { HoldTiming, NOT_NOW } from './timing';
import { HoldStep, type HoldVoice } from './voice';

/** Common parameters of holds have the same indices in all of them: they come first. */
const P = paramIndices(holdParams);
/** Maximum number of voices: the present one, and those that are fading out. */
const VOICES = 3;
/** Minimum fade of a hold, too short to be heard as a fade. */
const MIN_FADE_SECONDS = 0.001;
/** Time for a change of how it is heard. */
const CHANGE_SECONDS = 0.008;
const BLEND = HEARD.indexOf('blend');
const WHILE_HELD = HEARD.indexOf('whileHeld');
const LOW_OFF = 20.5;
const HIGH_OFF = 19_900;
const BUTTERWORTH_Q = Math.SQRT1_2;

/**
 * The common part of all holds: history of the input, starts and ends on the grid, fades, tone, and the mix with the
 * dry sound. While nothing is held the sound passes to the bit.
 */
export class HoldProcessor implements EffectProcessor {
  /** It mixes dry and held sound by itself. */
  readonly suppressesDry = true;
  private readonly history: History;
  private readonly timing = new HoldTiming();
  private readonly voices: readonly HoldVoice[];
  private readonly gains: readonly GainRamp[];
  private readonly dry = new GainRamp(1);
  private readonly step: HoldStep;
  private readonly part = makeStereoBlock();
  private readonly sum = makeStereoBlock();
  private current = 0;
  private readonly wet = new GainRamp(1);
  private readonly low: readonly [StateVariable, StateVariable];
  private readonly high: readonly [StateVariable, StateVariable];
  /** Whether each cut was processed in the last step; true as well when a hold begins, see `clearTone`. */
  private lowRuns = true;
  private highRuns = true;
  private readonly lowTuning: KeptTuning;
  private readonly highTuning: KeptTuning;
  private time: StepTime = STANDING;
  private heldAt = 0;
  /** The sound passed to the bit in the last step. */
  private still = true;
  /** A hold has started and has not ended, at the sample that is being worked on. */
  private sounds = false;
  /** Frames since the input was last above silence. */
  private silentFor = Infinity;
  /** Frames since its own beginning. */
  private frames = 0;
  /** The start of the present hold, in those frames. */
  private startedAt = 0;
  /** Distance of the present voice's read position from the end of the history. */
  private lag = 0;

  /** @param makeVoice what this kind of hold does */
  constructor(
    private readonly sampleRate: number,
    makeVoice: (history: History) => HoldVoice,
  ) {
    this.history = new History(sampleRate);
    this.step = new HoldStep(this.history);
    this.voices = Array.from({ length: VOICES }, () => makeVoice(this.history));
    this.gains = Array.from({ length: VOICES }, () => new GainRamp(0));
    this.low = [new StateVariable(), new StateVariable()];
    this.high = [new StateVariable(), new StateVariable()];
    this.lowTuning = new KeptTuning(BUTTERWORTH_Q, sampleRate);
    this.highTuning = new KeptTuning(BUTTERWORTH_Q, sampleRate);
  }

  setTime(time: StepTime): void {
    this.time = time;
  }

  setSwitchOffset(frames: number): void {
    this.heldAt = frames;
  }

  /** True while `held` is on and its line of the grid has not come. */
  get waiting(): boolean {
    return this.timing.waiting;
  }

  get silent(): boolean {
    return this.silentFor > 0 && !this.sounding;
  }

  /** Samples from the start of the hold to the end of the last step; 0 once it has faded out. */
  get heldFrames(): number {
    return this.timing.active || this.fading ? this.frames - this.startedAt : 0;
  }

  /** Lag of the read position behind the input, in samples; 0 where nothing is held, or the input itself is used. */
  get lagFrames(): number {
    return this.timing.active ? this.lag : 0;
  }

  private get fading(): boolean {
    for (let v = 0; v < VOICES; v += 1) if (this.gains[v]!.moving) return true;
    return false;
  }

  /** Whether a hold is heard, or fading in or out. */
  private get sounding(): boolean {
    return this.timing.active || this.timing.waiting || this.fading;
  }

  takeGuardGain(): number {
    return 1;
  }

  reset(seconds: number, values: Float64Array): void {
    this.history.clear();
    this.silentFor = Infinity;
    this.locate(seconds, values);
  }

  locate(_seconds: number, values: Float64Array): void {
    this.timing.reset(values[P.held]! >= 0.5);
    this.sounds = false;
    for (const gain of this.gains) gain.jump(0);
    this.dry.jump(this.dryGoal(values));
    this.wet.jump(this.wetGoal(values));
    this.clearTone();
  }

  idle(values: Float64Array): boolean {
    if (values[P.held]! >= 0.5) return true;
    this.history.protect(Infinity);
    if (this.silentFor < this.history.size) {
      clearBlock(this.part.left);
      clearBlock(this.part.right);
      this.history.write(this.part);
      this.silentFor += STEP_FRAMES;
    }
    this.history.reduceFrameNumbers();
    return false;
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    const { history, timing, time } = this;
    const { frames } = this;
    this.frames += STEP_FRAMES;
    history.write(input);
    this.silentFor = isAudible(input) ? 0 : this.silentFor + STEP_FRAMES;
    if (this.still && values[P.held]! < 0.5 && timing.rests && this.dryGoal(values) === 1) {
      this.pass(input, wet, values);
      return;
    }
    const { beatsPerBar } = time.metre;
    const startGrid = gridBeats(values[P.startsOn]!, beatsPerBar);
    timing.step(values[P.held]! >= 0.5, this.heldAt, startGrid, gridBeats(values[P.endsOn]!, beatsPerBar), time);
    if (this.isStill(values)) {
      if (!this.still) this.clearTone();
      this.still = true;
      this.pass(input, wet, values);
      return;
    }
    history.clearAhead();
    this.still = false;
    const { step } = this;
    step.input = input;
    step.first = frames;
    step.values = values;
    clearBlock(wet.left);
    clearBlock(wet.right);
    clearBlock(this.sum.left);
    clearBlock(this.sum.right);
    this.wet.aim(this.wetGoal(values), STEP_FRAMES);
    let from = 0;
    let startAt = timing.startAt;
    let endAt = timing.endAt;
    while (from < STEP_FRAMES) {
      if (endAt === from) {
        this.end(values);
        endAt = NOT_NOW;
      }
      if (startAt === from) {
        this.begin(frames + from, history.end - STEP_FRAMES + from, values, from - time.samplesUntil(0));
        startAt = NOT_NOW;
      }
      step.from = from;
      step.to = startAt < endAt ? startAt : endAt;
      this.render(wet);
      from = step.to;
    }
    this.applyTone(values);
    this.wet.addInto(this.sum, wet, 0, STEP_FRAMES);
  }

  /** A step in which nothing is held: the sound passes to the bit. */
  private pass(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.history.protect(Infinity);
    this.history.reduceFrameNumbers();
    this.wet.jump(this.wetGoal(values));
    copyBlock(input.left, wet.left);
    copyBlock(input.right, wet.right);
  }

  /** Nothing is held or fading, nothing starts, and the dry sound passes unchanged. */
  private isStill(values: Float64Array): boolean {
    if (this.timing.active || this.timing.startAt < NOT_NOW || this.timing.endAt < NOT_NOW) return false;
    for (let v = 0; v < VOICES; v += 1) if (this.gains[v]!.now !== 0 || this.gains[v]!.moving) return false;
    return this.dry.now === 1 && !this.dry.moving && this.dryGoal(values) === 1;
  }

  private begin(at: number, position: number, values: Float64Array, place: number): void {
    const frames = this.fadeFrames(values[P.fadeIn]!);
    if (this.gains[this.current]!.now > 0) {
      this.gains[this.current]!.aim(0, frames);
      this.current = this.freeVoice();
    }
    this.voices[this.current]!.begin(at, position, this.history, values, place);
    this.gains[this.current]!.jump(0);
    this.gains[this.current]!.aim(1, frames);
    this.sounds = true;
    this.startedAt = at;
    this.dry.aim(this.dryGoal(values), frames);
  }

  /** The quietest voice other than the present one. */
  private freeVoice(): number {
    let free = this.current === 0 ? 1 : 0;
    for (let v = 0; v < VOICES; v += 1) if (v !== this.current && this.gains[v]!.now < this.gains[free]!.now) free = v;
    return free;
  }

  private end(values: Float64Array): void {
    const frames = this.fadeFrames(values[P.fadeOut]!);
    this.gains[this.current]!.aim(0, frames);
    this.sounds = false;
    this.dry.aim(this.dryGoal(values), frames);
  }

  private fadeFrames(ms: number): number {
    return Math.max(MIN_FADE_SECONDS, ms / 1000) * this.sampleRate;
  }

  private dryGoal(values: Float64Array): number {
    const heard = values[P.heard]!;
    if (!this.sounds) return heard === WHILE_HELD ? 0 : 1;
    return heard === BLEND ? dryGain(values[P.blend]!) : 0;
  }

  private wetGoal(values: Float64Array): number {
    return values[P.level]! * (values[P.heard] === BLEND ? wetGain(values[P.blend]!) : 1);
  }

  /** Adds the dry sound to `wet` and the voices to `sum`, for the part of the step that `step` names. */
  private render(wet: StereoBlock): void {
    const { dry, part, sum, step, history } = this;
    const { input, from, to, values } = step;
    const goal = this.dryGoal(values);
    if (goal !== dry.goal) dry.aim(goal, CHANGE_SECONDS * this.sampleRate);
    dry.addInto(input, wet, from, to);
    for (let v = 0; v < VOICES; v += 1) {
      const gain = this.gains[v]!;
      if (gain.now === 0 && !gain.moving) continue;
      history.readTo = history.end;
      this.voices[v]!.render(part, step);
      if (v === this.current) this.lag = history.end - history.readTo;
      gain.addInto(part, sum, from, to);
    }
  }

  /** Low and high cut of the held sound. A filter that is open, and was in the last step, is skipped: it is transparent. */
  private applyTone(values: Float64Array): void {
    const lowHz = values[P.lowCut]!;
    const highHz = values[P.highCut]!;
    const { g: lowG, k } = this.lowTuning.at(lowHz);
    const { g: highG } = this.highTuning.at(highHz);
    const cutsLow = lowHz > LOW_OFF;
    const cutsHigh = highHz < HIGH_OFF;
    const isLow = cutsLow ? 1 : 0;
    const isHigh = cutsHigh ? 1 : 0;
    if (cutsLow || this.lowRuns) this.cut(this.low, !this.lowRuns, lowG, k, 1, -k * isLow, -isLow);
    if (cutsHigh || this.highRuns) this.cut(this.high, !this.highRuns, highG, k, 1 - isHigh, 0, isHigh);
    this.lowRuns = cutsLow;
    this.highRuns = cutsHigh;
  }

  /** @param fromRest true if the filter was skipped until now: its state settles for a step while it is still open */
  private cut(
    sides: readonly [StateVariable, StateVariable],
    fromRest: boolean,
    g: number,
    k: number,
    direct: number,
    band: number,
    low: number,
  ): void {
    for (let side = 0; side < 2; side += 1) {
      const filter = sides[side]!;
      const block = side === 0 ? this.sum.left : this.sum.right;
      if (fromRest) {
        filter.clear();
        filter.process(block, STEP_FRAMES, g, k, 1, 0, 0);
      } else filter.process(block, STEP_FRAMES, g, k, direct, band, low);
    }
  }

  /** Resets the cuts for a hold that begins: they start at their settings, without settling first. */
  private clearTone(): void {
    this.lowRuns = true;
    this.highRuns = true;
    for (let side = 0; side < 2; side += 1) {
      this.low[side]!.clear();
      this.high[side]!.clear();
    }
  }
}

import { clearBlock, STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { sinTurns } from '../../dsp/approx';
import type { DelayLine } from '../../dsp/delayLine';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import { readLines } from '../../dsp/lineReader';
import { smoothToward, onePoleCoefficient } from '../../dsp/onePole';
import { PeakGuard } from '../../dsp/peakGuard';
import { type EffectProcessor } from '../define';
import { paramIndices } from '../paramIndices';
import { DetunedHead, WINDOW_SECONDS } from './detunedHead';
import { isAudible } from '../silenceDetector';
import { doublingParams, MAX_VOICES } from './params';
import { DENORMAL_GUARD } from '../../dsp/denormals';

const P = paramIndices(doublingParams);
const SWITCH_SECONDS = 0.03;
/** Delay of each voice behind the first, as a share of the time. */
const LATER = [1, 1.37, 1.71, 2.13] as const;
const PAN = [-1, 1, -0.55, 0.55] as const;
const BEND = [1, -1, 0.62, -0.62] as const;
const LONGEST_SECONDS = 0.12 * 2.13 + 0.008 + WINDOW_SECONDS;
const CEILING = 1.5;
const GUARD_RELEASE_SECONDS = 0.2;
const SILENCE = 1e-6;
const PATIENCE_SECONDS = 0.6;

/** Copies that sound like further takes of the same part: delayed, slightly detuned, drifting, and panned. */
export class DoublingProcessor implements EffectProcessor {
  private readonly line: DelayLine;
  private readonly guard: PeakGuard;
  private readonly heads: readonly DetunedHead[];
  private readonly headOutput = new Float64Array(STEP_FRAMES);
  private readonly back = new Float64Array(STEP_FRAMES);
  private readonly into = new Float64Array(STEP_FRAMES);
  private readonly inUse = new Float64Array(MAX_VOICES);
  private readonly offset = new Float64Array(MAX_VOICES);
  private readonly ratios = BEND.map(() => new MemoizedUnary((octaves) => Math.pow(2, octaves)));
  private readonly share: number;
  private phase = 0;
  private feedback = 0;
  private quietFrames = Infinity;

  /** @param withKernel false leaves all work to TypeScript, which tests compare */
  constructor(
    private readonly sampleRate: number,
    withKernel = true,
  ) {
    this.line = readLines(1, LONGEST_SECONDS * sampleRate + 2 * STEP_FRAMES, withKernel)[0]!;
    this.guard = new PeakGuard(CEILING, GUARD_RELEASE_SECONDS, sampleRate);
    this.share = onePoleCoefficient(SWITCH_SECONDS, STEP_FRAMES, sampleRate);
    this.heads = BEND.map(() => new DetunedHead(this.line, sampleRate));
  }

  get silent(): boolean {
    return this.quietFrames > PATIENCE_SECONDS * this.sampleRate;
  }

  takeGuardGain(): number {
    return this.guard.takeLowest();
  }

  reset(seconds: number, values: Float64Array): void {
    this.line.clear();
    this.back.fill(0);
    this.locate(seconds, values);
  }

  locate(seconds: number, values: Float64Array): void {
    const phase = seconds * values[P.driftRate]!;
    this.phase = phase - Math.floor(phase);
    for (let voice = 0; voice < MAX_VOICES; voice += 1) {
      this.inUse[voice] = voice < Math.round(values[P.voices]!) ? 1 : 0;
      this.offset[voice] = this.offsetOf(voice, values);
      this.heads[voice]!.clear(this.rateOf(voice, values));
    }
    this.feedback = values[P.feedback]!;
    this.guard.clear();
    this.quietFrames = Infinity;
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    const n = STEP_FRAMES;
    const { into, back } = this;
    const feedbackStep = (values[P.feedback]! - this.feedback) / n;
    let peak = 0;
    for (let i = 0; i < n; i += 1) {
      this.feedback += feedbackStep;
      const x = 0.5 * (input.left[i]! + input.right[i]!) + back[i]! * this.feedback;
      into[i] = x + DENORMAL_GUARD - DENORMAL_GUARD;
      if (x > peak) peak = x;
      else if (-x > peak) peak = -x;
    }
    this.guard.process(into, into, n);
    this.line.write(into, n);
    clearBlock(wet.left);
    clearBlock(wet.right);
    clearBlock(back);
    this.phase += (values[P.driftRate]! * n) / this.sampleRate;
    this.phase -= Math.floor(this.phase);
    const level = 1 / Math.sqrt(Math.max(1, Math.round(values[P.voices]!)));
    for (let voice = 0; voice < MAX_VOICES; voice += 1) this.voice(voice, wet, values, level);
    this.quietFrames = peak > SILENCE || isAudible(wet) ? 0 : this.quietFrames + n;
  }

  private offsetOf(voice: number, values: Float64Array): number {
    const wander = values[P.drift] === 0 ? 0 : values[P.drift]! * (1 + sinTurns(this.phase + voice * 0.29));
    return ((values[P.time]! * LATER[voice as 0 | 1 | 2 | 3] + 0.5 * wander) * this.sampleRate) / 1000;
  }

  /** Decrease of a voice's delay per sample. */
  private rateOf(voice: number, values: Float64Array): number {
    if (values[P.detune] === 0) return 0;
    return this.ratios[voice]!.at((values[P.detune]! * BEND[voice as 0 | 1 | 2 | 3]) / 1200) - 1;
  }

  private voice(voice: number, wet: StereoBlock, values: Float64Array, level: number): void {
    const n = STEP_FRAMES;
    const from = this.inUse[voice]!;
    const to = smoothToward(from, voice < Math.round(values[P.voices]!) ? 1 : 0, this.share);
    this.inUse[voice] = to;
    const start = this.offset[voice]!;
    const end = this.offsetOf(voice, values);
    this.offset[voice] = end;
    const rate = this.rateOf(voice, values);
    const head = this.heads[voice]!;
    if (from === 0 && to === 0) {
      head.clear(rate);
      return;
    }
    head.read(start, end, rate, this.headOutput);
    const pan = PAN[voice as 0 | 1 | 2 | 3] * values[P.spread]!;
    const left = level * Math.sqrt(0.5 * (1 - pan));
    const right = level * Math.sqrt(0.5 * (1 + pan));
    const { headOutput: heard } = this;
    for (let i = 0; i < n; i += 1) {
      const x = heard[i]! * (from + ((to - from) * (i + 1)) / n);
      wet.left[i] = wet.left[i]! + left * x;
      wet.right[i] = wet.right[i]! + right * x;
      this.back[i] = this.back[i]! + 0.5 * level * x;
    }
  }
}

import type { DelayLine } from '../../dsp/delayLine';
import { Kept } from '../../dsp/kept';
import { STEP_FRAMES } from '../define';
import { earSeconds, shadowGain } from './geometry';

const FULL = 0;
const TIME_ALONE = 1;
/** Level alone: 6 dB less on the far side than in the middle, as a gentle pan. */
const LEVEL_DEPTH = 0.5;
/** The near ear hears before the middle of the head: all is kept this many samples later. */
export const leadSamples = (sampleRate: number): number => Math.ceil(0.0004 * sampleRate);

/** A source as it was just written: whole, and its lows alone, which are `lateness` samples behind. */
export interface SourceLines {
  readonly whole: DelayLine;
  readonly lows: DelayLine;
  readonly lateness: number;
}

/** What one ear hears of one source: its delay, its shadow, its level. The shadow moves no phase, so the time between the ears is the same at every pitch. */
export class Ear {
  private readonly early = new Kept(earSeconds);
  private readonly shadow = new Kept(shadowGain);
  private readonly level = new Kept((toward) => 1 + LEVEL_DEPTH * Math.sin(toward));
  private readonly lead: number;
  private delay = -1;
  private gain = 0;
  private high = 1;
  private readonly delays = new Float64Array(STEP_FRAMES);
  private readonly whole = new Float64Array(STEP_FRAMES);
  private readonly lows = new Float64Array(STEP_FRAMES);

  /** @param side -1 the left ear, 1 the right */
  constructor(private readonly side: -1 | 1, private readonly sampleRate: number) {
    this.lead = leadSamples(sampleRate);
  }

  clear(): void {
    this.delay = -1;
  }

  /**
   * Adds this ear's part of a source.
   * @param lateral angle in radians, positive to the right  @param seconds on the way to the head  @param gain at the head
   */
  addTo(out: Float64Array, lines: SourceLines, lateral: number, seconds: number, gain: number, head: number): void {
    const n = STEP_FRAMES;
    const toward = lateral * this.side;
    const early = head === FULL || head === TIME_ALONE ? this.early.at(toward) : 0;
    const delayGoal = n + this.lead + (seconds + early) * this.sampleRate;
    const highGoal = head === FULL ? this.shadow.at(toward) : 1;
    const levelGoal = gain * (head > TIME_ALONE ? this.level.at(toward) : 1);
    if (this.delay < 0) {
      this.delay = delayGoal;
      this.gain = levelGoal;
      this.high = highGoal;
    }
    this.readFrom(lines.whole, delayGoal, lines.lateness, this.whole);
    this.readFrom(lines.lows, delayGoal, 0, this.lows);
    this.delay = delayGoal;
    const highStep = (highGoal - this.high) / n;
    const gainStep = (levelGoal - this.gain) / n;
    const { whole, lows } = this;
    let { high, gain: level } = this;
    for (let i = 0; i < n; i += 1) {
      high += highStep;
      level += gainStep;
      out[i] = out[i]! + (lows[i]! + high * (whole[i]! - lows[i]!)) * level;
    }
    this.high = highGoal;
    this.gain = levelGoal;
  }

  private readFrom(line: DelayLine, goal: number, later: number, out: Float64Array): void {
    const n = STEP_FRAMES;
    if (goal === this.delay) {
      line.readFixed(goal + later, n, out);
      return;
    }
    const step = (goal - this.delay) / n;
    for (let i = 0; i < n; i += 1) this.delays[i] = this.delay + later + step * (i + 1);
    line.readMoving(this.delays, n, out);
  }
}

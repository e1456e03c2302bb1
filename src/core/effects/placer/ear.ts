import { STEP_FRAMES } from '../../dsp/blocks';
import type { DelayLine } from '../../dsp/delayLine';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import { SINC_AHEAD } from '../../dsp/sincTable';
import { earSeconds, shadowGain } from './geometry';

const FULL = 0;
const TIME_ALONE = 1;
/** Pan by level alone: 6 dB less on the far side than in the middle. */
const LEVEL_DEPTH = 0.5;
/**
 * The near ear is reached before the middle of the head, and interpolation needs some samples ahead: everything is
 * delayed by this many samples.
 */
export const leadSamples = (sampleRate: number): number => Math.ceil(0.0003 * sampleRate) + SINC_AHEAD + 1;

/** The latest block of a source: full band, and its lows alone, which are `lateness` samples behind. */
export interface SourceLines {
  readonly whole: DelayLine;
  readonly lows: DelayLine;
  readonly lateness: number;
}

/** Cues of direction: time and head shadow, time alone or level alone. @param head index of the choice */
export const hearsShadow = (head: number): boolean => head === FULL;

/** The path from one source to one ear: delay and level. */
export abstract class EarPath {
  private readonly early = new MemoizedUnary(earSeconds);
  private readonly level = new MemoizedUnary((toward) => 1 + LEVEL_DEPTH * Math.sin(toward));
  private readonly lead: number;
  private readonly delays = new Float64Array(STEP_FRAMES);
  private delay = -1;
  private goal = 0;
  protected gain = 0;
  protected gainGoal = 0;

  /** @param side -1 the left ear, 1 the right  @param later extra delay in samples */
  constructor(
    private readonly side: -1 | 1,
    private readonly sampleRate: number,
    later: number,
  ) {
    this.lead = leadSamples(sampleRate) + later;
  }

  clear(): void {
    this.delay = -1;
  }

  /** Angle of a position towards this ear. @param lateral in radians, positive to the right */
  protected towardOf(lateral: number): number {
    return lateral * this.side;
  }

  /** Sets delay and level at the end of the step. @returns true when it was silent before */
  protected aim(toward: number, seconds: number, gain: number, head: number): boolean {
    const early = head === FULL || head === TIME_ALONE ? this.early.at(toward) : 0;
    this.goal = STEP_FRAMES + this.lead + (seconds + early) * this.sampleRate;
    this.gainGoal = gain * (head > TIME_ALONE ? this.level.at(toward) : 1);
    const begins = this.delay < 0;
    if (begins) {
      this.delay = this.goal;
      this.gain = this.gainGoal;
    }
    return begins;
  }

  /** Ends the step that `aim` began. */
  protected finishRamp(): void {
    this.delay = this.goal;
    this.gain = this.gainGoal;
  }

  protected readFrom(line: DelayLine, later: number, out: Float64Array): void {
    const n = STEP_FRAMES;
    if (this.goal === this.delay) {
      line.readFixed(this.goal + later, n, out);
      return;
    }
    const step = (this.goal - this.delay) / n;
    for (let i = 0; i < n; i += 1) this.delays[i] = this.delay + later + step * (i + 1);
    line.readMoving(this.delays, n, out);
  }
}

/** An ear for reflections: the head's shadow is a high shelf with zero phase. */
export class WallEar extends EarPath {
  private readonly shadow = new MemoizedUnary(shadowGain);
  private high = 1;
  private readonly whole = new Float64Array(STEP_FRAMES);
  private readonly lows = new Float64Array(STEP_FRAMES);

  /**
   * Adds this ear's part of a source.
   * @param lateral angle in radians, positive to the right
   * @param seconds on the way to the head
   * @param gain at the head
   */
  addTo(out: Float64Array, lines: SourceLines, lateral: number, seconds: number, gain: number, head: number): void {
    const n = STEP_FRAMES;
    const toward = this.towardOf(lateral);
    const highGoal = hearsShadow(head) ? this.shadow.at(toward) : 1;
    if (this.aim(toward, seconds, gain, head)) this.high = highGoal;
    this.readFrom(lines.whole, lines.lateness, this.whole);
    this.readFrom(lines.lows, 0, this.lows);
    const highStep = (highGoal - this.high) / n;
    const gainStep = (this.gainGoal - this.gain) / n;
    const { whole, lows } = this;
    let { high, gain: level } = this;
    for (let i = 0; i < n; i += 1) {
      high += highStep;
      level += gainStep;
      out[i] = out[i]! + (lows[i]! + high * (whole[i]! - lows[i]!)) * level;
    }
    this.high = highGoal;
    this.finishRamp();
  }
}

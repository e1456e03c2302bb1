import { STEP_FRAMES } from '../../dsp/blocks';
import type { DelayLine } from '../../dsp/delayLine';
import { makeFirs, type Fir } from '../../dsp/fir';
import { EarPath, hearsShadow } from './ear';
import { LONGEST_ECHO_SECONDS, makePinnaEchoes, ECHO_COUNT, updatePinnaEchoes } from './pinnaEchoes';
import { sphereFilters, type SphereFilters } from './sphere';

/** Delay of a head's filter in samples. */
export const headFilterLatency = (sampleRate: number): number => sphereFilters(sampleRate).half;

/** Samples before those under the filter that the latest echo reads. */
const echoReach = (sampleRate: number): number => Math.ceil(LONGEST_ECHO_SECONDS * sampleRate) + 2;

/** The filters of a number of ears, which share one memory. */
export const headFilters = (ears: number, sampleRate: number): readonly Fir[] =>
  makeFirs(ears, 2 * headFilterLatency(sampleRate) + 1, echoReach(sampleRate));

/**
 * One ear of a rigid sphere, with echoes of pinna and shoulder. Its filter has zero phase, so the interaural delay is
 * the same at every frequency.
 */
export class SphericalHeadEar extends EarPath {
  private readonly filters: SphereFilters;
  private readonly half: number;
  /** Index of the block in the row of the filter, behind the samples before it. */
  private readonly runAt: number;
  private readonly read = new Float64Array(STEP_FRAMES);
  /** Output of the last step's filter, while it is crossfaded. */
  private readonly before = new Float32Array(STEP_FRAMES);
  private taps: Float64Array;
  private nextTaps: Float64Array;
  private echo = makePinnaEchoes();
  private nextEcho = makePinnaEchoes();
  private toward = Number.NaN;
  private elevation = 0;
  private amount = 0;
  private head = -1;

  /** @param fir of headFilters, for this ear alone */
  constructor(
    side: -1 | 1,
    private readonly rate: number,
    private readonly fir: Fir,
  ) {
    super(side, rate, 0);
    this.filters = sphereFilters(rate);
    this.half = this.filters.half;
    this.runAt = fir.row.length - STEP_FRAMES;
    this.taps = new Float64Array(this.half + 1);
    this.nextTaps = new Float64Array(this.half + 1);
  }

  override clear(): void {
    super.clear();
    this.fir.row.fill(0);
    this.toward = Number.NaN;
  }

  /**
   * Adds this ear's part of a source.
   * @param lateral angle in radians, positive to the right  @param elevation round the axis through the ears, 0 ahead
   * @param seconds on the way to the head  @param gain at the head  @param amount of outer ear and shoulder, 0-1
   */
  addTo(
    out: Float64Array,
    line: DelayLine,
    lateral: number,
    elevation: number,
    seconds: number,
    gain: number,
    head: number,
    amount: number,
  ): void {
    const n = STEP_FRAMES;
    const { read, runAt, before } = this;
    const { row, out: heard } = this.fir;
    const toward = this.towardOf(lateral);
    const begins = this.aim(toward, seconds, gain, head);
    this.readFrom(line, 0, read);
    row.copyWithin(0, n);
    for (let i = 0; i < n; i += 1) row[runAt + i] = read[i]!;
    const moves = this.updateDirection(toward, elevation, head, amount);
    if (moves && !begins) {
      this.filter();
      before.set(heard);
    }
    if (moves) this.swapFilters();
    this.filter();
    // Crossfade from the filter of the last step.
    if (moves && !begins)
      for (let i = 0; i < n; i += 1) heard[i] = before[i]! + ((heard[i]! - before[i]!) * (i + 1)) / n;
    const gainStep = (this.gainGoal - this.gain) / n;
    let level = this.gain;
    for (let i = 0; i < n; i += 1) {
      level += gainStep;
      out[i] = out[i]! + heard[i]! * level;
    }
    this.finishRamp();
  }

  /** The next filter becomes the present one. */
  private swapFilters(): void {
    const { taps, echo } = this;
    this.taps = this.nextTaps;
    this.nextTaps = taps;
    this.echo = this.nextEcho;
    this.nextEcho = echo;
    const { half, fir } = this;
    for (let k = 0; k <= half; k += 1) fir.taps[half - k] = fir.taps[half + k] = this.taps[k]!;
  }

  /** Computes the next filter. @returns true when it differs from the present one */
  private updateDirection(toward: number, elevation: number, head: number, amount: number): boolean {
    const same = toward === this.toward && elevation === this.elevation && head === this.head && amount === this.amount;
    if (same) return false;
    this.toward = toward;
    this.elevation = elevation;
    this.head = head;
    this.amount = amount;
    const shadowed = hearsShadow(head);
    if (shadowed) this.filters.at(0.5 * Math.PI - toward, this.nextTaps);
    else {
      this.nextTaps.fill(0);
      this.nextTaps[0] = 1;
    }
    updatePinnaEchoes(this.nextEcho, toward, elevation, shadowed ? amount : 0, this.rate);
    return true;
  }

  /** Filters the block into the filter's output. */
  private filter(): void {
    const { half, runAt, taps, echo, fir } = this;
    const isStraight = taps[0] === 1 && taps[1] === 0;
    if (isStraight) for (let i = 0; i < STEP_FRAMES; i += 1) fir.out[i] = fir.row[runAt - half + i]!;
    else fir.run();
    for (let k = 0; k < ECHO_COUNT; k += 1) if (echo.gains[k] !== 0) this.addEcho(echo.delays[k]!, echo.gains[k]!);
  }

  /** Echoes are of the unfiltered input: pinna and shoulder reflect it before the head's shadow. */
  private addEcho(delay: number, gain: number): void {
    const { row, out } = this.fir;
    const whole = Math.floor(delay);
    const rest = delay - whole;
    const from = this.runAt - this.half - whole;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const x = row[from + i]!;
      out[i] = out[i]! + gain * (x + rest * (row[from + i - 1]! - x));
    }
  }
}

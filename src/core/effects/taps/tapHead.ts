import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import type { TapBank } from '../../dsp/tapBank';
import type { DelayLine } from '../../dsp/delayLine';
import { smoothToward, onePoleCoefficient } from '../../dsp/onePole';
import { SINC_AHEAD } from '../../dsp/sincTable';
import { KeptTuning, StateVariable } from '../../dsp/stateVariable';
import { SECOND_ORDER_Q } from '../filter/processor';

/** A tap changes its direction in sixteen steps, about 20 ms. */
const TURN_STEP = 1 / 16;
const FADE_SECONDS = 0.03;
const SWITCH_SECONDS = 0.01;
/** Fastest a gliding head moves, in samples per sample. */
const GLIDE = 0.6;
const OFF_LOW_HZ = 20;
const OFF_HIGH_HZ = 20_000;

/** One tap of a stereo delay line: its delay, level, pan and low-pass. */
export class TapHead {
  level = 0;
  private delay = 0;
  private next = -1;
  private fade = 0;
  private levelGoal = 0;
  private pan = 0;
  private panGoal = 0;
  private lowCutHz = OFF_LOW_HZ;
  private highCutHz = OFF_HIGH_HZ;
  private goal = 0;
  private reversing = 0;
  private reverse = false;
  private turned = 0;
  private cutting = false;
  private readonly filters = [
    new StateVariable(),
    new StateVariable(),
    new StateVariable(),
    new StateVariable(),
  ] as const;
  private readonly delays = new Float64Array(STEP_FRAMES);
  private readonly read = [new Float64Array(STEP_FRAMES), new Float64Array(STEP_FRAMES)] as const;
  private readonly other = new Float64Array(STEP_FRAMES);
  private readonly lows: KeptTuning;
  private readonly highs: KeptTuning;
  private readonly fadeStep: number;
  private readonly share: number;
  private readonly lines: readonly [DelayLine, DelayLine];

  constructor(
    private readonly bank: TapBank,
    private readonly sampleRate: number,
  ) {
    this.lines = bank.lines;
    this.lows = new KeptTuning(SECOND_ORDER_Q, sampleRate);
    this.highs = new KeptTuning(SECOND_ORDER_Q, sampleRate);
    this.fadeStep = STEP_FRAMES / (FADE_SECONDS * sampleRate);
    this.share = onePoleCoefficient(SWITCH_SECONDS, STEP_FRAMES, sampleRate);
  }

  jump(delay: number, level: number, pan: number): void {
    this.delay = this.goal = delay;
    this.next = -1;
    this.level = this.levelGoal = level;
    this.pan = this.panGoal = pan;
    this.reversing = 0;
    this.turned = 0;
    this.cutting = false;
    for (let i = 0; i < this.filters.length; i += 1) this.filters[i]!.clear();
  }

  aim(delay: number, level: number, pan: number, lowCutHz: number, highCutHz: number, reverse: boolean): void {
    this.goal = delay;
    this.levelGoal = smoothToward(this.level, level, this.share, 1e-6);
    this.panGoal = pan;
    this.lowCutHz = lowCutHz;
    this.highCutHz = highCutHz;
    this.reverse = reverse;
  }

  /** Adds the tap to the bank's sums while only its level changes, and to `out` otherwise. */
  addToSums(out: StereoBlock, glide: boolean): void {
    const still = this.next < 0 && this.goal === this.delay && !this.reverse && this.reversing === 0 && !this.cutting;
    if (!still || this.lowCutHz > OFF_LOW_HZ || this.highCutHz < OFF_HIGH_HZ) {
      this.addTo(out, glide);
      return;
    }
    const from = this.level;
    const before = this.pan;
    this.level = this.levelGoal;
    this.pan = this.panGoal;
    if (from === 0 && this.level === 0) return;
    const { levels } = this.bank;
    levels[0] = from * sideLevel(before, -1);
    levels[1] = this.level * sideLevel(this.pan, -1);
    levels[2] = from * sideLevel(before, 1);
    levels[3] = this.level * sideLevel(this.pan, 1);
    this.bank.add(readableDelay(this.delay));
  }

  /** Adds the tap to `out`; a pan at the middle leaves both sides at full level. */
  addTo(out: StereoBlock, glide: boolean): void {
    const from = this.level;
    const to = this.levelGoal;
    this.level = to;
    const pan = this.panGoal;
    const panBefore = this.pan;
    this.pan = pan;
    if (from === 0 && to === 0) {
      this.delay = this.goal;
      this.next = -1;
      return;
    }
    this.readAll(glide);
    this.cut();
    this.add(out.left, this.read[0], from * sideLevel(panBefore, -1), to * sideLevel(pan, -1));
    this.add(out.right, this.read[1], from * sideLevel(panBefore, 1), to * sideLevel(pan, 1));
  }

  private add(out: Float64Array, read: Float64Array, from: number, to: number): void {
    const step = (to - from) / STEP_FRAMES;
    let level = from;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      level += step;
      out[i] = out[i]! + read[i]! * level;
    }
  }

  private readAll(glide: boolean): void {
    const from = this.reversing;
    const goal = this.reverse ? 1 : 0;
    this.reversing = goal > from ? Math.min(1, from + TURN_STEP) : Math.max(0, from - TURN_STEP);
    // Forwards it fades out until half way, then backwards fades in: at the turn it is silent.
    if (from + this.reversing > 1) this.readBackwards();
    else if (glide && this.next < 0) this.readGliding();
    else this.readFading();
    if ((from > 0 && from < 1) || (this.reversing > 0 && this.reversing < 1))
      this.rampGain(Math.abs(1 - 2 * from), Math.abs(1 - 2 * this.reversing));
  }

  private rampGain(from: number, to: number): void {
    const step = (to - from) / STEP_FRAMES;
    let gain = from;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      gain += step;
      this.read[0][i] = this.read[0][i]! * gain;
      this.read[1][i] = this.read[1][i]! * gain;
    }
  }

  private readGliding(): void {
    const n = STEP_FRAMES;
    const most = GLIDE * n;
    const away = this.goal - this.delay;
    const next = away > most ? this.delay + most : away < -most ? this.delay - most : this.goal;
    if (next === this.delay) this.readSteady(this.delay, this.read[0], this.read[1]);
    else {
      const step = (next - this.delay) / n;
      for (let i = 0; i < n; i += 1) this.delays[i] = n + this.delay + step * (i + 1);
      this.lines[0].readMoving(this.delays, n, this.read[0]);
      this.lines[1].readMoving(this.delays, n, this.read[1]);
    }
    this.delay = next;
  }

  private readSteady(delay: number, left: Float64Array, right: Float64Array): void {
    const at = STEP_FRAMES + readableDelay(delay);
    this.lines[0].readFixed(at, STEP_FRAMES, left);
    this.lines[1].readFixed(at, STEP_FRAMES, right);
  }

  private readFading(): void {
    if (this.next < 0 && this.goal !== this.delay) {
      this.next = this.goal;
      this.fade = 0;
    }
    this.readSteady(this.delay, this.read[0], this.read[1]);
    if (this.next < 0) return;
    const to = Math.min(1, this.fade + this.fadeStep);
    for (let side = 0; side < 2; side += 1) {
      const read = this.read[side as 0 | 1];
      const line = this.lines[side as 0 | 1];
      line.readFixed(STEP_FRAMES + readableDelay(this.next), STEP_FRAMES, this.other);
      for (let i = 0; i < STEP_FRAMES; i += 1)
        read[i] = read[i]! + (this.other[i]! - read[i]!) * (this.fade + ((to - this.fade) * (i + 1)) / STEP_FRAMES);
    }
    this.fade = to;
    if (to >= 1) {
      this.delay = this.next;
      this.next = -1;
    }
  }

  /**
   * Slices as long as the tap's time, each reversed: the head moves away from the write position at twice its speed,
   * with fades between slices.
   */
  private readBackwards(): void {
    const n = STEP_FRAMES;
    const length = Math.max(4 * n, this.goal);
    const seam = Math.min(0.25, (0.004 * this.sampleRate) / length);
    this.delay = this.goal;
    for (let i = 0; i < n; i += 1) {
      this.turned += 1 / length;
      if (this.turned >= 1) this.turned -= 1;
      this.delays[i] = n + 2 * this.turned * length + 9;
      const edge = this.turned < seam ? this.turned / seam : this.turned > 1 - seam ? (1 - this.turned) / seam : 1;
      this.other[i] = edge;
    }
    for (let side = 0; side < 2; side += 1) {
      const read = this.read[side as 0 | 1];
      this.lines[side as 0 | 1].readMoving(this.delays, n, read);
      for (let i = 0; i < n; i += 1) read[i] = read[i]! * this.other[i]!;
    }
  }

  private cut(): void {
    const low = this.lowCutHz > OFF_LOW_HZ;
    const high = this.highCutHz < OFF_HIGH_HZ;
    if (!low && !high && !this.cutting) return;
    const lows = this.lows.at(this.lowCutHz);
    const highs = this.highs.at(this.highCutHz);
    for (let side = 0; side < 2; side += 1) {
      const read = this.read[side as 0 | 1];
      this.filters[side as 0 | 1].process(read, STEP_FRAMES, lows.g, lows.k, 1, low ? -lows.k : 0, low ? -1 : 0);
      this.filters[(2 + side) as 2 | 3].process(read, STEP_FRAMES, highs.g, highs.k, high ? 0 : 1, 0, high ? 1 : 0);
    }
    this.cutting = low || high;
  }
}

/** Delays shorter than the kernel's reach cannot be interpolated. */
const readableDelay = (delay: number): number => (delay < SINC_AHEAD + 1 ? Math.round(delay) : delay);

/** Balance: the opposite side is attenuated, the other is unchanged. */
const sideLevel = (pan: number, side: -1 | 1): number => (pan * side >= 0 ? 1 : 1 + pan * side);

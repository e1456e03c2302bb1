import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import { dbToGain } from '../../params/format';
import { type EffectProcessor } from '../define';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { gateParams } from './params';

const P = paramIndices(gateParams);
const BY_LEVEL = 1;
/** Hysteresis: it closes 6 dB below the level at which it opens. */
const LOWER = 0.5;

/** A gate driven by a pattern, counted from the beginning of the piece, or by the level of the sound. */
export class GateProcessor extends Insert implements EffectProcessor {
  /**
   * How far the gate is open, 0 to 1. By a pattern it moves from one height to the next along a smoothstep, in the same
   * time however far.
   */
  private way = 0;
  private from = 0;
  private goal = 0;
  /** Share of that time that has passed. */
  private rampProgress = 1;
  /** Position within a pair of steps, 0 to 2, and the number of the pair's first step. */
  private pair = 0;
  private step = 0;
  private depth = 1;
  private holding = 0;
  private isOpen = false;
  private readonly threshold = new MemoizedUnary(dbToGain);

  constructor(sampleRate: number) {
    super(sampleRate, 0, 0.01);
  }

  reset(seconds: number, values: Float64Array): void {
    this.locate(seconds, values);
  }

  locate(seconds: number, values: Float64Array): void {
    const steps = seconds * values[P.rate]!;
    const length = Math.round(values[P.length]!);
    const pairs = Math.floor(steps / 2 + 1e-9);
    this.pair = Math.max(0, steps - 2 * pairs);
    this.step = (2 * pairs) % length;
    this.depth = values[P.depth]!;
    this.isOpen = false;
    this.holding = 0;
    this.goal = values[P.mode] === BY_LEVEL ? 0 : this.heightNow(values, length);
    this.way = this.goal;
    this.from = this.goal;
    this.rampProgress = 1;
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    if (values[P.mode] === BY_LEVEL) this.byLevel(input, wet, values);
    else this.byPattern(input, wet, values);
    this.depth = values[P.depth]!;
  }

  /** How far the present step is open. */
  private heightNow(values: Float64Array, length: number): number {
    const turn = 1 + values[P.swing]!;
    const second = this.pair >= turn;
    const within = second ? (this.pair - turn) / (2 - turn) : this.pair / turn;
    if (within >= values[P.open]!) return 0;
    let step = second ? this.step + 1 : this.step;
    if (step >= length) step -= length;
    return values[P.step1 + step]!;
  }

  private byPattern(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    const length = Math.round(values[P.length]!);
    const turn = values[P.rate]! / this.sampleRate;
    const slew = 1000 / (values[P.smooth]! * this.sampleRate);
    const depthStep = (values[P.depth]! - this.depth) / STEP_FRAMES;
    let { way, depth, from, goal, rampProgress: gone } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const height = this.heightNow(values, length);
      if (height !== goal) {
        from = way;
        goal = height;
        gone = 0;
      }
      if (gone < 1) {
        gone += slew;
        way = gone >= 1 ? goal : from + (goal - from) * gone * gone * (3 - 2 * gone);
      }
      depth += depthStep;
      const gain = 1 - depth * (1 - way);
      wet.left[i] = input.left[i]! * gain;
      wet.right[i] = input.right[i]! * gain;
      this.pair += turn;
      if (this.pair < 2) continue;
      this.pair -= 2;
      this.step += 2;
      while (this.step >= length) this.step -= length;
    }
    this.way = way;
    this.from = from;
    this.goal = goal;
    this.rampProgress = gone;
  }

  private byLevel(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    const threshold = this.threshold.at(values[P.threshold]!);
    const opens = 1000 / (values[P.smooth]! * this.sampleRate);
    const shuts = 1000 / (values[P.release]! * this.sampleRate);
    const depthStep = (values[P.depth]! - this.depth) / STEP_FRAMES;
    let { way, depth, holding, isOpen } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const l = Math.abs(input.left[i]!);
      const r = Math.abs(input.right[i]!);
      const peak = l > r ? l : r;
      if (peak >= (isOpen ? threshold * LOWER : threshold)) {
        isOpen = true;
        holding = (values[P.hold]! * this.sampleRate) / 1000 + 0.02 * this.sampleRate;
      } else if (holding > 0) holding -= 1;
      else isOpen = false;
      way = isOpen ? Math.min(1, way + opens) : Math.max(0, way - shuts);
      depth += depthStep;
      const gain = 1 - depth * (1 - way * way * (3 - 2 * way));
      wet.left[i] = input.left[i]! * gain;
      wet.right[i] = input.right[i]! * gain;
    }
    this.way = way;
    this.holding = holding;
    this.isOpen = isOpen;
  }
}

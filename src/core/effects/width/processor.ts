import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import { smoothToward } from '../../dsp/onePole';
import { KeptTuning, StateVariable } from '../../dsp/stateVariable';
import { dbToGain } from '../../params/format';
import { type EffectProcessor } from '../define';
import { FOURTH_ORDER_Q, SECOND_ORDER_Q } from '../filter/processor';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { widthParams } from './params';

const P = paramIndices(widthParams);
const SWITCH_SECONDS = 0.008;
const OFF_HZ = 20;

/** Mid and side, each with its level; side with a low cut. */
export class WidthProcessor extends Insert implements EffectProcessor {
  private readonly steep = [new StateVariable(), new StateVariable()] as const;
  private readonly gentle = new StateVariable();
  private readonly steepAt: readonly [KeptTuning, KeptTuning];
  private readonly gentleAt: KeptTuning;
  private readonly mid = new Float64Array(STEP_FRAMES);
  private readonly side = new Float64Array(STEP_FRAMES);
  private readonly midOf = new MemoizedUnary(level);
  private readonly sideOf = new MemoizedUnary(level);
  private midNow = 1;
  private sideNow = 1;
  private leftNow = 1;
  private rightNow = 1;
  private swap = 0;
  private mono = 0;
  private steepIn = 0;
  private gentleIn = 0;

  constructor(sampleRate: number) {
    super(sampleRate, 0.3, SWITCH_SECONDS);
    this.steepAt = [new KeptTuning(FOURTH_ORDER_Q[0], sampleRate), new KeptTuning(FOURTH_ORDER_Q[1], sampleRate)];
    this.gentleAt = new KeptTuning(SECOND_ORDER_Q, sampleRate);
  }

  reset(_seconds: number, values: Float64Array): void {
    this.steep[0].clear();
    this.steep[1].clear();
    this.gentle.clear();
    this.locate(0, values);
  }

  locate(_seconds: number, values: Float64Array): void {
    this.switches(values, 1);
    this.midNow = this.midOf.at(values[P.mid]!);
    this.sideNow = this.sideOf.at(values[P.side]!) * (1 - this.mono) * (1 - 2 * this.swap);
    this.leftNow = weightOf(values[P.weight]!, -1);
    this.rightNow = weightOf(values[P.weight]!, 1);
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    const { mid, side } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      mid[i] = 0.5 * (input.left[i]! + input.right[i]!);
      side[i] = 0.5 * (input.left[i]! - input.right[i]!);
    }
    this.switches(values, this.share);
    this.thin(values);
    this.join(wet, values);
  }

  private switches(values: Float64Array, share: number): void {
    this.swap = smoothToward(this.swap, values[P.swap]!, share);
    this.mono = smoothToward(this.mono, values[P.mono]!, share);
    this.steepIn = smoothToward(this.steepIn, values[P.bassMono]! > OFF_HZ ? 1 : 0, share);
    this.gentleIn = smoothToward(this.gentleIn, values[P.sideLowCut]! > OFF_HZ ? 1 : 0, share);
  }

  /** Low cut of the side; each filter is crossfaded in and out. */
  private thin(values: Float64Array): void {
    const { side, steepIn, gentleIn } = this;
    if (steepIn > 0) {
      for (let i = 0; i < 2; i += 1) {
        const { g, k } = this.steepAt[i as 0 | 1].at(values[P.bassMono]!);
        this.steep[i as 0 | 1].process(side, STEP_FRAMES, g, k, 1, -k * steepIn, -steepIn);
      }
    }
    if (gentleIn > 0) {
      const { g, k } = this.gentleAt.at(values[P.sideLowCut]!);
      this.gentle.process(side, STEP_FRAMES, g, k, 1, -k * gentleIn, -gentleIn);
    }
  }

  private join(wet: StereoBlock, values: Float64Array): void {
    const n = STEP_FRAMES;
    const midGoal = this.midOf.at(values[P.mid]!);
    const sideGoal = this.sideOf.at(values[P.side]!) * (1 - this.mono) * (1 - 2 * this.swap);
    const leftGoal = weightOf(values[P.weight]!, -1);
    const rightGoal = weightOf(values[P.weight]!, 1);
    let { midNow, sideNow, leftNow, rightNow } = this;
    const midStep = (midGoal - midNow) / n;
    const sideStep = (sideGoal - sideNow) / n;
    const leftStep = (leftGoal - leftNow) / n;
    const rightStep = (rightGoal - rightNow) / n;
    for (let i = 0; i < n; i += 1) {
      midNow += midStep;
      sideNow += sideStep;
      leftNow += leftStep;
      rightNow += rightStep;
      const m = this.mid[i]! * midNow;
      const s = this.side[i]! * sideNow;
      wet.left[i] = (m + s) * leftNow;
      wet.right[i] = (m - s) * rightNow;
    }
    this.midNow = midGoal;
    this.sideNow = sideGoal;
    this.leftNow = leftGoal;
    this.rightNow = rightGoal;
  }
}

const level = (db: number): number => (db <= -60 ? 0 : dbToGain(db));

/**
 * Gain of a channel: the one that the balance points away from is attenuated, the other is unchanged. @param which -1
 * left, 1 right
 */
const weightOf = (weight: number, which: -1 | 1): number => (weight * which >= 0 ? 1 : 1 + weight * which);

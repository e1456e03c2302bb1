import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { sinTurns } from '../../dsp/approx';
import { smoothToward } from '../../dsp/onePole';
import { type EffectProcessor } from '../define';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { MAX_STAGES, phaserParams } from './params';
import { DENORMAL_GUARD } from '../../dsp/denormals';

const P = paramIndices(phaserParams);
const SWITCH_SECONDS = 0.01;
const LEFT_ONLY = 1;
const RIGHT_ONLY = 2;

/**
 * First-order allpass sections in a row, added to the sound itself: half of each, so a notch is complete.
 * Source: Julius O. Smith, "An Allpass Approach to Digital Phasing and Flanging" (1984).
 */
export class PhaserProcessor extends Insert implements EffectProcessor {
  private readonly states = [new Float64Array(MAX_STAGES), new Float64Array(MAX_STAGES)] as const;
  /** Share of each stage's output that is used: stages are added and removed without a step. */
  private readonly inUse = new Float64Array(MAX_STAGES);
  private readonly last = new Float64Array(2);
  private readonly pole = new Float64Array(2);
  private readonly acts = new Float64Array(2);
  private cyclePhase = 0;
  private feedback = 0;

  constructor(sampleRate: number) {
    super(sampleRate, 0.3, SWITCH_SECONDS);
  }

  reset(seconds: number, values: Float64Array): void {
    this.states[0].fill(0);
    this.states[1].fill(0);
    this.last.fill(0);
    this.locate(seconds, values);
  }

  locate(seconds: number, values: Float64Array): void {
    const turns = seconds * values[P.rate]!;
    this.cyclePhase = turns - Math.floor(turns);
    this.pole[0] = this.poleOf(0, values);
    this.pole[1] = this.poleOf(1, values);
    this.feedback = values[P.feedback]!;
    this.choose(values, 1);
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    const turns = this.cyclePhase + (values[P.rate]! * STEP_FRAMES) / this.sampleRate;
    this.cyclePhase = turns - Math.floor(turns);
    this.choose(values, this.share);
    this.sweep(input, wet, values);
    this.feedback = values[P.feedback]!;
    this.quiet.measureOutput(wet);
  }

  private choose(values: Float64Array, share: number): void {
    const stages = Math.round(values[P.stages]!);
    for (let i = 0; i < MAX_STAGES; i += 1) this.inUse[i] = smoothToward(this.inUse[i]!, i < stages ? 1 : 0, share);
    const sides = values[P.sides]!;
    this.acts[0] = smoothToward(this.acts[0]!, sides === RIGHT_ONLY ? 0 : 1, share);
    this.acts[1] = smoothToward(this.acts[1]!, sides === LEFT_ONLY ? 0 : 1, share);
  }

  private poleOf(side: number, values: Float64Array): number {
    const swing = sinTurns(this.cyclePhase - (side * values[P.phase]!) / 360);
    const hz = values[P.centre]! * Math.pow(2, values[P.depth]! * swing);
    const t = Math.tan(
      (Math.PI * (hz < 20 ? 20 : hz > 0.45 * this.sampleRate ? 0.45 * this.sampleRate : hz)) / this.sampleRate,
    );
    return (t - 1) / (t + 1);
  }

  /** Both sides in one loop: the stages of both are interleaved, so that neither waits for its own result. */
  private sweep(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    const n = STEP_FRAMES;
    const { inUse, pole, last, acts } = this;
    const [left, right] = this.states;
    const leftGoal = this.poleOf(0, values);
    const rightGoal = this.poleOf(1, values);
    const leftStep = (leftGoal - pole[0]!) / n;
    const rightStep = (rightGoal - pole[1]!) / n;
    const feedbackStep = (values[P.feedback]! - this.feedback) / n;
    const leftActs = acts[0]!;
    const rightActs = acts[1]!;
    let leftPole = pole[0]!;
    let rightPole = pole[1]!;
    let feedback = this.feedback;
    let leftLast = last[0]!;
    let rightLast = last[1]!;
    let stages = MAX_STAGES;
    while (stages > 0 && inUse[stages - 1] === 0) stages -= 1;
    for (let i = 0; i < n; i += 1) {
      leftPole += leftStep;
      rightPole += rightStep;
      feedback += feedbackStep;
      const leftDry = input.left[i]!;
      const rightDry = input.right[i]!;
      let a = leftDry + feedback * leftLast;
      let b = rightDry + feedback * rightLast;
      for (let stage = 0; stage < stages; stage += 1) {
        const y = leftPole * a + left[stage]!;
        const z = rightPole * b + right[stage]!;
        left[stage] = a - leftPole * y + DENORMAL_GUARD - DENORMAL_GUARD;
        right[stage] = b - rightPole * z + DENORMAL_GUARD - DENORMAL_GUARD;
        const share = inUse[stage]!;
        // A stage that is fully in use needs no crossfade.
        a = share === 1 ? y : a + (y - a) * share;
        b = share === 1 ? z : b + (z - b) * share;
      }
      leftLast = a;
      rightLast = b;
      wet.left[i] = leftDry + 0.5 * (a - leftDry) * leftActs;
      wet.right[i] = rightDry + 0.5 * (b - rightDry) * rightActs;
    }
    pole[0] = leftGoal;
    pole[1] = rightGoal;
    last[0] = leftLast;
    last[1] = rightLast;
  }
}

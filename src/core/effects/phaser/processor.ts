import { sinTurns } from '../../dsp/approx';
import { arrive } from '../../dsp/onePole';
import { STEP_FRAMES, type EffectProcessor, type StereoRun } from '../define';
import { Insert } from '../insert';
import { placesOf } from '../places';
import { MOST_STAGES, phaserParams } from './params';

const AT = placesOf(phaserParams);
const SWITCH_SECONDS = 0.01;
const LEFT_ONLY = 1;
const RIGHT_ONLY = 2;

/**
 * First-order allpass sections in a row, added to the sound itself: half of each, so a notch is complete.
 * Source: Julius O. Smith, "An Allpass Approach to Digital Phasing and Flanging" (1984).
 */
export class PhaserProcessor extends Insert implements EffectProcessor {
  private readonly states = [new Float64Array(MOST_STAGES), new Float64Array(MOST_STAGES)] as const;
  /** Share of each stage's output that is used: stages come and go without a step. */
  private readonly inUse = new Float64Array(MOST_STAGES);
  private readonly last = new Float64Array(2);
  private readonly pole = new Float64Array(2);
  private readonly acts = new Float64Array(2);
  private turns = 0;
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
    const turns = seconds * values[AT.rate]!;
    this.turns = turns - Math.floor(turns);
    this.pole[0] = this.poleOf(0, values);
    this.pole[1] = this.poleOf(1, values);
    this.feedback = values[AT.feedback]!;
    this.choose(values, 1);
    this.quiet.clear();
  }

  process(input: StereoRun, wet: StereoRun, values: Float64Array): void {
    this.quiet.listen(input);
    const turns = this.turns + (values[AT.rate]! * STEP_FRAMES) / this.sampleRate;
    this.turns = turns - Math.floor(turns);
    this.choose(values, this.share);
    this.side(0, input.left, wet.left, values);
    this.side(1, input.right, wet.right, values);
    this.feedback = values[AT.feedback]!;
  }

  private choose(values: Float64Array, share: number): void {
    const stages = Math.round(values[AT.stages]!);
    for (let i = 0; i < MOST_STAGES; i += 1) this.inUse[i] = arrive(this.inUse[i]!, i < stages ? 1 : 0, share);
    const sides = values[AT.sides]!;
    this.acts[0] = arrive(this.acts[0]!, sides === RIGHT_ONLY ? 0 : 1, share);
    this.acts[1] = arrive(this.acts[1]!, sides === LEFT_ONLY ? 0 : 1, share);
  }

  private poleOf(side: number, values: Float64Array): number {
    const swing = sinTurns(this.turns - (side * values[AT.phase]!) / 360);
    const hz = values[AT.centre]! * Math.pow(2, values[AT.depth]! * swing);
    const t = Math.tan((Math.PI * (hz < 20 ? 20 : hz > 0.45 * this.sampleRate ? 0.45 * this.sampleRate : hz)) / this.sampleRate);
    return (t - 1) / (t + 1);
  }

  private side(side: 0 | 1, from: Float64Array, to: Float64Array, values: Float64Array): void {
    const n = STEP_FRAMES;
    const goal = this.poleOf(side, values);
    const step = (goal - this.pole[side]!) / n;
    const state = this.states[side];
    const { inUse } = this;
    const act = this.acts[side]!;
    const feedbackStep = (values[AT.feedback]! - this.feedback) / n;
    let pole = this.pole[side]!;
    let feedback = this.feedback;
    let last = this.last[side]!;
    let stages = MOST_STAGES;
    while (stages > 0 && inUse[stages - 1] === 0) stages -= 1;
    for (let i = 0; i < n; i += 1) {
      pole += step;
      feedback += feedbackStep;
      const dry = from[i]!;
      let x = dry + feedback * last;
      for (let s = 0; s < stages; s += 1) {
        const y = pole * x + state[s]!;
        state[s] = x - pole * y + 1e-15 - 1e-15;
        x += (y - x) * inUse[s]!;
      }
      last = x;
      to[i] = dry + (0.5 * (dry + x) - dry) * act;
    }
    this.pole[side] = goal;
    this.last[side] = last;
  }
}

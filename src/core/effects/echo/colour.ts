import { STEP_FRAMES } from '../../dsp/blocks';
import { SineLfo } from '../../dsp/lfo';
import { smoothToward, onePoleCoefficient } from '../../dsp/onePole';
import { resonantPeak, tuning } from '../../dsp/stateVariable';
import type { LoopColour } from './loopTone';
import { P } from './values';

/** A changed filter kind fades in over about this long. */
const SWITCH_SECONDS = 0.01;
const LOW_PASS = 1;
const BAND_PASS = 2;
const HIGH_PASS = 3;

const blank = (): LoopColour => ({
  g: 0,
  k: 1,
  direct: 1,
  band: 0,
  low: 0,
  driveKind: 0,
  driveFrom: 1,
  driveTo: 1,
  holdSamples: 0,
  levelStep: 0,
  diffusionFrom: 0,
  diffusionTo: 0,
  difference: 0,
});

/** Computes coefficients from the parameters of filter, drive, crush and diffusion, once a step for both sides. */
export class ColourSettings {
  readonly left = blank();
  readonly right = blank();
  private readonly sway = new SineLfo();
  private readonly switchShare: number;
  private lowPass = 0;
  private bandPass = 0;
  private highPass = 0;
  private straight = 1;
  private cutoffHz = -1;
  private resonance = -1;
  private g = 0;
  private k = 1;
  /** Gain that brings the filter's peak down to 1: a resonance in a loop would make it grow. */
  private level = 1;

  constructor(private readonly sampleRate: number) {
    this.switchShare = onePoleCoefficient(SWITCH_SECONDS, STEP_FRAMES, sampleRate);
  }

  reset(seconds: number, values: Float64Array): void {
    this.sway.locate(seconds, values[P.filterRate]!);
    this.lowPass = this.bandPass = this.highPass = this.straight = 0;
    this.prepare(values, 1);
    for (const colour of [this.left, this.right]) {
      colour.driveFrom = colour.driveTo;
      colour.diffusionFrom = colour.diffusionTo;
    }
  }

  /** @param share how much of the way to a newly chosen filter kind this step goes */
  prepare(values: Float64Array, share = this.switchShare): void {
    this.updateFilter(values);
    this.weigh(values[P.filter]!, share);
    const { left, right } = this;
    left.g = this.g;
    left.k = this.k;
    const highPass = this.level * this.highPass;
    left.direct = this.straight + highPass;
    left.band = this.k * (this.bandPass - highPass);
    left.low = this.level * this.lowPass - highPass;
    left.driveKind = values[P.driveKind]!;
    left.driveFrom = left.driveTo;
    left.driveTo = values[P.drive]! === 0 ? 1 : Math.pow(10, values[P.drive]! / 20);
    left.holdSamples = values[P.rateReduction]! >= 48000 ? 0 : this.sampleRate / values[P.rateReduction]!;
    left.levelStep = values[P.bitDepth]! >= 24 ? 0 : Math.pow(2, 1 - values[P.bitDepth]!);
    left.diffusionFrom = left.diffusionTo;
    left.diffusionTo = values[P.diffusion]!;
    left.difference = 0;
    copyColour(left, right);
    right.difference = values[P.diffusionSides]!;
  }

  /** True when the chosen filter kind has faded in completely. */
  get settled(): boolean {
    const { straight, lowPass, bandPass, highPass } = this;
    return (
      (straight === 0 || straight === 1) &&
      (lowPass === 0 || lowPass === 1) &&
      (bandPass === 0 || bandPass === 1) &&
      (highPass === 0 || highPass === 1)
    );
  }

  /** Skips a step in which nothing changes. */
  skip(values: Float64Array): void {
    this.sway.skip(STEP_FRAMES, values[P.filterRate]!, this.sampleRate);
  }

  private updateFilter(values: Float64Array): void {
    const swing = this.sway.advance(STEP_FRAMES, values[P.filterRate]!, this.sampleRate);
    const depth = values[P.filterDepth]!;
    const cutoff = depth > 0 ? values[P.cutoff]! * Math.pow(2, depth * swing) : values[P.cutoff]!;
    const resonance = values[P.resonance]!;
    if (cutoff === this.cutoffHz && resonance === this.resonance) return;
    this.cutoffHz = cutoff;
    this.resonance = resonance;
    const held = cutoff < 15 ? 15 : cutoff;
    const q = 0.7071 * Math.pow(14, resonance);
    const set = tuning(held, q, this.sampleRate);
    this.g = set.g;
    this.k = set.k;
    this.level = 1 / resonantPeak(q);
  }

  private weigh(kind: number, share: number): void {
    this.straight = smoothToward(this.straight, kind === 0 ? 1 : 0, share);
    this.lowPass = smoothToward(this.lowPass, kind === LOW_PASS ? 1 : 0, share);
    this.bandPass = smoothToward(this.bandPass, kind === BAND_PASS ? 1 : 0, share);
    this.highPass = smoothToward(this.highPass, kind === HIGH_PASS ? 1 : 0, share);
  }
}

function copyColour(from: LoopColour, to: LoopColour): void {
  to.g = from.g;
  to.k = from.k;
  to.direct = from.direct;
  to.band = from.band;
  to.low = from.low;
  to.driveKind = from.driveKind;
  to.driveFrom = from.driveFrom;
  to.driveTo = from.driveTo;
  to.holdSamples = from.holdSamples;
  to.levelStep = from.levelStep;
  to.diffusionFrom = from.diffusionFrom;
  to.diffusionTo = from.diffusionTo;
}

import { STEP_FRAMES } from '../../dsp/blocks';
import { Diffuser } from '../../dsp/diffuser';
import type { KernelRoom } from '../../dsp/kernels/load';
import { DcBlock } from '../../dsp/onePole';
import { saturate } from '../../dsp/saturate';
import { StateVariable } from '../../dsp/stateVariable';

/** The loop's filter, drive, crush and diffusion at the end of a block, as coefficients. */
export interface LoopColour {
  g: number;
  k: number;
  direct: number;
  band: number;
  low: number;
  driveKind: number;
  driveFrom: number;
  driveTo: number;
  /** Number of samples for which one is held; 1 or less leaves the rate unchanged. */
  holdSamples: number;
  /** Quantisation step; 0 leaves the resolution unchanged. */
  levelStep: number;
  diffusionFrom: number;
  diffusionTo: number;
  /** Difference of this side's diffusion from the other's, 0-1. */
  difference: number;
}

/** Time for which sample-and-hold may still put out the energy that it took in. */
const BUDGET_SECONDS = 0.2;
/** Held samples are this much quieter than the samples they replace, so that the budget is seldom used up. */
const HELD_LEVEL = 0.97;

export const isStraight = (colour: LoopColour): boolean => colour.direct === 1 && colour.band === 0 && colour.low === 0;

/** The processing in one side of the loop: filter, drive, crush, diffusion. Neutral stages are skipped. */
export class LoopTone {
  readonly filter = new StateVariable();
  private readonly dcBlock: DcBlock;
  private readonly diffuser: Diffuser;
  private readonly shaped = new Float64Array(STEP_FRAMES);
  private filterIn = false;
  private driveKind = -1;
  private heldFor = 0;
  private heldValue = 0;
  /** Energy that the held samples may still put out. */
  private budget = 0;
  private readonly remembers: number;

  /** @param smear memory of a kernel for its diffusion; left out, TypeScript does the work */
  constructor(sampleRate: number, smear?: KernelRoom) {
    this.dcBlock = new DcBlock(5, sampleRate);
    this.diffuser = new Diffuser(sampleRate, smear);
    this.remembers = Math.exp(-1 / (BUDGET_SECONDS * sampleRate));
  }

  clear(): void {
    this.filter.clear();
    this.dcBlock.clear();
    this.diffuser.clear();
    this.filterIn = false;
    this.driveKind = -1;
    this.heldFor = 0;
    this.heldValue = 0;
    this.budget = 0;
  }

  /** True when only the filter is in use, and its coefficients are steady. */
  isSteady(colour: LoopColour): boolean {
    const neutral =
      colour.driveFrom <= 1 &&
      colour.driveTo <= 1 &&
      colour.holdSamples <= 1 &&
      colour.levelStep === 0 &&
      colour.diffusionFrom === 0 &&
      colour.diffusionTo === 0;
    if (!neutral) return false;
    this.driveKind = colour.driveKind;
    return isStraight(colour)
      ? !this.filterIn
      : this.filter.isSteadyAt(colour.g, colour.k, colour.direct, colour.band, colour.low);
  }

  process(io: Float64Array, n: number, colour: LoopColour): void {
    const filterOut = isStraight(colour);
    if (!filterOut || this.filterIn) {
      this.filter.process(io, n, colour.g, colour.k, colour.direct, colour.band, colour.low);
      this.filterIn = !filterOut;
    }
    if (colour.driveFrom > 1 || colour.driveTo > 1) this.drive(io, n, colour);
    else this.driveKind = colour.driveKind;
    if (colour.holdSamples > 1) this.holdRate(io, n, colour.holdSamples);
    if (colour.levelStep > 0) this.holdLevel(io, n, colour.levelStep);
    if (colour.diffusionFrom > 0 || colour.diffusionTo > 0) {
      this.diffuser.process(io, n, colour.diffusionFrom, colour.diffusionTo, colour.difference);
      if (colour.diffusionTo === 0) this.diffuser.skipBlock();
    }
  }

  /** A changed kind is crossfaded over the block, beginning with the output of the previous kind. */
  private drive(io: Float64Array, n: number, colour: LoopColour): void {
    const { shaped } = this;
    const before = this.driveKind < 0 ? colour.driveKind : this.driveKind;
    saturate(io, shaped, n, colour.driveKind, colour.driveFrom, colour.driveTo);
    if (before !== colour.driveKind) {
      saturate(io, io, n, before, colour.driveFrom, colour.driveTo);
      for (let i = 0; i < n; i += 1) io[i] = io[i]! + ((shaped[i]! - io[i]!) * (i + 1)) / n;
    } else {
      for (let i = 0; i < n; i += 1) io[i] = shaped[i]!;
    }
    this.driveKind = colour.driveKind;
    this.dcBlock.process(io, n);
  }

  /**
   * Sample-and-hold. In a loop it could hold the same peak at every pass, so that its output energy is limited to that
   * of its input.
   * Source: B. Hannaford, J.-H. Ryu, "Time-Domain Passivity Control of Haptic Interfaces" (2002).
   */
  private holdRate(io: Float64Array, n: number, samples: number): void {
    const { remembers } = this;
    let { heldFor, heldValue, budget } = this;
    for (let i = 0; i < n; i += 1) {
      const x = io[i]!;
      budget = budget * remembers + x * x + 1e-30 - 1e-30;
      heldFor -= 1;
      if (heldFor <= 0) {
        heldFor += samples;
        heldValue = HELD_LEVEL * x;
      }
      let y = heldValue;
      const energy = y * y;
      if (energy > budget) {
        y = y < 0 ? -Math.sqrt(budget) : Math.sqrt(budget);
        budget = 0;
      } else budget -= energy;
      io[i] = y;
    }
    this.heldFor = heldFor;
    this.heldValue = heldValue;
    this.budget = budget;
  }

  /** Levels fall to the next step towards silence, so a coarse loop always dies away. */
  private holdLevel(io: Float64Array, n: number, step: number): void {
    const scale = 1 / step;
    for (let i = 0; i < n; i += 1) io[i] = step * Math.trunc(io[i]! * scale);
  }
}

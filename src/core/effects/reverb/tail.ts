import { peakOf } from '../../analysis/levels';
import { STEP_FRAMES } from '../../dsp/blocks';
import { FeedbackNetwork } from '../../dsp/feedbackNetwork';
import { NETWORK_LINES } from '../../dsp/kernels/network/layout';
import { sinTurns } from '../../dsp/approx';
import { LineRotation } from './lineRotation';
import { Absorption, type Decays } from './absorption';
import { lineLengths, LONGEST_LINE_SECONDS, spaceAt } from './spaces';

/** Number of stages of a matrix that mixes all lines. */
const STAGES = 4;
const PER_FRAME = 1 / STEP_FRAMES;
/** Maximum speed at which a line changes its length, in samples per sample. */
const GLIDE = 0.25;
/** Phase difference of the modulation of neighbouring lines, in turns. */
const APART = 0.381966;
/**
 * Shorter decays end before single modes are audible: their lines rotate more slowly in the loop. The output gains keep
 * their full rate: a reflection passes them only once, so that the pitch is spread no further.
 */
const FULL_ROTATION_SECONDS = 1.5;
/**
 * While open, the held sound fades once it is louder than this: by 2 dB a second for the first above, and ever faster.
 */
const OPEN_CEILING = 0.5;
const YIELD_PER_DB = 2;
const YIELD_PER_DB_SQUARED = 2;
const MAX_YIELD_DB = 96;

/** The network of a reverb: line lengths, their modulation, attenuation, and output gains. */
export class Tail {
  private readonly network: FeedbackNetwork;
  private readonly absorption: Absorption;
  private readonly rotation: LineRotation;
  private readonly lengthsOf: readonly Float64Array[];
  private readonly lengths = new Float64Array(NETWORK_LINES);
  private readonly decays: Decays = { middle: 1, low: 1, high: 1, highFromHz: 5000 };
  private space = 2;
  private phase = 0;
  private frozenShare = 0;
  private level = 1;
  private peak = 0;
  /** Peak of both outputs in the last step, while frozen. */
  private frozenPeak = 0;
  private settled = false;
  /** Whether the held sound may have been attenuated in the step before. */
  private yielded = false;

  constructor(
    private readonly sampleRate: number,
    withKernel: boolean,
  ) {
    this.network = new FeedbackNetwork(Math.ceil(LONGEST_LINE_SECONDS * sampleRate) + 2 * STEP_FRAMES, withKernel);
    this.absorption = new Absorption(sampleRate);
    this.lengthsOf = lineLengths(sampleRate);
    this.setSigns();
    this.rotation = new LineRotation(this.network.memory, sampleRate);
  }

  /** Highest level written in the last step. */
  get loudest(): number {
    return this.peak;
  }

  /** Lines take left and right in turn; both outputs sum all of them, with signs that decorrelate the two. */
  private setSigns(): void {
    const { inGains, outGains } = this.network.memory;
    const share = 1 / Math.sqrt(NETWORK_LINES / 2);
    for (let line = 0; line < NETWORK_LINES; line += 1) {
      const turned = (line * 11) % 7 < 3 ? -1 : 1;
      inGains[line] = line & 1 ? 0 : share * turned;
      inGains[NETWORK_LINES + line] = line & 1 ? share * turned : 0;
      outGains[line] = (line & 2 ? -1 : 1) * 0.25;
      outGains[NETWORK_LINES + line] = ((line & 4) !== 0) === ((line & 1) !== 0) ? 0.25 : -0.25;
    }
  }

  clear(space: number): void {
    this.space = space;
    this.network.clear();
    const { stages } = spaceAt(space);
    this.network.stages = stages;
    // Where the matrix keeps lines apart, so does the rotation.
    this.rotation.setSpace(meanOf(this.lengthsOf[space]!) / this.sampleRate, stages === STAGES);
    this.peak = 0;
    this.frozenPeak = 0;
    this.settled = false;
  }

  locate(seconds: number, rateHz: number): void {
    const turns = seconds * rateHz;
    this.phase = turns - Math.floor(turns);
    this.rotation.locate(seconds);
    this.settled = false;
  }

  /**
   * Sets the goals of the coming step.
   * @param frozen 0-1
   * @param open true while frozen open with active input
   */
  prepare(size: number, decays: Decays, rateHz: number, depthMs: number, frozen: number, open: boolean): void {
    const changed =
      this.sizeTo(size) || !sameDecays(this.decays, decays) || frozen !== this.frozenShare || open || this.yielded;
    this.frozenShare = frozen;
    this.yielded = open;
    if (changed || !this.settled) this.aim(decays, frozen, open);
    this.move(rateHz, depthMs * (1 - frozen));
    const moving = 1 - frozen;
    this.rotation.prepare(moving, moving * Math.min(1, decays.middle / FULL_ROTATION_SECONDS));
  }

  private aim(decays: Decays, frozen: number, open: boolean): void {
    const known = this.decays;
    known.middle = decays.middle;
    known.low = decays.low;
    known.high = decays.high;
    known.highFromHz = decays.highFromHz;
    const loudest = this.peak > this.frozenPeak ? this.peak : this.frozenPeak;
    const over = open && frozen > 0 && loudest > OPEN_CEILING ? 20 * Math.log10(loudest / OPEN_CEILING) : 0;
    const yieldDb = over * (YIELD_PER_DB + YIELD_PER_DB_SQUARED * over);
    this.absorption.aim(
      this.network,
      this.lengths,
      decays,
      spaceAt(this.space).contour,
      frozen,
      yieldDb < MAX_YIELD_DB ? yieldDb : MAX_YIELD_DB,
    );
    let mean = 0;
    for (let line = 0; line < NETWORK_LINES; line += 1) mean += this.lengths[line]! / NETWORK_LINES;
    // A long decay accumulates energy in proportion to its length over the loop's; half of those decibels are
    // compensated.
    const gathered = (decays.middle * this.sampleRate) / (13.8 * mean);
    if (frozen === 0) this.level = Math.pow(1 + gathered, -0.25);
    if (!this.settled) this.network.jump();
    this.settled = true;
  }

  /** @returns true when any length changed */
  private sizeTo(size: number): boolean {
    const base = this.lengthsOf[this.space]!;
    let changed = false;
    for (let line = 0; line < NETWORK_LINES; line += 1) {
      const length = Math.max(2 * STEP_FRAMES, Math.round(base[line]! * size));
      if (length !== this.lengths[line]) changed = true;
      this.lengths[line] = length;
    }
    return changed;
  }

  /** Lengths follow size and motion by slopes that never exceed GLIDE, and end on whole samples. */
  private move(rateHz: number, depthMs: number): void {
    const { delays, slopes } = this.network.memory;
    const depth = (depthMs * this.sampleRate) / 1000;
    const phase = this.phase + (rateHz * STEP_FRAMES) / this.sampleRate;
    this.phase = phase - Math.floor(phase);
    const most = GLIDE * STEP_FRAMES;
    for (let line = 0; line < NETWORK_LINES; line += 1) {
      const goal = this.lengths[line]! + (depth === 0 ? 0 : depth * sinTurns(this.phase + line * APART));
      const now = delays[line]! === 0 ? goal : delays[line]!;
      const away = goal - now;
      const way = away > most ? most : away < -most ? -most : away;
      delays[line] = now;
      slopes[line] = way * PER_FRAME;
      if (depth === 0 && away < 1e-9 && away > -1e-9) {
        delays[line] = goal;
        slopes[line] = 0;
      }
    }
  }

  /** One step: the input is in `left` and `right`, which receive the tail. */
  processStep(left: Float64Array, right: Float64Array): void {
    const { input, output } = this.network.memory;
    // Not by set(): between arrays of different types it is many times slower than a loop.
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      input[i] = left[i]!;
      input[STEP_FRAMES + i] = right[i]!;
    }
    this.peak = this.network.step();
    this.rotation.commit();
    const { level } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      left[i] = output[i]! * level;
      right[i] = output[STEP_FRAMES + i]! * level;
    }
    // Only a held sound is attenuated.
    this.frozenPeak = this.frozenShare > 0 ? Math.max(peakOf(left), peakOf(right)) : 0;
  }
}

const meanOf = (lengths: Float64Array): number => lengths.reduce((sum, length) => sum + length, 0) / lengths.length;

const sameDecays = (a: Decays, b: Decays): boolean =>
  a.middle === b.middle && a.low === b.low && a.high === b.high && a.highFromHz === b.highFromHz;

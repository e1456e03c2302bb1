import { copyBlock, STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { smoothToward, onePoleCoefficient } from '../../dsp/onePole';
import { shapeAt } from '../../dsp/lfo';
import { saturate } from '../../dsp/saturate';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import { FilterCascade } from '../../dsp/filterCascade';
import { MatchedFilter } from '../../dsp/matchedFilter';
import { dbToGain } from '../../params/format';
import { type EffectProcessor } from '../define';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { filterParams } from './params';
import { DENORMAL_GUARD } from '../../dsp/denormals';

const P = paramIndices(filterParams);
const KINDS = 4;
/** Order of the kinds. */
const LOW = 0;
const HIGH = 1;
const BAND = 2;
const SWITCH_SECONDS = 0.01;
const TAPE = 0;
/** The envelope follower is 0 at this level and below, 1 at full scale. */
const FLOOR_DB = -48;
/** Damping of the two stages of a Butterworth filter of fourth order, and of one of second. */
export const FOURTH_ORDER_Q = [0.541196, 1.306563] as const;
export const SECOND_ORDER_Q = 0.707107;
const MAX_RESONANCE = 14;

/** A state-variable filter for each side, twice for the steeper slope. */
export class FilterProcessor extends Insert implements EffectProcessor {
  private readonly row: FilterCascade;
  private readonly driveOf = new MemoizedUnary(dbToGain);
  private readonly lift = new MemoizedUnary((resonance) => Math.pow(MAX_RESONANCE, resonance));
  private readonly design = new MatchedFilter();
  private angle = -1;
  private q = -1;
  /** A kind or slope is being crossfaded. */
  private choosing = true;
  private moving = true;
  private readonly weights = new Float64Array(KINDS);
  private steep = 0;
  private phase = 0;
  private level = 0;
  private drive = 1;

  /** @param withKernel false leaves all work to TypeScript, which tests compare */
  constructor(sampleRate: number, withKernel = true) {
    super(sampleRate, 0.5, SWITCH_SECONDS);
    this.row = new FilterCascade(2, withKernel);
  }

  reset(seconds: number, values: Float64Array): void {
    this.locate(seconds, values);
  }

  locate(seconds: number, values: Float64Array): void {
    this.row.clear();
    this.level = 0;
    this.phase = seconds * values[P.lfoRate]!;
    this.drive = this.driveOf.at(values[P.drive]!);
    this.choose(values, 1);
    this.choosing = true;
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    this.choose(values, this.share);
    const cutoff = this.cutoff(input, values);
    const drive = this.driveOf.at(values[P.drive]!);
    this.push(input.left, wet.left, drive);
    this.push(input.right, wet.right, drive);
    this.drive = drive;
    this.filter(wet, values, cutoff);
    this.quiet.measureOutput(wet);
  }

  private choose(values: Float64Array, share: number): void {
    const kind = values[P.kind]!;
    const { weights, steep } = this;
    // Once more after the crossfade has ended, so that the filter's ramps end as well.
    this.choosing = this.moving;
    this.moving = false;
    for (let i = 0; i < KINDS; i += 1) {
      const before = weights[i]!;
      weights[i] = smoothToward(before, i === kind ? 1 : 0, share);
      if (weights[i] !== before) this.moving = true;
    }
    this.steep = smoothToward(steep, values[P.slope]!, share);
    if (this.steep !== steep) this.moving = true;
    if (this.moving) this.choosing = true;
  }

  /** Cutoff at the end of the step, in Hz. */
  private cutoff(input: StereoBlock, values: Float64Array): number {
    const phase = this.phase + (values[P.lfoRate]! * STEP_FRAMES) / this.sampleRate;
    this.phase = phase - Math.floor(phase);
    const depth = values[P.lfoDepth]!;
    const follow = values[P.envelope]!;
    let octaves = depth === 0 ? 0 : depth * shapeAt(values[P.lfoShape]!, this.phase);
    if (follow !== 0) octaves += follow * this.follow(input, values);
    const hz = octaves === 0 ? values[P.cutoff]! : values[P.cutoff]! * Math.pow(2, octaves);
    return hz < 15 ? 15 : hz > 0.49 * this.sampleRate ? 0.49 * this.sampleRate : hz;
  }

  /** Level of the input from 0 (silent) to 1 (full scale), by its peaks. */
  private follow(input: StereoBlock, values: Float64Array): number {
    let peak = 0;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const l = Math.abs(input.left[i]!);
      const r = Math.abs(input.right[i]!);
      if (l > peak) peak = l;
      if (r > peak) peak = r;
    }
    const ms = peak > this.level ? values[P.attack]! : values[P.release]!;
    this.level +=
      (peak - this.level) * onePoleCoefficient(ms / 1000, STEP_FRAMES, this.sampleRate) +
      DENORMAL_GUARD -
      DENORMAL_GUARD;
    const share = 1 - (20 * Math.log10(this.level + 1e-9)) / FLOOR_DB;
    return share < 0 ? 0 : share > 1 ? 1 : share;
  }

  private push(from: Float64Array, io: Float64Array, drive: number): void {
    if (drive > 1 || this.drive > 1) saturate(from, io, STEP_FRAMES, TAPE, this.drive, drive);
    else copyBlock(from, io);
  }

  private filter(wet: StereoBlock, values: Float64Array, cutoff: number): void {
    const q = (SECOND_ORDER_Q + (FOURTH_ORDER_Q[1] - SECOND_ORDER_Q) * this.steep) * this.lift.at(values[P.resonance]!);
    const angle = (2 * Math.PI * cutoff) / this.sampleRate;
    if (angle !== this.angle || q !== this.q || this.choosing) {
      this.angle = angle;
      this.q = q;
      this.aim(0, angle, q, 1);
      this.aim(1, angle, FOURTH_ORDER_Q[0], this.steep);
    }
    this.row.process(wet);
  }

  /** @param gain of the stage; 0 for the second while the slope is gentle, and it is skipped */
  private aim(stage: 0 | 1, angle: number, q: number, share: number): void {
    const { weights, design } = this;
    let g = 0;
    let k = 0;
    let direct = 0;
    let band = 0;
    let low = 0;
    for (let kind = 0; kind < KINDS; kind += 1) {
      const weight = weights[kind]!;
      if (weight === 0) continue;
      this.make(kind, angle, q);
      g += weight * design.g;
      k += weight * design.k;
      direct += weight * design.direct;
      band += weight * design.band;
      low += weight * design.low;
    }
    this.row.aim(stage, g, k, 1 - share + share * direct, share * band, share * low);
  }

  private make(kind: number, angle: number, q: number): void {
    const { design } = this;
    if (kind === LOW) design.lowPass(angle, q);
    else if (kind === HIGH) design.highPass(angle, q);
    else if (kind === BAND) design.bandPass(angle, q);
    else design.notch(angle, q);
  }
}

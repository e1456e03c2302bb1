import { arrive, followShare } from '../../dsp/onePole';
import { shapeAt } from '../../dsp/lfo';
import { saturate } from '../../dsp/saturate';
import { FilterRow } from '../../dsp/filterRow';
import { STEP_FRAMES, stereoRun, type EffectProcessor, type StereoRun } from '../define';
import { Insert } from '../insert';
import { placesOf } from '../places';
import { filterParams } from './params';

const AT = placesOf(filterParams);
const KINDS = 4;
const SWITCH_SECONDS = 0.01;
const TAPE = 0;
/** The follower hears from this level on; full scale opens it wholly. */
const FLOOR_DB = -48;
/** Damping of the two stages of a Butterworth filter of fourth order, and of one of second. */
export const FOURTH_ORDER_Q = [0.541196, 1.306563] as const;
export const SECOND_ORDER_Q = 0.707107;
const MOST_RESONANCE = 14;

/** A state-variable filter for each side, twice for the steeper slope. */
export class FilterProcessor extends Insert implements EffectProcessor {
  private readonly stages: readonly [FilterRow, FilterRow];
  private readonly weights = new Float64Array(KINDS);
  private readonly second = stereoRun();
  private steep = 0;
  private phase = 0;
  private level = 0;
  private drive = 1;

  /** @param withKernel false leaves all work to TypeScript, which tests compare */
  constructor(sampleRate: number, withKernel = true) {
    super(sampleRate, 0.5, SWITCH_SECONDS);
    this.stages = [new FilterRow(1, withKernel), new FilterRow(1, withKernel)];
  }

  reset(seconds: number, values: Float64Array): void {
    this.stages[0].clear();
    this.stages[1].clear();
    this.level = 0;
    this.locate(seconds, values);
  }

  locate(seconds: number, values: Float64Array): void {
    this.phase = seconds * values[AT.lfoRate]!;
    this.drive = driveOf(values);
    this.choose(values, 1);
    this.quiet.clear();
  }

  process(input: StereoRun, wet: StereoRun, values: Float64Array): void {
    this.quiet.listen(input);
    this.choose(values, this.share);
    const cutoff = this.cutoff(input, values);
    const drive = driveOf(values);
    this.push(input.left, wet.left, drive);
    this.push(input.right, wet.right, drive);
    this.drive = drive;
    this.filter(wet, values, cutoff);
  }

  private choose(values: Float64Array, share: number): void {
    const kind = values[AT.kind]!;
    for (let i = 0; i < KINDS; i += 1) this.weights[i] = arrive(this.weights[i]!, i === kind ? 1 : 0, share);
    this.steep = arrive(this.steep, values[AT.slope]!, share);
  }

  /** Where the filter shall stand at the end of the step, in Hz. */
  private cutoff(input: StereoRun, values: Float64Array): number {
    const phase = this.phase + (values[AT.lfoRate]! * STEP_FRAMES) / this.sampleRate;
    this.phase = phase - Math.floor(phase);
    const depth = values[AT.lfoDepth]!;
    const follow = values[AT.envelope]!;
    let octaves = depth === 0 ? 0 : depth * shapeAt(values[AT.lfoShape]!, this.phase);
    if (follow !== 0) octaves += follow * this.follow(input, values);
    const hz = octaves === 0 ? values[AT.cutoff]! : values[AT.cutoff]! * Math.pow(2, octaves);
    return hz < 15 ? 15 : hz > 0.49 * this.sampleRate ? 0.49 * this.sampleRate : hz;
  }

  /** Level of the input from 0 (silent) to 1 (full scale), by its peaks. */
  private follow(input: StereoRun, values: Float64Array): number {
    let peak = 0;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const l = Math.abs(input.left[i]!);
      const r = Math.abs(input.right[i]!);
      if (l > peak) peak = l;
      if (r > peak) peak = r;
    }
    const ms = peak > this.level ? values[AT.attack]! : values[AT.release]!;
    this.level += (peak - this.level) * followShare(ms / 1000, STEP_FRAMES, this.sampleRate) + 1e-15 - 1e-15;
    const share = 1 - (20 * Math.log10(this.level + 1e-9)) / FLOOR_DB;
    return share < 0 ? 0 : share > 1 ? 1 : share;
  }

  private push(from: Float64Array, io: Float64Array, drive: number): void {
    if (drive > 1 || this.drive > 1) saturate(from, io, STEP_FRAMES, TAPE, this.drive, drive);
    else io.set(from);
  }

  private filter(wet: StereoRun, values: Float64Array, cutoff: number): void {
    const lift = Math.pow(MOST_RESONANCE, values[AT.resonance]!);
    const g = Math.tan((Math.PI * cutoff) / this.sampleRate);
    const { second, steep } = this;
    const q = SECOND_ORDER_Q + (FOURTH_ORDER_Q[1] - SECOND_ORDER_Q) * steep;
    this.stage(this.stages[0], wet, g, 1 / (q * lift));
    // The second stage stays at work unheard when the slope is gentle, so that a change of slope finds it in step.
    second.left.set(wet.left);
    second.right.set(wet.right);
    this.stage(this.stages[1], second, g, 1 / FOURTH_ORDER_Q[0]);
    if (steep === 0) return;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      wet.left[i] = wet.left[i]! + (second.left[i]! - wet.left[i]!) * steep;
      wet.right[i] = wet.right[i]! + (second.right[i]! - wet.right[i]!) * steep;
    }
  }

  private stage(stage: FilterRow, run: StereoRun, g: number, k: number): void {
    const { weights } = this;
    const low = weights[0]!, high = weights[1]!, band = weights[2]!, notch = weights[3]!;
    stage.aim(0, g, k, high + notch, k * (band - high - notch), low - high);
    stage.process(run);
  }
}

const driveOf = (values: Float64Array): number => (values[AT.drive] === 0 ? 1 : Math.pow(10, values[AT.drive]! / 20));

import { sinTurns } from '../../dsp/approx';
import { FilterRow } from '../../dsp/filterRow';
import { saturate } from '../../dsp/saturate';
import { Kept } from '../../dsp/kept';
import { copyRun } from '../../dsp/runs';
import { dbToGain } from '../../params/format';
import { STEP_FRAMES, stereoRun, type EffectProcessor, type StereoRun } from '../define';
import { Insert } from '../insert';
import { placesOf } from '../places';
import { LEAST_DELAY, SweptLine } from '../sweptLine';
import { chorusParams, LONGEST_DELAY_MS } from './params';

const AT = placesOf(chorusParams);
const THREE = 1;
const VIBRATO = 2;
const LINES = 3;
const TAPE = 0;
const OFF_HZ = 20;
const BUTTERWORTH_K = Math.SQRT2;
/** Longer than any of its lines. */
const MEMORY_SECONDS = 0.2;

/**
 * Copies of the sound that come later by a time that swings: `delay + depth sin`, so that each is off pitch by up to
 * 1200 log2(1 + 2 pi rate depth) cents. Source: Jon Dattorro, "Effect Design, Part 2: Delay-Line Modulation and Chorus"
 * (1997).
 */
export class ChorusProcessor extends Insert implements EffectProcessor {
  private readonly lines = [0, 1, 2].map(() => new SweptLine((LONGEST_DELAY_MS * this.sampleRate) / 1000));
  /** Where each line stands, in samples. */
  readonly standing = new Float64Array(LINES);
  private readonly lowCut = new FilterRow(1);
  private readonly middle = stereoRun().left;
  private phase = 0;
  private feedback = 0;
  private readonly driveOf = new Kept(dbToGain);
  private readonly tan = new Kept(Math.tan);
  private drive = 1;
  private vibrato = false;

  constructor(sampleRate: number) {
    super(sampleRate, MEMORY_SECONDS, 0.01);
  }

  /** Vibrato is the moving pitch alone. */
  get alone(): boolean {
    return this.vibrato;
  }

  reset(seconds: number, values: Float64Array): void {
    for (const line of this.lines) line.clear();
    this.lowCut.clear();
    this.locate(seconds, values);
  }

  locate(seconds: number, values: Float64Array): void {
    const phase = seconds * values[AT.rate]!;
    this.phase = phase - Math.floor(phase);
    for (let i = 0; i < LINES; i += 1) this.standing[i] = this.delayOf(i, values);
    this.feedback = values[AT.feedback]!;
    this.drive = this.driveOf.at(values[AT.drive]!);
    this.vibrato = values[AT.mode] === VIBRATO;
    this.quiet.clear();
  }

  process(input: StereoRun, wet: StereoRun, values: Float64Array): void {
    this.quiet.listen(input);
    this.vibrato = values[AT.mode] === VIBRATO;
    const phase = this.phase;
    const turn = (values[AT.rate]! * STEP_FRAMES) / this.sampleRate;
    if (values[AT.mode] === THREE) this.three(input, wet, values, phase, turn);
    else this.two(input, wet, values, phase, turn);
    this.phase = phase + turn - Math.floor(phase + turn);
    this.feedback = values[AT.feedback]!;
    // An offset that is driven hard stands still behind its curve, and the low cut takes it away.
    this.quiet.hear(wet);
    this.colour(wet, values);
    this.quiet.hear(wet);
  }

  private two(input: StereoRun, wet: StereoRun, values: Float64Array, phase: number, turn: number): void {
    this.run(0, input.left, values, phase, turn);
    this.run(1, input.right, values, phase, turn);
    copyRun(this.lines[0]!.out, wet.left);
    copyRun(this.lines[1]!.out, wet.right);
  }

  /** Three lines a third of a turn apart, the first left, the second right, the third shared. */
  private three(input: StereoRun, wet: StereoRun, values: Float64Array, phase: number, turn: number): void {
    const { middle } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) middle[i] = 0.5 * (input.left[i]! + input.right[i]!);
    for (let line = 0; line < LINES; line += 1) this.run(line, middle, values, phase, turn);
    const a = this.lines[0]!.out;
    const b = this.lines[1]!.out;
    const c = this.lines[2]!.out;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      wet.left[i] = Math.SQRT1_2 * (a[i]! + c[i]!);
      wet.right[i] = Math.SQRT1_2 * (b[i]! + c[i]!);
    }
  }

  private behind(line: number, values: Float64Array): number {
    return values[AT.mode] === THREE ? line / LINES : line === 1 ? values[AT.phase]! / 360 : 0;
  }

  private delayOf(line: number, values: Float64Array): number {
    return this.at(values[AT.delay]! + values[AT.depth]! * sinTurns(this.phase - this.behind(line, values)));
  }

  private at(ms: number): number {
    const samples = (ms * this.sampleRate) / 1000;
    return samples < LEAST_DELAY ? LEAST_DELAY : samples;
  }

  /** The delays go in a straight line over the step, with the sine's curve between its ends. */
  private run(line: number, input: Float64Array, values: Float64Array, phase: number, turn: number): void {
    const { delays } = this.lines[line]!;
    const behind = this.behind(line, values);
    const from = this.standing[line]!;
    const goal = this.at(values[AT.delay]! + values[AT.depth]! * sinTurns(phase + turn - behind));
    const plainFrom = this.at(values[AT.delay]! + values[AT.depth]! * sinTurns(phase - behind));
    const lag = from - plainFrom;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const share = (i + 1) / STEP_FRAMES;
      // What a hand has changed since the last step goes out over this one.
      delays[i] =
        this.at(values[AT.delay]! + values[AT.depth]! * sinTurns(phase + turn * share - behind)) + lag * (1 - share);
      if (delays[i]! < LEAST_DELAY) delays[i] = LEAST_DELAY;
    }
    this.standing[line] = goal;
    this.lines[line]!.process(input, this.feedback, values[AT.feedback]!);
  }

  private colour(wet: StereoRun, values: Float64Array): void {
    const drive = this.driveOf.at(values[AT.drive]!);
    if (drive > 1 || this.drive > 1) {
      saturate(wet.left, wet.left, STEP_FRAMES, TAPE, this.drive, drive);
      saturate(wet.right, wet.right, STEP_FRAMES, TAPE, this.drive, drive);
    }
    this.drive = drive;
    const hz = values[AT.lowCut]!;
    const cuts = hz > OFF_HZ ? Math.min(1, (hz - OFF_HZ) / 5) : 0;
    this.lowCut.aim(0, this.tan.at((Math.PI * hz) / this.sampleRate), BUTTERWORTH_K, 1, -BUTTERWORTH_K * cuts, -cuts);
    this.lowCut.process(wet);
  }
}

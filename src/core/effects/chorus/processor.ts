import { copyBlock, STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../../dsp/blocks';
import { sinTurns } from '../../dsp/approx';
import { FilterCascade } from '../../dsp/filterCascade';
import { saturate } from '../../dsp/saturate';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import { dbToGain } from '../../params/format';
import { type EffectProcessor } from '../define';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { MIN_DELAY, SweptLine } from '../sweptLine';
import { chorusParams, LONGEST_DELAY_MS } from './params';

const P = paramIndices(chorusParams);
const THREE = 1;
const VIBRATO = 2;
const LINES = 3;
const TAPE = 0;
const OFF_HZ = 20;
const BUTTERWORTH_K = Math.SQRT2;
/** Time for the tail: longer than any of its lines. */
const MEMORY_SECONDS = 0.2;

/**
 * Copies of the sound with a modulated delay `delay + depth sin`, so that each is detuned by up to 1200 log2(1 + 2 pi
 * rate depth) cents. Source: Jon Dattorro, "Effect Design, Part 2: Delay-Line Modulation and Chorus" (1997).
 */
export class ChorusProcessor extends Insert implements EffectProcessor {
  private readonly lines = [0, 1, 2].map(() => new SweptLine((LONGEST_DELAY_MS * this.sampleRate) / 1000));
  /** Delay of each line, in samples. */
  readonly standing = new Float64Array(LINES);
  private readonly lowCut = new FilterCascade(1);
  private readonly middle = makeStereoBlock().left;
  private phase = 0;
  private feedback = 0;
  private readonly driveOf = new MemoizedUnary(dbToGain);
  private readonly tan = new MemoizedUnary(Math.tan);
  private drive = 1;
  private vibrato = false;

  constructor(sampleRate: number) {
    super(sampleRate, MEMORY_SECONDS, 0.01);
  }

  /** Vibrato is the moving pitch alone. */
  get suppressesDry(): boolean {
    return this.vibrato;
  }

  reset(seconds: number, values: Float64Array): void {
    for (const line of this.lines) line.clear();
    this.lowCut.clear();
    this.locate(seconds, values);
  }

  locate(seconds: number, values: Float64Array): void {
    const phase = seconds * values[P.rate]!;
    this.phase = phase - Math.floor(phase);
    for (let i = 0; i < LINES; i += 1) this.standing[i] = this.delayOf(i, values);
    this.feedback = values[P.feedback]!;
    this.drive = this.driveOf.at(values[P.drive]!);
    this.vibrato = values[P.mode] === VIBRATO;
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    this.vibrato = values[P.mode] === VIBRATO;
    const phase = this.phase;
    const turn = (values[P.rate]! * STEP_FRAMES) / this.sampleRate;
    if (values[P.mode] === THREE) this.three(input, wet, values, phase, turn);
    else this.two(input, wet, values, phase, turn);
    this.phase = phase + turn - Math.floor(phase + turn);
    this.feedback = values[P.feedback]!;
    // A driven offset becomes DC behind its curve, which the low cut removes.
    this.quiet.measureOutput(wet);
    this.colour(wet, values);
    this.quiet.measureOutput(wet);
  }

  private two(input: StereoBlock, wet: StereoBlock, values: Float64Array, phase: number, turn: number): void {
    this.run(0, input.left, values, phase, turn);
    this.run(1, input.right, values, phase, turn);
    copyBlock(this.lines[0]!.out, wet.left);
    copyBlock(this.lines[1]!.out, wet.right);
  }

  /** Three lines a third of a cycle apart, the first left, the second right, the third shared. */
  private three(input: StereoBlock, wet: StereoBlock, values: Float64Array, phase: number, turn: number): void {
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
    return values[P.mode] === THREE ? line / LINES : line === 1 ? values[P.phase]! / 360 : 0;
  }

  private delayOf(line: number, values: Float64Array): number {
    return this.at(values[P.delay]! + values[P.depth]! * sinTurns(this.phase - this.behind(line, values)));
  }

  private at(ms: number): number {
    const samples = (ms * this.sampleRate) / 1000;
    return samples < MIN_DELAY ? MIN_DELAY : samples;
  }

  /** The delays are ramped linearly over the step, corrected by the sine's curve between its ends. */
  private run(line: number, input: Float64Array, values: Float64Array, phase: number, turn: number): void {
    const { delays } = this.lines[line]!;
    const behind = this.behind(line, values);
    const from = this.standing[line]!;
    const goal = this.at(values[P.delay]! + values[P.depth]! * sinTurns(phase + turn - behind));
    const plainFrom = this.at(values[P.delay]! + values[P.depth]! * sinTurns(phase - behind));
    const lag = from - plainFrom;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const share = (i + 1) / STEP_FRAMES;
      // A parameter that changed since the last step is ramped over this one.
      delays[i] =
        this.at(values[P.delay]! + values[P.depth]! * sinTurns(phase + turn * share - behind)) + lag * (1 - share);
      if (delays[i]! < MIN_DELAY) delays[i] = MIN_DELAY;
    }
    this.standing[line] = goal;
    this.lines[line]!.process(input, this.feedback, values[P.feedback]!);
  }

  private colour(wet: StereoBlock, values: Float64Array): void {
    const drive = this.driveOf.at(values[P.drive]!);
    if (drive > 1 || this.drive > 1) {
      saturate(wet.left, wet.left, STEP_FRAMES, TAPE, this.drive, drive);
      saturate(wet.right, wet.right, STEP_FRAMES, TAPE, this.drive, drive);
    }
    this.drive = drive;
    const hz = values[P.lowCut]!;
    const cuts = hz > OFF_HZ ? Math.min(1, (hz - OFF_HZ) / 5) : 0;
    this.lowCut.aim(0, this.tan.at((Math.PI * hz) / this.sampleRate), BUTTERWORTH_K, 1, -BUTTERWORTH_K * cuts, -cuts);
    this.lowCut.process(wet);
  }
}

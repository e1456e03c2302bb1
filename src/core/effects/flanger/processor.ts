import { copyBlock, STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { sinTurns } from '../../dsp/approx';
import { smoothToward } from '../../dsp/onePole';
import { DelayLine } from '../../dsp/delayLine';
import { type EffectProcessor } from '../define';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { MIN_DELAY, SweptLine } from '../sweptLine';
import { flangerParams, MAX_DELAY_MS } from './params';

const P = paramIndices(flangerParams);
/** Delay of the direct sound, so that the copy may be ahead of it. */
const REFERENCE_MS = MAX_DELAY_MS + 1;
const LONGEST_MS = REFERENCE_MS + MAX_DELAY_MS + 1;
/** Time for the tail: longer than any of its lines. */
const MEMORY_SECONDS = 0.2;

/**
 * The sound and a copy with a modulated delay, half of each: `0.5 (x(t) +- x(t - tau))`, with notches at odd multiples
 * of 1 / (2 tau). Source: Julius O. Smith, "Physical Audio Signal Processing" (2010), chapter "Flanging".
 */
export class FlangerProcessor extends Insert implements EffectProcessor {
  private readonly copies: readonly [SweptLine, SweptLine];
  private readonly waiting: readonly [DelayLine, DelayLine];
  private readonly standing = new Float64Array(2);
  private readonly dry = new Float64Array(STEP_FRAMES);
  private readonly reference: number;
  private through = false;
  private feedback = 0;
  private turned = 0;
  private phase = 0;

  constructor(sampleRate: number) {
    super(sampleRate, MEMORY_SECONDS, 0.01);
    const samples = (LONGEST_MS * sampleRate) / 1000;
    this.copies = [new SweptLine(samples), new SweptLine(samples)];
    this.reference = Math.round((REFERENCE_MS * sampleRate) / 1000);
    this.waiting = [
      new DelayLine(this.reference + 2 * STEP_FRAMES, STEP_FRAMES),
      new DelayLine(this.reference + 2 * STEP_FRAMES, STEP_FRAMES),
    ];
  }

  get latency(): number {
    return this.through ? this.reference : 0;
  }

  reset(seconds: number, values: Float64Array): void {
    for (const line of [...this.copies, ...this.waiting]) line.clear();
    this.locate(seconds, values);
  }

  locate(seconds: number, values: Float64Array): void {
    const phase = seconds * values[P.rate]!;
    this.phase = phase - Math.floor(phase);
    this.through = values[P.throughZero]! >= 0.5;
    this.standing[0] = this.delayOf(0, values, this.phase);
    this.standing[1] = this.delayOf(1, values, this.phase);
    this.feedback = values[P.feedback]!;
    this.turned = values[P.turned]!;
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    const through = values[P.throughZero]! >= 0.5;
    if (through !== this.through) {
      this.through = through;
      this.standing[0] = this.delayOf(0, values, this.phase);
      this.standing[1] = this.delayOf(1, values, this.phase);
    }
    const phase = this.phase + (values[P.rate]! * STEP_FRAMES) / this.sampleRate;
    this.phase = phase - Math.floor(phase);
    const turned = smoothToward(this.turned, values[P.turned]!, this.share);
    this.side(0, input.left, wet.left, values, turned);
    this.side(1, input.right, wet.right, values, turned);
    this.feedback = values[P.feedback]!;
    this.turned = turned;
    this.quiet.measureOutput(wet);
  }

  /** Delay of the copy in samples: up to twice the time, or that much before and after a delayed direct sound. */
  private delayOf(side: 0 | 1, values: Float64Array, phase: number): number {
    const swung = values[P.place]! + values[P.depth]! * sinTurns(phase - (side * values[P.phase]!) / 360);
    const swing = swung > 1 ? 1 : swung < -1 ? -1 : swung;
    const samples = (values[P.delay]! * this.sampleRate) / 1000;
    const delay = this.through ? this.reference + samples * swing : samples * (1 + swing);
    return delay < MIN_DELAY ? MIN_DELAY : delay;
  }

  private side(side: 0 | 1, from: Float64Array, to: Float64Array, values: Float64Array, turned: number): void {
    const { dry } = this;
    const copy = this.copies[side];
    const goal = this.delayOf(side, values, this.phase);
    const step = (goal - this.standing[side]!) / STEP_FRAMES;
    for (let i = 0; i < STEP_FRAMES; i += 1) copy.delays[i] = this.standing[side]! + step * (i + 1);
    this.standing[side] = goal;
    copy.process(from, this.feedback, values[P.feedback]!);
    this.waiting[side].write(from, STEP_FRAMES);
    if (this.through) this.waiting[side].readFixed(STEP_FRAMES + this.reference, STEP_FRAMES, dry);
    else copyBlock(from, dry);
    let sign = 1 - 2 * this.turned;
    const signStep = (2 * (this.turned - turned)) / STEP_FRAMES;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      sign += signStep;
      to[i] = 0.5 * (dry[i]! + sign * copy.out[i]!);
    }
  }
}

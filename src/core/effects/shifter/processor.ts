import { copyBlock, STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../../dsp/blocks';
import { sinTurns } from '../../dsp/approx';
import { DcBlock } from '../../dsp/onePole';
import { Quadrature } from '../../dsp/quadrature';
import { SweptLine } from '../sweptLine';
import { type EffectProcessor } from '../define';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { shifterParams } from './params';

const P = paramIndices(shifterParams);
const LONGEST_SECONDS = 0.5;
const DC_HZ = 5;
/** Time for the tail: longer than its line and than the Hilbert filter rings. */
const MEMORY_SECONDS = 0.7;

/**
 * Frequency shifter: the sound and its Hilbert transform, each times an oscillator, subtracted or added.
 * Source: Harald Bode and Robert A. Moog, "A High-Accuracy Frequency Shifter for Professional Audio Applications"
 * (1972).
 */
export class ShifterProcessor extends Insert implements EffectProcessor {
  private readonly pairs = [new Quadrature(STEP_FRAMES), new Quadrature(STEP_FRAMES)] as const;
  private readonly loops: readonly [SweptLine, SweptLine];
  /** A tone that is shifted to 0 Hz becomes DC, which would add up in the loop. */
  private readonly dcBlocks: readonly [DcBlock, DcBlock];
  private readonly back = makeStereoBlock();
  private readonly into = makeStereoBlock();
  private readonly phase = new Float64Array(2);
  private readonly hz = new Float64Array(2);
  private blend = 1;
  private feedback = 0;
  private delay = 0;

  constructor(sampleRate: number) {
    super(sampleRate, MEMORY_SECONDS, 0.01);
    this.dcBlocks = [new DcBlock(DC_HZ, sampleRate), new DcBlock(DC_HZ, sampleRate)];
    this.loops = [new SweptLine(LONGEST_SECONDS * sampleRate), new SweptLine(LONGEST_SECONDS * sampleRate)];
  }

  reset(seconds: number, values: Float64Array): void {
    for (const part of [...this.pairs, ...this.loops, ...this.dcBlocks]) part.clear();
    this.back.left.fill(0);
    this.back.right.fill(0);
    this.locate(seconds, values);
  }

  locate(seconds: number, values: Float64Array): void {
    for (let side = 0; side < 2; side += 1) {
      this.hz[side] = hzOf(side, values);
      const turns = seconds * this.hz[side]!;
      this.phase[side] = turns - Math.floor(turns);
    }
    this.blend = values[P.blend]!;
    this.feedback = values[P.feedback]!;
    this.delay = this.delayOf(values);
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    const delay = this.delayOf(values);
    this.side(0, input.left, wet.left, values, delay);
    this.side(1, input.right, wet.right, values, delay);
    this.blend = values[P.blend]!;
    this.feedback = values[P.feedback]!;
    this.delay = delay;
    this.quiet.measureOutput(wet);
  }

  /** The feedback is already delayed by a step. */
  private delayOf(values: Float64Array): number {
    return Math.max(STEP_FRAMES + 8, (values[P.delay]! * this.sampleRate) / 1000) - STEP_FRAMES;
  }

  private side(side: 0 | 1, from: Float64Array, to: Float64Array, values: Float64Array, delay: number): void {
    const n = STEP_FRAMES;
    const pair = this.pairs[side];
    const into = side === 0 ? this.into.left : this.into.right;
    const back = side === 0 ? this.back.left : this.back.right;
    const feedbackStep = (values[P.feedback]! - this.feedback) / n;
    let feedback = this.feedback;
    for (let i = 0; i < n; i += 1) {
      feedback += feedbackStep;
      into[i] = from[i]! + feedback * back[i]!;
    }
    pair.process(into, n);
    const goal = hzOf(side, values);
    const hzStep = (goal - this.hz[side]!) / n;
    const blendStep = (values[P.blend]! - this.blend) / n;
    let hz = this.hz[side]!;
    let blend = this.blend;
    let phase = this.phase[side]!;
    for (let i = 0; i < n; i += 1) {
      hz += hzStep;
      blend += blendStep;
      phase += hz / this.sampleRate;
      to[i] = pair.inPhase[i]! * sinTurns(phase + 0.25) - blend * pair.behind[i]! * sinTurns(phase);
    }
    this.phase[side] = phase - Math.floor(phase);
    this.hz[side] = goal;
    const loop = this.loops[side];
    const delayStep = (delay - this.delay) / n;
    for (let i = 0; i < n; i += 1) loop.delays[i] = this.delay + delayStep * (i + 1);
    loop.process(to, 0, 0);
    copyBlock(loop.out, back);
    this.dcBlocks[side].process(back, n);
  }
}

const hzOf = (side: number, values: Float64Array): number => values[P.shift]! + side * values[P.apart]!;

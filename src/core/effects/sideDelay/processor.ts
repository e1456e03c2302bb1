import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { DelayLine } from '../../dsp/delayLine';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import { smoothToward } from '../../dsp/onePole';
import { dbToGain } from '../../params/format';
import { type EffectProcessor } from '../define';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { sideDelayParams } from './params';

const P = paramIndices(sideDelayParams);
const SWITCH_SECONDS = 0.01;
const LONGEST_SECONDS = 0.06;
const GLIDE = 0.25;
/** From this many samples on the long interpolator never looks past what is written. */
const SURE_OF_KERNEL = 9;

/** Delays one side. */
export class SideDelayProcessor extends Insert implements EffectProcessor {
  private readonly lines: readonly [DelayLine, DelayLine];
  private readonly delay = new Float64Array(2);
  private readonly gain = new Float64Array([1, 1]);
  private readonly delays = new Float64Array(STEP_FRAMES);
  private readonly levelOf = new MemoizedUnary(dbToGain);
  private safe = 0;

  constructor(sampleRate: number) {
    super(sampleRate, 0.1, SWITCH_SECONDS);
    const longest = LONGEST_SECONDS * sampleRate + 2 * STEP_FRAMES;
    this.lines = [new DelayLine(longest, STEP_FRAMES), new DelayLine(longest, STEP_FRAMES)];
  }

  reset(_seconds: number, values: Float64Array): void {
    this.lines[0].clear();
    this.lines[1].clear();
    this.locate(0, values);
  }

  locate(_seconds: number, values: Float64Array): void {
    for (let side = 0; side < 2; side += 1) {
      this.delay[side] = this.samples(side, values);
      this.gain[side] = this.level(side, values);
    }
    this.safe = values[P.monoSafe]!;
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    this.side(0, input.left, wet.left, values);
    this.side(1, input.right, wet.right, values);
    this.safe = smoothToward(this.safe, values[P.monoSafe]!, this.share);
    const { safe } = this;
    if (safe === 0) return;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      // Mid is unchanged; only side is delayed.
      const shift = 0.5 * (input.left[i]! + input.right[i]! - wet.left[i]! - wet.right[i]!) * safe;
      wet.left[i] = wet.left[i]! + shift;
      wet.right[i] = wet.right[i]! + shift;
    }
  }

  private samples(side: number, values: Float64Array): number {
    return values[P.side] === side ? (values[P.time]! * this.sampleRate) / 1000 : 0;
  }

  private level(side: number, values: Float64Array): number {
    return values[P.side] === side ? this.levelOf.at(values[P.level]!) : 1;
  }

  private side(side: 0 | 1, from: Float64Array, to: Float64Array, values: Float64Array): void {
    const n = STEP_FRAMES;
    const line = this.lines[side];
    line.write(from, n);
    const now = this.delay[side]!;
    const goal = this.samples(side, values);
    const most = GLIDE * n;
    const next = goal > now + most ? now + most : goal < now - most ? now - most : goal;
    const step = (next - now) / n;
    for (let i = 0; i < n; i += 1) this.delays[i] = n + now + step * (i + 1);
    if (step === 0 && (now >= SURE_OF_KERNEL || Number.isInteger(now))) line.readFixed(n + now, n, to);
    else line.readLinear(this.delays, n, to);
    this.delay[side] = next;
    const gainGoal = smoothToward(this.gain[side]!, this.level(side, values), this.share);
    const gainStep = (gainGoal - this.gain[side]!) / n;
    let gain = this.gain[side]!;
    for (let i = 0; i < n; i += 1) {
      gain += gainStep;
      to[i] = to[i]! * gain;
    }
    this.gain[side] = gainGoal;
  }
}

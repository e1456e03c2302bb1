import { copyBlock, STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import { smoothToward, DcBlock } from '../../dsp/onePole';
import { dbToGain } from '../../params/format';
import { oppositeGain } from '../common';
import { type EffectProcessor } from '../define';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { utilityParams } from './params';

const P = paramIndices(utilityParams);
const SWITCH_SECONDS = 0.008;
const DC_HZ = 5;
/** Gains of left and right to left, then to right. */
const GAINS = 4;

/** A two-by-two matrix of gains, and an offset filter. */
export class UtilityProcessor extends Insert implements EffectProcessor {
  private readonly now = new Float64Array(GAINS);
  private readonly goal = new Float64Array(GAINS);
  private readonly blocks: readonly [DcBlock, DcBlock];
  private readonly blocked = new Float64Array(STEP_FRAMES);
  private readonly gainOf = new MemoizedUnary(dbToGain);
  private readonly leftOf = new MemoizedUnary(oppositeGain);
  private readonly rightOf = new MemoizedUnary(oppositeGain);
  private turnLeft = 1;
  private turnRight = 1;
  private mono = 0;
  private cut = 0;

  constructor(sampleRate: number) {
    super(sampleRate, 0.2, SWITCH_SECONDS);
    this.blocks = [new DcBlock(DC_HZ, sampleRate), new DcBlock(DC_HZ, sampleRate)];
  }

  reset(_seconds: number, values: Float64Array): void {
    this.blocks[0].clear();
    this.blocks[1].clear();
    this.locate(0, values);
  }

  locate(_seconds: number, values: Float64Array): void {
    this.aim(values, 1);
    this.now.set(this.goal);
    this.cut = values[P.dcCut]!;
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    this.aim(values, this.share);
    const n = STEP_FRAMES;
    const { now, goal } = this;
    let ll = now[0]!,
      rl = now[1]!,
      lr = now[2]!,
      rr = now[3]!;
    const dll = (goal[0]! - ll) / n,
      drl = (goal[1]! - rl) / n,
      dlr = (goal[2]! - lr) / n,
      drr = (goal[3]! - rr) / n;
    for (let i = 0; i < n; i += 1) {
      ll += dll;
      rl += drl;
      lr += dlr;
      rr += drr;
      const l = input.left[i]!;
      const r = input.right[i]!;
      wet.left[i] = ll * l + rl * r;
      wet.right[i] = lr * l + rr * r;
    }
    now.set(goal);
    const cut = smoothToward(this.cut, values[P.dcCut]!, this.share);
    if (cut > 0 || this.cut > 0) {
      this.block(0, wet.left, cut);
      this.block(1, wet.right, cut);
    }
    this.cut = cut;
  }

  private aim(values: Float64Array, share: number): void {
    this.turnLeft = smoothToward(this.turnLeft, values[P.turnLeft]! >= 0.5 ? -1 : 1, share);
    this.turnRight = smoothToward(this.turnRight, values[P.turnRight]! >= 0.5 ? -1 : 1, share);
    this.mono = smoothToward(this.mono, values[P.mono]!, share);
    const gain = values[P.gain]! <= -60 ? 0 : this.gainOf.at(values[P.gain]!);
    const pan = values[P.pan]!;
    const left = gain * this.leftOf.at(pan);
    const right = gain * this.rightOf.at(-pan);
    const own = 1 - 0.5 * this.mono;
    const other = 0.5 * this.mono;
    this.goal[0] = left * own * this.turnLeft;
    this.goal[1] = left * other * this.turnRight;
    this.goal[2] = right * other * this.turnLeft;
    this.goal[3] = right * own * this.turnRight;
  }

  private block(side: 0 | 1, io: Float64Array, cut: number): void {
    const { blocked } = this;
    copyBlock(io, blocked);
    this.blocks[side].process(blocked, STEP_FRAMES);
    for (let i = 0; i < STEP_FRAMES; i += 1) io[i] = io[i]! + (blocked[i]! - io[i]!) * cut;
  }
}

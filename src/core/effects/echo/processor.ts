import { STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../../dsp/blocks';
import { DelayLine, readableBlock, ringSize } from '../../dsp/delayLine';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import { onePoleCoefficient, partialCoefficient, smoothToward } from '../../dsp/onePole';
import { PeakGuard } from '../../dsp/peakGuard';
import { dbToGain } from '../../params/format';
import { type EffectProcessor } from '../define';
import { loopGain } from '../common';
import { ColourSettings } from './colour';
import { Ducker } from '../ducker';
import { EchoHead } from './head';
import { LoopMix, neutralGains } from './loopMix';
import { isStraight, LoopTone } from './loopTone';
import { EchoKernel } from './echoKernel';
import { crosses, flushed, steadyLoop, type SteadyGains, type Source } from './steadyLoop';
import { P, VALUE_COUNT } from './values';
import { WowFlutter } from './wowFlutter';
import { isAudible } from '../silenceDetector';
import { widen } from '../widen';
import { WetTone } from './wetTone';

const LONGEST_SECONDS = 8.2;
/** A loop is held under this, +3.5 dBFS: loud material passes, a runaway does not. */
const LOOP_CEILING = 1.5;
const GUARD_RELEASE_SECONDS = 0.2;
/** Below this in the line, -120 dBFS, nothing is heard. */
const SILENCE = 1e-6;
/** Routing and hold take about this long to change over. */
const SWITCH_SECONDS = 0.01;
const STEREO = 0;
const MONO = 1;
const PING_PONG = 2;

/**
 * A stereo delay with feedback through filter, drive, crush and diffusion. Reading, processing and writing go stage by
 * stage over blocks no longer than the shortest delay in use, so that even a 0.1 ms loop is exact.
 */
export class EchoProcessor implements EffectProcessor {
  private readonly leftHead: EchoHead;
  private readonly rightHead: EchoHead;
  private readonly leftTone: LoopTone;
  private readonly rightTone: LoopTone;
  private readonly colours: ColourSettings;
  private readonly waver: WowFlutter;
  private readonly mix = new LoopMix();
  private readonly goals = neutralGains();
  /** Samples into the step at which hold changes. */
  private heldAt = 0;
  /** Whether delays are whole samples, as they are while held; they change in the step after hold. */
  private whole = false;
  private readonly guard: PeakGuard;
  private readonly wetTone: WetTone;
  private readonly lows = new MemoizedUnary(dbToGain);
  private readonly middles = new MemoizedUnary(dbToGain);
  private readonly highs = new MemoizedUnary(dbToGain);
  private readonly ducker: Ducker;
  private readonly plain = makeStereoBlock();
  private readonly coloured = makeStereoBlock();
  private readonly into = makeStereoBlock();
  private readonly fromLeft: Source = { samples: new Float32Array(STEP_FRAMES), at: 0 };
  private readonly fromRight: Source = { samples: new Float32Array(STEP_FRAMES), at: 0 };
  private readonly gains: SteadyGains = { ownLeft: 1, otherLeft: 0, ownRight: 1, otherRight: 0, stays: 0, goesOver: 0 };
  private readonly switchShare: number;
  private readonly kernel: EchoKernel | null;
  private readonly before: Float64Array;
  /** True after a step in which all values were steady. */
  private resting = false;
  private width = 1;
  private quietFrames = Infinity;

  /** @param withKernel false leaves all work to TypeScript, which tests compare */
  constructor(
    private readonly sampleRate: number,
    withKernel = true,
  ) {
    const longest = Math.ceil(LONGEST_SECONDS * sampleRate);
    this.before = new Float64Array(VALUE_COUNT);
    this.kernel = withKernel ? EchoKernel.create(ringSize(longest, STEP_FRAMES), sampleRate) : null;
    this.leftHead = new EchoHead(sampleRate, 0, longest, this.kernel, this.kernel?.ringLeft);
    this.rightHead = new EchoHead(sampleRate, 1, longest, this.kernel, this.kernel?.ringRight);
    this.leftTone = new LoopTone(sampleRate, this.kernel?.smears[0]);
    this.rightTone = new LoopTone(sampleRate, this.kernel?.smears[1]);
    this.colours = new ColourSettings(sampleRate);
    this.waver = new WowFlutter(sampleRate);
    this.guard = new PeakGuard(LOOP_CEILING, GUARD_RELEASE_SECONDS, sampleRate);
    this.wetTone = new WetTone(sampleRate);
    this.ducker = new Ducker(sampleRate);
    this.switchShare = onePoleCoefficient(SWITCH_SECONDS, STEP_FRAMES, sampleRate);
  }

  get silent(): boolean {
    return this.quietFrames > LONGEST_SECONDS * this.sampleRate;
  }

  setSwitchOffset(frames: number): void {
    this.heldAt = frames;
  }

  takeGuardGain(): number {
    return this.guard.takeLowest();
  }

  reset(seconds: number, values: Float64Array): void {
    this.leftHead.line.clear();
    this.rightHead.line.clear();
    this.locate(seconds, values);
  }

  locate(seconds: number, values: Float64Array): void {
    this.whole = values[P.hold]! >= 0.5;
    this.leftHead.jump(this.delayLeft(values));
    this.rightHead.jump(this.delayRight(values));
    this.leftTone.clear();
    this.rightTone.clear();
    this.colours.reset(seconds, values);
    this.waver.locate(
      seconds,
      values[P.wowRate]!,
      values[P.wowDepth]!,
      values[P.flutterRate]!,
      values[P.flutterDepth]!,
    );
    this.aim(values, 1);
    this.mix.jump(this.goals);
    this.guard.clear();
    this.wetTone.clear(values[P.sideOffset]!);
    this.ducker.clear();
    this.width = values[P.width]!;
    this.resting = false;
    this.quietFrames = Infinity;
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    const n = STEP_FRAMES;
    const peak =
      this.resting && this.sameAsBefore(values) && this.hasRoom()
        ? this.processUnchanged(input, wet, values)
        : this.processChanged(input, wet, values);
    this.wetTone.offset(wet, n, values[P.sideOffset]!);
    this.wetTone.equalise(
      wet,
      n,
      this.lows.at(values[P.eqLow]!),
      this.middles.at(values[P.eqMid]!),
      this.highs.at(values[P.eqHigh]!),
    );
    widen(wet, n, this.width, values[P.width]!);
    this.width = values[P.width]!;
    this.quietFrames = peak > SILENCE || isAudible(wet) ? 0 : this.quietFrames + n;
    this.ducker.process(input, wet, values[P.duck]!, values[P.duckThreshold]!, values[P.duckRelease]!);
  }

  private sameAsBefore(values: Float64Array): boolean {
    const { before } = this;
    for (let i = 0; i < before.length; i += 1) if (before[i] !== values[i]) return false;
    return true;
  }

  private hasRoom(): boolean {
    return this.leftHead.line.hasRoom(STEP_FRAMES) && this.rightHead.line.hasRoom(STEP_FRAMES);
  }

  /** All values are as in the step before: only the sound is computed. */
  private processUnchanged(input: StereoBlock, wet: StereoBlock, values: Float64Array): number {
    this.waver.skip(values[P.wowRate]!, values[P.flutterRate]!);
    this.colours.skip(values);
    return this.processSteady(input, wet);
  }

  private processChanged(input: StereoBlock, wet: StereoBlock, values: Float64Array): number {
    if (this.heldAt === 0) this.whole = values[P.hold]! >= 0.5;
    const goalLeft = this.delayLeft(values);
    const goalRight = this.delayRight(values);
    const shortest = Math.min(this.leftHead.shortest(goalLeft), this.rightHead.shortest(goalRight));
    this.waver.prepare(
      values[P.wowRate]!,
      values[P.wowDepth]!,
      values[P.flutterRate]!,
      values[P.flutterDepth]!,
      shortest,
    );
    this.colours.prepare(values);
    this.aim(values, this.switchShare);
    this.before.set(values);
    const steady = this.isSteady(goalLeft, goalRight, shortest);
    this.resting = steady && values[P.filterDepth] === 0 && this.colours.settled;
    if (steady) {
      this.mix.steadyGains(this.gains);
      this.kernel?.set(this.colours.left, this.gains);
    }
    return steady && this.hasRoom()
      ? this.processSteady(input, wet)
      : this.turnMoving(input, wet, goalLeft, goalRight, shortest, values[P.change]! < 0.5);
  }

  /** True when all values are steady and only the filter is in use: the usual state, which has a faster path. */
  private isSteady(goalLeft: number, goalRight: number, shortest: number): boolean {
    return (
      !this.waver.moving &&
      readableBlock(shortest, STEP_FRAMES) === STEP_FRAMES &&
      this.leftHead.isSteadyAt(goalLeft) &&
      this.rightHead.isSteadyAt(goalRight) &&
      this.mix.isSteadyAt(this.goals) &&
      this.leftTone.isSteady(this.colours.left) &&
      this.rightTone.isSteady(this.colours.right)
    );
  }

  private processSteady(input: StereoBlock, wet: StereoBlock): number {
    const lineLeft = this.leftHead.line;
    const lineRight = this.rightHead.line;
    const written =
      this.processByKernel(input, wet, lineLeft, lineRight) ?? this.processReference(input, wet, lineLeft, lineRight);
    const peak = flushed(written, lineLeft, lineRight);
    if (this.guard.passes(peak)) {
      lineLeft.advance(STEP_FRAMES);
      lineRight.advance(STEP_FRAMES);
    } else this.limitWritten(lineLeft, lineRight);
    return peak;
  }

  /** Null when there is no kernel, or a ring wraps within the step. */
  private processByKernel(
    input: StereoBlock,
    wet: StereoBlock,
    lineLeft: DelayLine,
    lineRight: DelayLine,
  ): number | null {
    const { kernel, leftHead, rightHead, gains } = this;
    if (!kernel) return null;
    const fractionLeft = DelayLine.fractionAt(leftHead.standing);
    const fractionRight = DelayLine.fractionAt(rightHead.standing);
    const between = fractionLeft !== 0 || fractionRight !== 0;
    const readLeft = between
      ? lineLeft.windowAt(leftHead.standing, STEP_FRAMES)
      : lineLeft.contiguousAt(leftHead.standing, STEP_FRAMES);
    const readRight = between
      ? lineRight.windowAt(rightHead.standing, STEP_FRAMES)
      : lineRight.contiguousAt(rightHead.standing, STEP_FRAMES);
    if (readLeft < 0 || readRight < 0) return null;
    if (between) {
      kernel.aim(0, fractionLeft);
      kernel.aim(1, fractionRight);
    }
    const filtered = !isStraight(this.colours.left);
    return kernel.step(
      input,
      wet,
      this.leftTone.filter,
      this.rightTone.filter,
      readLeft,
      readRight,
      lineLeft.place,
      lineRight.place,
      between,
      filtered,
      crosses(gains),
    );
  }

  private processReference(input: StereoBlock, wet: StereoBlock, lineLeft: DelayLine, lineRight: DelayLine): number {
    const { leftHead, rightHead, fromLeft, fromRight, gains } = this;
    const colour = this.colours.left;
    leftHead.readSteady(fromLeft);
    rightHead.readSteady(fromRight);
    return steadyLoop(
      fromLeft,
      fromRight,
      this.leftTone.filter,
      this.rightTone.filter,
      colour,
      !isStraight(colour),
      gains,
      input,
      wet,
      lineLeft,
      lineRight,
    );
  }

  /** Limits the block that a steady loop has just written to the guard's ceiling; nothing has read it yet. */
  private limitWritten(lineLeft: DelayLine, lineRight: DelayLine): void {
    const { into } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      into.left[i] = lineLeft.ring[lineLeft.place + i]!;
      into.right[i] = lineRight.ring[lineRight.place + i]!;
    }
    this.guard.process(into.left, into.right, STEP_FRAMES);
    lineLeft.write(into.left, STEP_FRAMES);
    lineRight.write(into.right, STEP_FRAMES);
  }

  private turnMoving(
    input: StereoBlock,
    wet: StereoBlock,
    goalLeft: number,
    goalRight: number,
    shortest: number,
    glide: boolean,
  ): number {
    const n = STEP_FRAMES;
    this.mix.begin(this.goals, n, this.heldAt);
    let peak = 0;
    let done = 0;
    while (done < n) {
      const run = readableBlock(shortest - this.waver.maxDeviation, n - done);
      const risen = this.processLoopBlock(input, wet, done, run, goalLeft, goalRight, glide);
      if (risen > peak) peak = risen;
      done += run;
    }
    this.mix.end(this.goals);
    return peak;
  }

  /** One block through the loop; returns the highest level written to the lines. */
  private processLoopBlock(
    input: StereoBlock,
    wet: StereoBlock,
    from: number,
    n: number,
    goalLeft: number,
    goalRight: number,
    glide: boolean,
  ): number {
    const { coloured, into, waver } = this;
    waver.take(from, n);
    this.leftHead.read(goalLeft, glide, waver.offsets, waver.moving, n, coloured.left);
    this.rightHead.read(goalRight, glide, waver.offsets, waver.moving, n, coloured.right);
    // Only a held loop needs the repeats before filter, drive, crush and diffusion.
    const plain = this.mix.holds ? this.keptPlain(n) : coloured;
    this.leftTone.process(coloured.left, n, this.colours.left);
    this.rightTone.process(coloured.right, n, this.colours.right);
    this.mix.mix(input, from, n, plain, coloured, into);
    const peak = this.show(wet, from, n);
    if (!this.guard.passes(peak)) this.guard.process(into.left, into.right, n);
    this.leftHead.line.write(into.left, n);
    this.rightHead.line.write(into.right, n);
    return peak;
  }

  private keptPlain(n: number): StereoBlock {
    const { plain, coloured } = this;
    for (let i = 0; i < n; i += 1) {
      plain.left[i] = coloured.left[i]!;
      plain.right[i] = coloured.right[i]!;
    }
    return plain;
  }

  /** Copies the repeats of a block to the output; returns the highest level that is to be written to the lines. */
  private show(wet: StereoBlock, from: number, n: number): number {
    const { coloured, into } = this;
    let peak = 0;
    for (let i = 0; i < n; i += 1) {
      wet.left[from + i] = coloured.left[i]!;
      wet.right[from + i] = coloured.right[i]!;
      const l = Math.abs(into.left[i]!);
      const r = Math.abs(into.right[i]!);
      if (l > peak) peak = l;
      if (r > peak) peak = r;
    }
    return peak;
  }

  /** Sets the loop's gains for the end of the step; switches are smoothed. */
  private aim(values: Float64Array, share: number): void {
    const { goals } = this;
    const routing = values[P.routing]!;
    const pingPong = routing === PING_PONG;
    const rightFirst = values[P.firstSide]! >= 0.5;
    goals.input = values[P.input]!;
    goals.feedback = loopGain(values[P.feedback]!);
    const holdShare = share === 1 ? 1 : partialCoefficient(share, 1 - this.heldAt / STEP_FRAMES);
    goals.hold = smoothToward(goals.hold, values[P.hold]! >= 0.5 ? 1 : 0, holdShare);
    goals.cross = smoothToward(goals.cross, pingPong ? 1 : routing === MONO ? 0 : values[P.crossFeed]!, share);
    goals.own = smoothToward(goals.own, routing === STEREO ? 1 : 0.5, share);
    goals.other = smoothToward(goals.other, routing === STEREO ? 0 : 0.5, share);
    goals.left = smoothToward(goals.left, pingPong && rightFirst ? 0 : 1, share);
    goals.right = smoothToward(goals.right, pingPong && !rightFirst ? 0 : 1, share);
  }

  private delayLeft(values: Float64Array): number {
    return this.samples(values[P.timeL]!);
  }

  private delayRight(values: Float64Array): number {
    const own = values[P.linked]! < 0.5 && values[P.routing] !== MONO;
    return this.samples(own ? values[P.timeR]! : values[P.timeL]!);
  }

  /** A held loop has whole-sample delays, so that it loses nothing however often it recirculates. */
  private samples(ms: number): number {
    const exact = (ms * this.sampleRate) / 1000;
    const delay = exact < 4 ? 4 : exact;
    return this.whole ? Math.round(delay) : delay;
  }
}

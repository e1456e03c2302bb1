import { clearBlock, STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../../dsp/blocks';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import { onePoleCoefficient } from '../../dsp/onePole';
import { LatencyCompensator } from '../latencyCompensator';
import { oppositeGain } from '../common';
import { type EffectProcessor, type StrandWork } from '../define';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { STANDING, type StepTime } from '../stepTime';
import { braidParams, LONGEST_ALIGN_MS, MAX_STRANDS, ROW_IDS } from './params';
import { isStepInBars, stepBeats, type StrandPattern } from './pattern';
import { PatternSteps } from './patternSteps';
import { applyGate, StrandGate } from './strandGate';
import { StrandInput } from './strandInput';

const P = paramIndices(braidParams);
const PER_STRAND = 4;
const FIRST = P.input1!;
const ONE = 1;
const PATTERN = 2;
const CUT = 1;
/** Where tails are cut, the input's gate opens this many times faster than the crossfade, and shuts as much slower. */
const WIDER = 4;
const SWITCH_SECONDS = 0.008;

/** An empty strand: the sound passes unchanged. */
const EMPTY: StrandWork = { process: (_run, silent) => silent, silent: true };

/** One strand of a braid: its share of the input, its delay, and its level and pan at the output. */
class StrandState {
  work: StrandWork | null = null;
  /** Taken out of the braid: its input is closed, its tail rings out. */
  leaving = false;
  /** Samples since its input was closed; Infinity while nothing has ever entered. */
  shutFor = Infinity;
  readonly input = new StrandInput();
  /** Gates of a pattern: at the input, and after the strand where tails are cut. */
  readonly gate = new StrandGate();
  readonly tailGate = new StrandGate();
  readonly block = makeStereoBlock();
  readonly leftOf = new MemoizedUnary(oppositeGain);
  readonly rightOf = new MemoizedUnary(oppositeGain);
  gainLeft = 0;
  gainRight = 0;
  readonly compensator: LatencyCompensator;

  constructor(sampleRate: number) {
    this.compensator = new LatencyCompensator(sampleRate);
  }
}

/** Strands in parallel: each processes its part of the input, and their outputs are summed. */
export class BraidProcessor extends Insert implements EffectProcessor {
  private readonly strandStates: readonly StrandState[];
  private readonly openShare = new MemoizedUnary((seconds) =>
    onePoleCoefficient(seconds, STEP_FRAMES, this.sampleRate),
  );
  /** Longest delay of a strand, in samples. */
  private readonly longest: number;
  private time: StepTime = STANDING;
  private readonly strands = new Int8Array(MAX_STRANDS);
  private readonly pattern: StrandPattern = {
    order: 0,
    steps: 1,
    roll: 0,
    strands: this.strands,
    count: 0,
    row: [],
    rowStart: P[ROW_IDS[0]!]!,
  };
  private readonly steps = new PatternSteps();
  /** The same steps, delayed by the latency of a strand. */
  private readonly lateSteps = new PatternSteps();
  private playingStrand = -1;
  /** Samples into the block at which a hand takes a strand, or lets go of it. */
  private takenAt = 0;
  /** Set until the first block after `locate`, in which gates jump to the pattern's state. */
  private starts = true;

  constructor(sampleRate: number) {
    super(sampleRate, LONGEST_ALIGN_MS / 1000 + 0.01, SWITCH_SECONDS);
    this.strandStates = Array.from({ length: MAX_STRANDS }, () => new StrandState(sampleRate));
    this.longest = (LONGEST_ALIGN_MS / 1000) * sampleRate + STEP_FRAMES;
    this.setStrands([EMPTY, EMPTY]);
  }

  /** @param works by position, from 0; null where there is no strand */
  setStrands(works: readonly (StrandWork | null)[]): void {
    this.strandStates.forEach((place, i) => {
      const work = works[i] ?? null;
      place.leaving = !work && place.work !== null;
      if (!work || work === place.work) return;
      if (!place.work) place.input.shutAtOnce();
      place.compensator.reset(0);
      place.work = work;
    });
    const { pattern } = this;
    pattern.count = 0;
    for (let i = 0; i < MAX_STRANDS; i += 1) if (works[i]) this.strands[pattern.count++] = i + 1;
  }

  setTime(time: StepTime): void {
    this.time = time;
  }

  setSwitchOffset(frames: number): void {
    this.takenAt = frames;
  }

  override get silent(): boolean {
    if (!this.quiet.silent) return false;
    for (let i = 0; i < MAX_STRANDS; i += 1) if (this.strandStates[i]!.work?.silent === false) return false;
    return true;
  }

  reset(_seconds: number, values: Float64Array): void {
    this.locate(0, values);
  }

  locate(_seconds: number, values: Float64Array): void {
    for (let i = 0; i < MAX_STRANDS; i += 1) {
      const place = this.strandStates[i]!;
      const at = FIRST + i * PER_STRAND;
      place.input.jump(values[at]!, this.goalOpen(i, values));
      place.compensator.reset(this.delayOf(values[at + 3]!));
      place.shutFor = Infinity;
      this.aim(place, values, at);
    }
    this.starts = true;
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    clearBlock(wet.left);
    clearBlock(wet.right);
    const openShare = this.openShare.at(values[P.crossfade!]! / 3000);
    const slew = 1000 / (values[P.crossfade!]! * this.sampleRate);
    const byPattern = Math.round(values[P.plays!]!) === PATTERN;
    const cuts = byPattern && values[P.tails!]! === CUT;
    if (byPattern) this.findSteps(values, this.steps, 0);
    for (let i = 0; i < MAX_STRANDS; i += 1) {
      const place = this.strandStates[i]!;
      if (!place.work) continue;
      if (this.starts) this.startGates(place, i + 1, byPattern);
      const at = FIRST + i * PER_STRAND;
      if (place.leaving && place.work.silent && place.shutFor > this.longest) {
        place.work = null;
        continue;
      }
      place.input.process(input, place.block, values[at]!, this.goalOpen(i, values), this.share, openShare);
      // With two gates in series this one opens earlier and shuts later: fading together they would leave a dip.
      place.gate.step(byPattern ? this.steps : null, i + 1, cuts ? WIDER * slew : slew, cuts ? slew / WIDER : slew);
      applyGate(place.block, place.gate);
      place.compensator.process(place.block, place.block, this.delayOf(values[at + 3]!), true);
      const shut = place.input.shut || (place.gate.shut && !place.gate.moved);
      place.shutFor = shut ? place.shutFor + STEP_FRAMES : 0;
      const silent = place.work.process(place.block, this.quiet.silent || place.shutFor > this.longest);
      this.cutTail(place, i + 1, values, cuts, slew, this.delayOf(values[at + 3]!));
      if (!silent) this.add(place, wet, values, at);
    }
    this.starts = false;
    this.playingStrand = this.findHeard(values, byPattern);
  }

  /** Ends a strand's tail with its step, where tails are cut. @param held samples by which its input is delayed */
  private cutTail(
    place: StrandState,
    position: number,
    values: Float64Array,
    cuts: boolean,
    slew: number,
    held: number,
  ): void {
    if (cuts) this.findSteps(values, this.lateSteps, held + (place.work!.latest ?? 0));
    place.tailGate.step(cuts ? this.lateSteps : null, position, slew, slew);
    applyGate(place.block, place.tailGate);
  }

  /** Where playing starts, a pattern is heard without a crossfade. */
  private startGates(place: StrandState, position: number, byPattern: boolean): void {
    place.gate.jump(!byPattern || this.steps.position[0] === position);
    place.tailGate.jump(true);
  }

  /** @param lag samples by which its lines come later */
  private findSteps(values: Float64Array, steps: PatternSteps, lag: number): void {
    const before = steps.position[steps.count - 1]!;
    const taken = Math.round(values[P.taken!]!);
    if (taken > 0) steps.hold(taken);
    else this.findPattern(values, steps, lag);
    if (this.takenAt > 0 && !this.starts) steps.keepUntil(this.takenAt, before);
  }

  private findPattern(values: Float64Array, steps: PatternSteps, lag: number): void {
    const { pattern, time } = this;
    pattern.order = Math.round(values[P.order!]!);
    pattern.steps = Math.round(values[P.steps!]!);
    pattern.roll = Math.round(values[P.roll!]!);
    pattern.row = values;
    const note = Math.round(values[P.step!]!);
    steps.find(pattern, time, stepBeats(note, time.beatsPerBar), isStepInBars(note), values[P.open!]!, lag);
  }

  get strandHeard(): number {
    return this.playingStrand;
  }

  private findHeard(values: Float64Array, byPattern: boolean): number {
    if (byPattern) return this.steps.position[this.steps.count - 1]!;
    return Math.round(values[P.plays!]!) === ONE ? Math.round(values[P.chosen!]!) : -1;
  }

  private goalOpen(place: number, values: Float64Array): number {
    if (this.strandStates[place]!.leaving) return 0;
    if (Math.round(values[P.plays!]!) !== ONE) return 1;
    return Math.round(values[P.chosen!]!) === place + 1 ? 1 : 0;
  }

  private delayOf(ms: number): number {
    return Math.round((ms / 1000) * this.sampleRate);
  }

  private aim(place: StrandState, values: Float64Array, at: number): void {
    const level = values[at + 1]!;
    const pan = values[at + 2]!;
    place.gainLeft = level * place.leftOf.at(pan);
    place.gainRight = level * place.rightOf.at(-pan);
  }

  private add(place: StrandState, wet: StereoBlock, values: Float64Array, at: number): void {
    let left = place.gainLeft;
    let right = place.gainRight;
    this.aim(place, values, at);
    const leftStep = (place.gainLeft - left) / STEP_FRAMES;
    const rightStep = (place.gainRight - right) / STEP_FRAMES;
    const { block } = place;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      left += leftStep;
      right += rightStep;
      wet.left[i] = wet.left[i]! + block.left[i]! * left;
      wet.right[i] = wet.right[i]! + block.right[i]! * right;
    }
  }
}

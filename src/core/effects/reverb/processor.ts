import { clearBlock, STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../../dsp/blocks';
import { onePoleCoefficient, partialCoefficient, smoothToward } from '../../dsp/onePole';
import { type EffectProcessor } from '../define';
import { Ducker } from '../ducker';
import { paramIndices } from '../paramIndices';
import { widen } from '../widen';
import type { Decays } from './absorption';
import { Early } from './early';
import { Entrance } from './entrance';
import { isAudible } from '../silenceDetector';
import { reverbParams } from './params';
import { Tail } from './tail';

const P = paramIndices(reverbParams);
/** Level in the network, -120 dBFS, below which it counts as silent. */
const SILENCE = 1e-6;
/** An open freeze fades under new input; this long after the last of it the held level is constant. */
const FED_SECONDS = 0.3;
/** Time in seconds that the input takes to the network: pre-delay, swell and diffusion. */
const LONGEST_WAY_SECONDS = 5;
const SWITCH_SECONDS = 0.02;
const SEALED = 1;
const OPEN = 2;

/** A reverb: input diffusion, early reflections, a feedback delay network of sixteen lines, and a ducker. */
export class ReverbProcessor implements EffectProcessor {
  private readonly entrance: Entrance;
  private readonly early: Early;
  private readonly tail: Tail;
  private readonly ducker: Ducker;
  private readonly into = makeStereoBlock();
  private readonly decays: Decays = { middle: 1, low: 1, high: 1, highFromHz: 5000 };
  private readonly share: number;
  private space = -1;
  private open = 1;
  /** Steps after the last input in which the input still counts as active. */
  private fedFor = 0;
  private frozen = 0;
  /**
   * Samples into the step at which freeze changes, and the smoothing coefficient for the rest of the step. The input
   * follows from that sample on, the network's attenuation from the next step on.
   */
  private frozenAt = 0;
  private freezeShare: number;
  private shown = 1;
  private earlyNow = 0;
  private width = 1;
  private quietFrames = Infinity;

  /** @param withKernel false leaves all work to TypeScript, which tests compare */
  constructor(
    private readonly sampleRate: number,
    withKernel = true,
  ) {
    this.entrance = new Entrance(sampleRate, withKernel);
    this.early = new Early(sampleRate, withKernel);
    this.tail = new Tail(sampleRate, withKernel);
    this.ducker = new Ducker(sampleRate);
    this.share = onePoleCoefficient(SWITCH_SECONDS, STEP_FRAMES, sampleRate);
    this.freezeShare = this.share;
  }

  get silent(): boolean {
    return this.quietFrames > LONGEST_WAY_SECONDS * this.sampleRate;
  }

  setSwitchOffset(frames: number): void {
    this.frozenAt = frames;
    this.freezeShare = partialCoefficient(this.share, 1 - frames / STEP_FRAMES);
  }

  takeGuardGain(): number {
    return 1;
  }

  reset(seconds: number, values: Float64Array): void {
    this.enter(values);
    this.locate(seconds, values);
  }

  private enter(values: Float64Array): void {
    this.space = values[P.space]!;
    this.tail.clear(this.space);
    this.entrance.clear(this.space);
    this.early.clear(values[P.size]!);
  }

  locate(seconds: number, values: Float64Array): void {
    if (this.space !== values[P.space]) this.enter(values);
    this.entrance.locate(values[P.preDelay]!, values[P.swell]!);
    this.tail.locate(seconds, values[P.modRate]!);
    this.frozen = values[P.freeze]! >= SEALED ? 1 : 0;
    this.open = this.inputGoal(values);
    this.earlyNow = values[P.early]!;
    this.width = values[P.width]!;
    this.shown = 1;
    this.ducker.clear();
    this.quietFrames = Infinity;
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.changeSpace(values);
    const { into, entrance } = this;
    this.take(input, values);
    entrance.before(into, values[P.preDelay]!, values[P.lowCut]!, values[P.highCut]!);
    clearBlock(wet.left);
    clearBlock(wet.right);
    const shownBefore = this.shown;
    this.shown = smoothToward(this.shown, values[P.space] === this.space ? 1 : 0, this.share, 1e-4);
    this.early.addTo(
      into,
      wet,
      this.space,
      values[P.size]!,
      this.earlyNow * shownBefore,
      values[P.early]! * this.shown,
    );
    this.earlyNow = values[P.early]!;
    entrance.after(into, this.space, values[P.diffusion]!, values[P.swell]!, values[P.decay]! / 1000);
    this.prepareTail(values);
    this.tail.processStep(into.left, into.right);
    this.join(wet, shownBefore);
    widen(wet, STEP_FRAMES, this.width, values[P.width]!);
    this.width = values[P.width]!;
    this.ducker.process(input, wet, values[P.duck]!, values[P.duckThreshold]!, values[P.duckRelease]!);
    this.quietFrames = this.tail.loudest > SILENCE || loud(input) ? 0 : this.quietFrames + STEP_FRAMES;
  }

  private inputGoal(values: Float64Array): number {
    return values[P.freeze] === SEALED ? 0 : values[P.input]!;
  }

  private take(input: StereoBlock, values: Float64Array): void {
    const { into, frozenAt } = this;
    const goal = smoothToward(this.open, this.inputGoal(values), this.freezeShare, 1e-4);
    const step = frozenAt < STEP_FRAMES ? (goal - this.open) / (STEP_FRAMES - frozenAt) : 0;
    let open = this.open;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      if (i >= frozenAt) open += step;
      into.left[i] = input.left[i]! * open;
      into.right[i] = input.right[i]! * open;
    }
    this.open = goal;
    this.fedFor = isAudible(into) ? (FED_SECONDS * this.sampleRate) / STEP_FRAMES : this.fedFor - 1;
  }

  private prepareTail(values: Float64Array): void {
    const { decays } = this;
    const seconds = values[P.decay]! / 1000;
    decays.middle = seconds;
    decays.low = seconds * values[P.lowDecay]!;
    decays.high = seconds * values[P.highDecay]!;
    decays.highFromHz = values[P.highFrom]!;
    const frozen = values[P.freeze]! >= SEALED ? 1 : 0;
    const before = this.frozen;
    this.frozen = smoothToward(before, frozen, this.freezeShare, 1e-4);
    const changesWithin = this.frozenAt > 0;
    this.tail.prepare(
      values[P.size]!,
      decays,
      values[P.modRate]!,
      values[P.modDepth]!,
      changesWithin ? before : this.frozen,
      !changesWithin && values[P.freeze] === OPEN && this.fedFor > 0,
    );
  }

  /** A change of space fades the old one out, then starts empty. */
  private changeSpace(values: Float64Array): void {
    const changing = values[P.space] !== this.space;
    if (changing && this.shown < 0.001) {
      this.space = values[P.space]!;
      this.tail.clear(this.space);
      this.entrance.enter(this.space);
    }
  }

  private join(wet: StereoBlock, from: number): void {
    const { into } = this;
    const step = (this.shown - from) / STEP_FRAMES;
    let shown = from;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      shown += step;
      wet.left[i] = wet.left[i]! + into.left[i]! * shown;
      wet.right[i] = wet.right[i]! + into.right[i]! * shown;
    }
  }
}

function loud({ left, right }: StereoBlock): boolean {
  for (let i = 0; i < STEP_FRAMES; i += 1)
    if (left[i]! > SILENCE || left[i]! < -SILENCE || right[i]! > SILENCE || right[i]! < -SILENCE) return true;
  return false;
}

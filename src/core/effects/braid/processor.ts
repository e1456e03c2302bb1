import { clearBlock, STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../../dsp/blocks';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import { onePoleCoefficient } from '../../dsp/onePole';
import { LatencyCompensator } from '../latencyCompensator';
import { awayGain } from '../common';
import { type EffectProcessor, type StrandWork } from '../define';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { braidParams, LONGEST_ALIGN_MS, MAX_STRANDS } from './params';
import { StrandInput } from './strandInput';

const P = paramIndices(braidParams);
const PER_STRAND = 4;
const FIRST = P.input1!;
const SWITCH_SECONDS = 0.008;

/** An empty strand: the sound passes as it came. */
const EMPTY: StrandWork = { process: (_run, silent) => silent, silent: true };

/** One place of a braid: its share of the sound, held back, and how loud and where it comes back. */
class Place {
  work: StrandWork | null = null;
  /** Taken out of the braid: nothing more enters, what rings rings out. */
  leaving = false;
  /** Samples since nothing more enters. */
  shutFor = 0;
  readonly input = new StrandInput();
  readonly run = makeStereoBlock();
  readonly leftOf = new MemoizedUnary(awayGain);
  readonly rightOf = new MemoizedUnary(awayGain);
  gainLeft = 0;
  gainRight = 0;
  readonly compensator: LatencyCompensator;

  constructor(sampleRate: number) {
    this.compensator = new LatencyCompensator(sampleRate);
  }
}

/** Strands side by side: each takes its part of the sound, treats it, and all come together again. */
export class BraidProcessor extends Insert implements EffectProcessor {
  private readonly places: readonly Place[];
  private readonly openShare = new MemoizedUnary((seconds) =>
    onePoleCoefficient(seconds, STEP_FRAMES, this.sampleRate),
  );
  /** Nothing is held back longer, in samples. */
  private readonly longest: number;

  constructor(sampleRate: number) {
    super(sampleRate, LONGEST_ALIGN_MS / 1000 + 0.01, SWITCH_SECONDS);
    this.places = Array.from({ length: MAX_STRANDS }, () => new Place(sampleRate));
    this.longest = (LONGEST_ALIGN_MS / 1000) * sampleRate + STEP_FRAMES;
    this.setStrands([EMPTY, EMPTY]);
  }

  /** @param works by place, from 0; null where no strand lies */
  setStrands(works: readonly (StrandWork | null)[]): void {
    this.places.forEach((place, i) => {
      const work = works[i] ?? null;
      place.leaving = !work && place.work !== null;
      if (!work || work === place.work) return;
      if (!place.work) place.input.shutAtOnce();
      place.compensator.reset(0);
      place.work = work;
    });
  }

  override get silent(): boolean {
    if (!this.quiet.silent) return false;
    for (let i = 0; i < MAX_STRANDS; i += 1) if (this.places[i]!.work?.silent === false) return false;
    return true;
  }

  reset(_seconds: number, values: Float64Array): void {
    this.locate(0, values);
  }

  locate(_seconds: number, values: Float64Array): void {
    for (let i = 0; i < MAX_STRANDS; i += 1) {
      const place = this.places[i]!;
      const at = FIRST + i * PER_STRAND;
      place.input.jump(values[at]!, this.goalOpen(i, values));
      place.compensator.reset(this.delayOf(values[at + 3]!));
      this.aim(place, values, at);
    }
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    clearBlock(wet.left);
    clearBlock(wet.right);
    const openShare = this.openShare.at(values[P.crossfade!]! / 3000);
    for (let i = 0; i < MAX_STRANDS; i += 1) {
      const place = this.places[i]!;
      if (!place.work) continue;
      const at = FIRST + i * PER_STRAND;
      if (place.leaving && place.work.silent && place.shutFor > this.longest) {
        place.work = null;
        continue;
      }
      place.input.process(input, place.run, values[at]!, this.goalOpen(i, values), this.share, openShare);
      place.compensator.process(place.run, place.run, this.delayOf(values[at + 3]!), true);
      place.shutFor = place.input.shut ? place.shutFor + STEP_FRAMES : 0;
      if (!place.work.process(place.run, this.quiet.silent || place.shutFor > this.longest))
        this.add(place, wet, values, at);
    }
  }

  private goalOpen(place: number, values: Float64Array): number {
    if (this.places[place]!.leaving) return 0;
    if (values[P.plays!]! < 0.5) return 1;
    return Math.round(values[P.chosen!]!) === place + 1 ? 1 : 0;
  }

  private delayOf(ms: number): number {
    return Math.round((ms / 1000) * this.sampleRate);
  }

  private aim(place: Place, values: Float64Array, at: number): void {
    const level = values[at + 1]!;
    const pan = values[at + 2]!;
    place.gainLeft = level * place.leftOf.at(pan);
    place.gainRight = level * place.rightOf.at(-pan);
  }

  private add(place: Place, wet: StereoBlock, values: Float64Array, at: number): void {
    let left = place.gainLeft;
    let right = place.gainRight;
    this.aim(place, values, at);
    const leftStep = (place.gainLeft - left) / STEP_FRAMES;
    const rightStep = (place.gainRight - right) / STEP_FRAMES;
    const { run } = place;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      left += leftStep;
      right += rightStep;
      wet.left[i] = wet.left[i]! + run.left[i]! * left;
      wet.right[i] = wet.right[i]! + run.right[i]! * right;
    }
  }
}

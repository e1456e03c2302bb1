import { STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../../dsp/blocks';
import { PhaseVocoder } from '../../dsp/phaseVocoder';
import { SincRings } from '../../dsp/sincRings';
import { GrainShift } from './grains';

/** Samples that the interpolation needs ahead of it. */
const AHEAD = 12;
/** Frames resolve tones a minor third apart from 200 Hz on. */
const FRAME_SECONDS = 1 / 15;
/** Overlap of the input frames. */
const OVERLAP = 4;
/** Length of the rings in frames: the latest and the longest distance to it. */
const RING_FRAMES = 8;
/** Steps over which the work on a frame is spread, so that no step takes much longer than another. */
const STAGES = 4;

/** Samples of a frame: the next power of two. */
const frameOf = (sampleRate: number): number => 2 ** Math.ceil(Math.log2(FRAME_SECONDS * sampleRate));

/**
 * Latency in samples: half an input frame, half a frame as it is read an octave down, and the spread over steps.
 * Further down it is a little more.
 */
export const spectrumLatency = (sampleRate: number): number => 1.5 * frameOf(sampleRate) + (2 + STAGES) * STEP_FRAMES;

/**
 * Samples for which a sound stays inside: it is in frames for a frame's length, and the last of them is read for as
 * long as the lowest ratio takes to read it.
 */
export const spectrumMemory = (sampleRate: number, lowestRatio: number): number =>
  frameOf(sampleRate) * (1 + 1 / lowestRatio) + (4 + 2 * STAGES) * STEP_FRAMES;

/** Seconds before and after a hit in which grains are heard, and the length of the crossfades. */
const BEFORE_HIT = 0.035;
const AFTER_HIT = 0.012;
const CROSSING = 0.008;

/** Shifts the pitch by a phase vocoder. Round a hit, which frames would smear, grains are used instead. */
export class SpectrumShift {
  readonly latency: number;
  private readonly frames: FrameShift;
  private readonly hits: GrainShift;
  private readonly hitPart = makeStereoBlock();
  /** Share of the grains at the end of the last step, and its maximum change in one. */
  private hitShare = 0;
  private readonly hitStep: number;
  private readonly beforeHit: number;
  private readonly afterHit: number;

  constructor(sampleRate: number) {
    this.latency = spectrumLatency(sampleRate);
    this.frames = new FrameShift(sampleRate);
    this.hits = new GrainShift(sampleRate, this.latency);
    this.hitStep = STEP_FRAMES / (CROSSING * sampleRate);
    this.beforeHit = BEFORE_HIT * sampleRate;
    this.afterHit = AFTER_HIT * sampleRate;
  }

  clear(ratio: number): void {
    this.frames.clear(ratio);
    this.hits.clear(ratio);
    this.hitShare = 0;
  }

  /**
   * @param ratio of the pitch at the end of the block
   * @param formants ratio by which the formants are shifted in the output
   */
  process(input: StereoBlock, wet: StereoBlock, ratio: number, formants: number): void {
    const { hits, hitPart, hitShare, hitStep } = this;
    this.frames.process(input, wet, ratio, formants);
    const { due } = hits;
    const isNear = ratio !== 1 && hits.onsets.first(due - this.afterHit, due + this.beforeHit) < Infinity;
    const goal = isNear ? Math.min(1, hitShare + hitStep) : Math.max(0, hitShare - hitStep);
    if (goal === 0 && hitShare === 0) {
      hits.record(input, ratio);
      return;
    }
    hits.process(input, hitPart, ratio);
    const step = (goal - hitShare) / STEP_FRAMES;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const share = hitShare + step * (i + 1);
      wet.left[i] = wet.left[i]! + share * (hitPart.left[i]! - wet.left[i]!);
      wet.right[i] = wet.right[i]! + share * (hitPart.right[i]! - wet.right[i]!);
    }
    this.hitShare = goal;
  }
}

/** A frame in progress: the settings when it was taken, and the next stage. */
interface Work {
  stage: number;
  hopIn: number;
  hopOut: number;
  formants: number;
  top: number;
}

/**
 * Shifts the pitch of a stream: its frames are overlapped at a distance scaled by the ratio, and the result is
 * resampled by the ratio, so that the duration is unchanged.
 */
class FrameShift {
  private readonly vocoder: PhaseVocoder;
  private readonly inLeft: Float64Array;
  private readonly inRight: Float64Array;
  private readonly mask: number;
  private readonly out: SincRings;
  private readonly work: Work = { stage: 0, hopIn: 0, hopOut: 0, formants: 1, top: 0 };
  /** Number of input samples; positions of the last frame in the input and in the output; the read position. */
  private received = 0;
  private taken = 0;
  private laid = 0;
  private reading = 0;
  private ratio = 1;
  private first = true;
  private readonly frame: number;
  private readonly latency: number;

  constructor(sampleRate: number) {
    this.frame = frameOf(sampleRate);
    this.latency = spectrumLatency(sampleRate);
    this.vocoder = new PhaseVocoder(this.frame, sampleRate);
    const ring = RING_FRAMES * this.frame;
    this.mask = ring - 1;
    this.inLeft = new Float64Array(ring);
    this.inRight = new Float64Array(ring);
    this.out = new SincRings(ring);
  }

  clear(ratio: number): void {
    this.inLeft.fill(0);
    this.inRight.fill(0);
    this.out.clear();
    this.vocoder.clear();
    this.received = 0;
    this.ratio = ratio;
    // All rings hold silence: the read position starts as if it had always advanced.
    this.reading = 0;
    this.laid = -this.hopOf(ratio);
    this.taken = 0;
    this.first = true;
    this.work.stage = 0;
  }

  process(input: StereoBlock, wet: StereoBlock, ratio: number, formants: number): void {
    const { inLeft, inRight, out, mask, work } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      inLeft[(this.received + i) & mask] = input.left[i]!;
      inRight[(this.received + i) & mask] = input.right[i]!;
    }
    this.received += STEP_FRAMES;
    const step = (ratio - this.ratio) / STEP_FRAMES;
    const faster = ratio > this.ratio ? ratio : this.ratio;
    const needed = this.reading + faster * STEP_FRAMES + AHEAD;
    // All frames that overlap what is read must be complete; those that are needed soon are worked on in stages.
    while (this.laid + this.hopOf(ratio) <= needed) this.processStage(ratio, formants);
    if (work.stage > 0 || this.laid + this.hopOf(ratio) <= needed + STAGES * faster * STEP_FRAMES)
      this.processStage(ratio, formants);
    out.read(this.reading, this.ratio + step, step, 0, STEP_FRAMES);
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      wet.left[i] = out.outLeft[i]!;
      wet.right[i] = out.outRight[i]!;
    }
    // Read positions of a block whose speed is ramped linearly.
    this.reading += STEP_FRAMES * (this.ratio + (step * (STEP_FRAMES + 1)) / 2);
    this.ratio = ratio;
  }

  /** Distance of output frames: a frame is a multiple of it, so that their windows add up to a constant. */
  private hopOf(ratio: number): number {
    return Math.round(this.frame / (ratio < 1 ? Math.ceil(OVERLAP / ratio) : OVERLAP));
  }

  /** One stage of the work on the next frame. */
  private processStage(ratio: number, formants: number): void {
    const { vocoder, work, frame } = this;
    if (work.stage === 0) this.takeFrame(ratio, formants);
    else if (work.stage === 1) vocoder.moveEnvelope(work.formants);
    else if (work.stage === 2) vocoder.advancePhases(work.hopIn, work.hopOut);
    else {
      vocoder.synthesize(work.top);
      this.laid += work.hopOut;
      // Its last samples are the first in the ring.
      this.out.overlapAdd(
        this.laid,
        vocoder.left.made,
        vocoder.right.made,
        frame,
        work.hopOut,
        vocoder.levelAt(work.hopOut),
      );
    }
    work.stage = (work.stage + 1) & (STAGES - 1);
  }

  private takeFrame(ratio: number, formants: number): void {
    const { vocoder, inLeft, inRight, frame, mask, work } = this;
    work.hopOut = this.hopOf(ratio);
    // Position in the input of the sample that is due when the read position reaches the middle of this frame.
    const due = this.received - STEP_FRAMES + (this.laid + work.hopOut + frame / 2 - this.reading) / ratio;
    const from = Math.min(this.received - frame, Math.round(due - this.latency - frame / 2));
    for (let i = 0; i < frame; i += 1) {
      vocoder.left.frame[i] = inLeft[(from + i) & mask]!;
      vocoder.right.frame[i] = inRight[(from + i) & mask]!;
    }
    work.top = ratio > 1 ? Math.floor((0.98 * frame) / (2 * ratio)) : frame / 2 + 1;
    work.formants = formants / ratio;
    work.hopIn = this.first ? 0 : from - this.taken;
    this.first = false;
    this.taken = from;
    vocoder.analyze();
  }
}

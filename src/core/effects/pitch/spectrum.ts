import { PhaseVocoder } from '../../dsp/phaseVocoder';
import { SincRings } from '../../dsp/sincRings';
import { STEP_FRAMES, type StereoRun } from '../define';

/** Samples that the reading needs in front of it. */
const AHEAD = 12;
/** Rings: enough for the latest and the longest that lies between. */
const RING = 32_768;
const MASK = RING - 1;

/** Samples of a frame: about a twenty-fifth of a second. */
const frameOf = (sampleRate: number): number => (sampleRate > 64_000 ? 4096 : 2048);

/** By how much all is late, in samples: half a frame as it comes, half a one as it is read an octave down, and what the steps need. Farther down it is a little later. */
export const spectrumLatency = (sampleRate: number): number => 1.5 * frameOf(sampleRate) + 2 * STEP_FRAMES;

/**
 * Moves the pitch of a passing sound: its frames are laid farther apart or nearer by the ratio, and what comes of it is read
 * by so much faster or slower, so that it takes the same time again.
 */
export class SpectrumShift {
  private readonly vocoder: PhaseVocoder;
  private readonly inLeft = new Float64Array(RING);
  private readonly inRight = new Float64Array(RING);
  private readonly out = new SincRings(RING);
  /** Samples that have come in; where the last frame was taken; where it was laid; where the reading stands. */
  private came = 0;
  private taken = 0;
  private laid = 0;
  private reading = 0;
  private ratio = 1;
  private first = true;
  private readonly frame: number;
  private readonly hop: number;
  readonly latency: number;

  constructor(sampleRate: number) {
    this.frame = frameOf(sampleRate);
    this.hop = this.frame / 4;
    this.latency = spectrumLatency(sampleRate);
    this.vocoder = new PhaseVocoder(this.frame, sampleRate);
  }

  clear(ratio: number): void {
    this.inLeft.fill(0);
    this.inRight.fill(0);
    this.out.clear();
    this.vocoder.clear();
    this.came = 0;
    this.ratio = ratio;
    // All rings hold silence: the reading starts as if it had always been going on.
    this.reading = 0;
    this.laid = -this.hop;
    this.taken = 0;
    this.first = true;
  }

  /** @param ratio of the pitch at the end of the run  @param formants ratio by which the throat is moved in what is heard */
  process(input: StereoRun, wet: StereoRun, ratio: number, formants: number): void {
    const { inLeft, inRight, out } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      inLeft[(this.came + i) & MASK] = input.left[i]!;
      inRight[(this.came + i) & MASK] = input.right[i]!;
    }
    this.came += STEP_FRAMES;
    const step = (ratio - this.ratio) / STEP_FRAMES;
    const faster = ratio > this.ratio ? ratio : this.ratio;
    // What is read must have been laid by all frames that reach it.
    while (this.laid + this.hopOf(ratio) <= this.reading + faster * STEP_FRAMES + AHEAD) this.layFrame(ratio, formants);
    out.read(this.reading, this.ratio + step, step, 0, STEP_FRAMES);
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      wet.left[i] = out.outLeft[i]!;
      wet.right[i] = out.outRight[i]!;
    }
    // The places of a run whose speed grows evenly.
    this.reading += STEP_FRAMES * (this.ratio + (step * (STEP_FRAMES + 1)) / 2);
    this.ratio = ratio;
  }

  private hopOf(ratio: number): number {
    return ratio < 1 ? Math.max(64, Math.round(this.hop * ratio)) : this.hop;
  }

  private layFrame(ratio: number, formants: number): void {
    const { vocoder, inLeft, inRight, frame } = this;
    const hop = this.hopOf(ratio);
    this.laid += hop;
    // Which part of what came in will be read at the moment at which the reading reaches the middle of this frame.
    const due = this.came - STEP_FRAMES + (this.laid + frame / 2 - this.reading) / ratio;
    const from = Math.min(this.came - frame, Math.round(due - this.latency - frame / 2));
    for (let i = 0; i < frame; i += 1) {
      vocoder.left.frame[i] = inLeft[(from + i) & MASK]!;
      vocoder.right.frame[i] = inRight[(from + i) & MASK]!;
    }
    const top = ratio > 1 ? Math.floor((0.98 * frame) / (2 * ratio)) : frame / 2 + 1;
    vocoder.turn(this.first ? 0 : from - this.taken, hop, formants / ratio, top);
    this.first = false;
    this.taken = from;
    // Its last samples are the first there.
    this.out.lay(this.laid, vocoder.left.made, vocoder.right.made, frame, hop, vocoder.levelAt(hop));
  }
}

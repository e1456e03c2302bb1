import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { Noise } from '../../dsp/noise';
import { PitchSynchronousGrains } from '../pitch/pitchSynchronousGrains';
import { GrainAligner } from './align';
import type { History } from '../hold/history';
import type { HoldStep, HoldVoice } from '../hold/voice';
import { paramIndices } from '../paramIndices';
import { NEVER_MS, slowMotionParams } from './params';

const P = paramIndices(slowMotionParams);
/** The rising half of a Hann window: crossfading grains add up to one. */
const HALF = 1024;
const RISE = Float64Array.from(
  { length: HALF + 2 },
  (_, i) => 0.5 - 0.5 * Math.cos((Math.PI * Math.min(i, HALF)) / HALF),
);
/** Range of scatter to either side, in grains. */
const SCATTERED_GRAINS = 4;
/** Start in the past for a hold that is never caught anew and is faster than real time. */
const CATCH_UP_SECONDS = 4;

/** Minimum distance of a voice's grains from the input: two periods of 60 Hz, in which the pitch is detected. */
const VOICE_REACH_SECONDS = 0.04;
/** Formant shifts smaller than this are left to the pitch shift. */
const LEAST_FORMANT_SEMITONES = 0.01;

/** One of the two crossfading grains: its read position and speed. */
class Grain {
  position = 0;
  speed = 1;
}

/**
 * Time stretching: crossfading grains of the history, each from the present stretched position, shifted to where it
 * best continues the one before. Source: Werner Verhelst and Marc Roelands, "An overlap-add technique based on waveform
 * similarity" (1993).
 */
export class SlowMotionVoice implements HoldVoice {
  private readonly aligner: GrainAligner;
  private readonly noise = new Noise();
  private readonly grains: readonly [Grain, Grain] = [new Grain(), new Grain()];
  private newer = 0;
  /** Length of the crossfade, and its progress. */
  private crossing = 0;
  private crossed = 0;
  /** The stretched position in the history. */
  private head = 0;
  private caughtFor = 0;
  private started = false;
  /** Scatter of the newest grain. */
  private scattered = 0;
  /** For shifted formants: grains of two periods replace those of any length. */
  private readonly voice: PitchSynchronousGrains;
  private readonly voiceReach: number;
  private readonly order = { position: 0, timeSpeed: 1, newest: 0, ratio: 1, formantRatio: 1 };

  constructor(
    private readonly sampleRate: number,
    history: History,
  ) {
    this.aligner = new GrainAligner(sampleRate);
    this.voice = new PitchSynchronousGrains(sampleRate, history);
    this.voiceReach = Math.round(VOICE_REACH_SECONDS * sampleRate);
  }

  begin(at: number, position: number, history: History, values: Float64Array, place: number): void {
    this.noise.restart(place);
    this.captureAt(position, values);
    this.crossing = 0;
    this.crossed = 0;
    this.started = false;
    this.scattered = 0;
    this.protectHistory(history, values);
    if (this.movesFormants(values)) this.voice.begin(this.orderAt(position, values));
    else this.voice.clear();
  }

  private movesFormants(values: Float64Array): boolean {
    return Math.abs(values[P.formants]!) > LEAST_FORMANT_SEMITONES;
  }

  /** Source of the voice's grains. @param now position of the present input in the history */
  private orderAt(now: number, values: Float64Array): typeof this.order {
    const { order } = this;
    const latest = now - this.voiceReach;
    const wanted = this.head + this.scattered;
    order.position = wanted < latest ? wanted : latest;
    order.timeSpeed = wanted < latest ? values[P.speed]! : 1;
    order.newest = now - 1;
    order.ratio = Math.pow(2, values[P.pitch]! / 12);
    order.formantRatio = order.ratio * Math.pow(2, values[P.formants]! / 12);
    return order;
  }

  private captureAt(position: number, values: Float64Array): void {
    const every = values[P.catchEvery]! >= NEVER_MS ? CATCH_UP_SECONDS : values[P.catchEvery]! / 1000;
    const ahead = values[P.speed]! - 1;
    this.head = ahead > 0 ? position - ahead * every * this.sampleRate : position;
    this.caughtFor = 0;
  }

  /** Protects the history round the read position. */
  private protectHistory(history: History, values: Float64Array): void {
    history.protect(Math.floor(this.head - (4 + SCATTERED_GRAINS) * this.grainFrames(values)));
  }

  private grainFrames(values: Float64Array): number {
    return (values[P.grain]! / 1000) * this.sampleRate;
  }

  render(out: StereoBlock, { history, from, to, values }: HoldStep): void {
    for (let i = from; i < to; i += 1) {
      out.left[i] = 0;
      out.right[i] = 0;
    }
    const order = this.orderAt(history.end - STEP_FRAMES + from, values);
    let i = from;
    while (i < to) {
      if (this.crossed >= this.crossing) this.nextGrain(history.end - STEP_FRAMES + i, history, values);
      const n = Math.min(to - i, Math.ceil(this.crossing - this.crossed));
      this.add(1 - this.newer, true, history, out, i, i + n);
      this.add(this.newer, false, history, out, i, i + n);
      this.head += n * values[P.speed]!;
      this.crossed += n;
      this.caughtFor += n;
      i += n;
    }
    this.voice.add(out, from, to, order, this.movesFormants(values));
  }

  /** Adds [from, to) of a grain that fades in or out. */
  private add(which: number, fades: boolean, history: History, out: StereoBlock, from: number, to: number): void {
    const grain = this.grains[which]!;
    history.read(grain.position, grain.speed, 0, from, to);
    const left = history.outLeft;
    const right = history.outRight;
    const step = HALF / this.crossing;
    let at = this.crossed * step;
    for (let i = from; i < to; i += 1) {
      const whole = Math.floor(at);
      const rising = at < HALF ? RISE[whole]! + (RISE[whole + 1]! - RISE[whole]!) * (at - whole) : 1;
      const gain = fades ? 1 - rising : rising;
      out.left[i] = out.left[i]! + gain * left[i]!;
      out.right[i] = out.right[i]! + gain * right[i]!;
      at += step;
    }
    grain.position += (to - from) * grain.speed;
  }

  /** @param now position of the present input in the history */
  private nextGrain(now: number, history: History, values: Float64Array): void {
    if (values[P.catchEvery]! < NEVER_MS && this.caughtFor >= (values[P.catchEvery]! / 1000) * this.sampleRate)
      this.captureAt(now, values);
    this.protectHistory(history, values);
    const length = this.grainFrames(values);
    const hop = length / 2;
    const speed = Math.pow(2, values[P.pitch]! / 12);
    const before = this.grains[this.newer]!;
    const goesOnAt = before.position;
    const scattered = values[P.scatter]! * SCATTERED_GRAINS * length * this.noise.next();
    this.scattered = scattered;
    // All of a grain must be recorded by the time it is read.
    const latest = now - length * Math.max(0, speed - 1) - this.aligner.span;
    const wanted = this.head - hop * speed + scattered;
    const centre = wanted < latest - hop ? wanted : latest - hop;
    this.newer = 1 - this.newer;
    const grain = this.grains[this.newer]!;
    grain.position = this.started ? this.aligner.nearest(history, centre, goesOnAt) : centre + hop * speed;
    grain.speed = speed;
    this.crossed -= this.crossing;
    this.crossing = hop;
    // The first crossfades with itself, so that it starts at full level.
    if (!this.started) {
      this.grains[1 - this.newer]!.position = grain.position;
      this.grains[1 - this.newer]!.speed = speed;
    }
    this.started = true;
  }
}

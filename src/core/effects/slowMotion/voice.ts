import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { hann } from '../../dsp/hann';
import { Noise } from '../../dsp/noise';
import { GrainAligner } from './align';
import type { History } from '../hold/history';
import type { HoldStep, HoldVoice } from '../hold/voice';
import { paramIndices } from '../paramIndices';
import { NEVER_MS, slowMotionParams } from './params';

const P = paramIndices(slowMotionParams);
const WINDOW = 2048;
const SHAPE = Float64Array.of(...hann(WINDOW), 0, 0);
/** Scatter reaches so many grains to either side. */
const SCATTERED_GRAINS = 4;
/** What is never caught anew and goes faster than time begins so far back. */
const CATCH_UP_SECONDS = 4;

/** One of the two grains that cross. */
class Grain {
  place = 0;
  speed = 1;
  /** Samples since it began, and how long it is. */
  age = 0;
  length = 1;
}

/**
 * Time at another speed: grains of what passed cross into one another, each from where the time has come to, moved by
 * a little to where it is most like what the one before would go on with. Source: Werner Verhelst and Marc Roelands,
 * "An overlap-add technique based on waveform similarity" (1993).
 */
export class SlowMotionVoice implements HoldVoice {
  private readonly aligner: GrainAligner;
  private readonly noise = new Noise();
  private readonly grains: readonly [Grain, Grain] = [new Grain(), new Grain()];
  private newer = 0;
  private untilNext = 0;
  /** Where in the history the time has come to. */
  private head = 0;
  private caughtFor = 0;
  private started = false;

  constructor(private readonly sampleRate: number) {
    this.aligner = new GrainAligner(sampleRate);
  }

  begin(at: number, place: number, history: History, values: Float64Array): void {
    this.noise.restart(at);
    this.catchAt(place, values);
    this.untilNext = 0;
    this.started = false;
    for (let g = 0; g < 2; g += 1) this.grains[g]!.age = Infinity;
    this.pin(history, values);
  }

  private catchAt(place: number, values: Float64Array): void {
    const every = values[P.catchEvery]! >= NEVER_MS ? CATCH_UP_SECONDS : values[P.catchEvery]! / 1000;
    const ahead = values[P.speed]! - 1;
    this.head = ahead > 0 ? place - ahead * every * this.sampleRate : place;
    this.caughtFor = 0;
  }

  /** Keeps what lies round the head. */
  private pin(history: History, values: Float64Array): void {
    history.pin(Math.floor(this.head - (2 + SCATTERED_GRAINS) * this.grainFrames(values)));
  }

  private grainFrames(values: Float64Array): number {
    return (values[P.grain]! / 1000) * this.sampleRate;
  }

  render(out: StereoBlock, { history, from, to, values }: HoldStep): void {
    for (let i = from; i < to; i += 1) {
      out.left[i] = 0;
      out.right[i] = 0;
    }
    let i = from;
    while (i < to) {
      if (this.untilNext <= 0) this.nextGrain(history.end - STEP_FRAMES + i, history, values);
      const n = Math.min(to - i, Math.ceil(this.untilNext));
      for (let g = 0; g < 2; g += 1) addGrain(this.grains[g]!, history, out, i, i + n);
      this.head += n * values[P.speed]!;
      this.untilNext -= n;
      this.caughtFor += n;
      i += n;
    }
  }

  /** @param now place in the history of the sound that comes in */
  private nextGrain(now: number, history: History, values: Float64Array): void {
    if (values[P.catchEvery]! < NEVER_MS && this.caughtFor >= (values[P.catchEvery]! / 1000) * this.sampleRate)
      this.catchAt(now, values);
    this.pin(history, values);
    const length = this.grainFrames(values);
    const hop = length / 2;
    const speed = Math.pow(2, values[P.pitch]! / 12);
    const before = this.grains[this.newer]!;
    const goesOnAt = before.place;
    const scattered = values[P.scatter]! * SCATTERED_GRAINS * length * this.noise.next();
    // All of a grain must have come in by the time it is read.
    const latest = now - length * Math.max(0, speed - 1) - this.aligner.span;
    const wanted = this.head - hop * speed + scattered;
    const centre = wanted < latest - hop ? wanted : latest - hop;
    this.newer = 1 - this.newer;
    const grain = this.grains[this.newer]!;
    grain.place = this.started ? this.aligner.nearest(history, centre, goesOnAt) : centre;
    grain.speed = speed;
    grain.age = this.started ? 0 : hop;
    grain.length = length;
    if (!this.started) grain.place += hop * speed;
    this.started = true;
    this.untilNext += hop;
  }
}

/** Adds [from, to) of a grain under its window. */
function addGrain(grain: Grain, history: History, out: StereoBlock, from: number, to: number): void {
  if (grain.age >= grain.length) return;
  history.read(grain.place, grain.speed, 0, from, to);
  const left = history.outLeft;
  const right = history.outRight;
  const step = WINDOW / grain.length;
  let at = grain.age * step;
  for (let i = from; i < to && at < WINDOW; i += 1) {
    const whole = Math.floor(at);
    const gain = SHAPE[whole]! + (SHAPE[whole + 1]! - SHAPE[whole]!) * (at - whole);
    out.left[i] = out.left[i]! + gain * left[i]!;
    out.right[i] = out.right[i]! + gain * right[i]!;
    at += step;
  }
  const n = to - from;
  grain.place += n * grain.speed;
  grain.age += n;
}

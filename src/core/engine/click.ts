import { spanAt } from '../music/metre';
import { beatsToSamples, samplesToBeats, type Tempo } from '../music/tempo';
import { tempoOfPlan, type Plan } from './plan';

const CLICK_SECONDS = 0.03;
/** Time in which a click sinks by 60 dB, as a share of its length. */
const FALL = Math.log(1000);
const BAR_HZ = 1760;
const BEAT_HZ = 1174.7;
const GAIN = 0.35;
const QUARTERS = 4;
/** A sample may be so far beside the beat that it belongs to. */
const NEAR_BEATS = 1e-2;

/**
 * Clicks on the beats of a piece, its bars higher. They are added beside the engine: nothing of them is recorded,
 * printed or written.
 */
export class Click {
  private plan: Plan | null = null;
  private tempo: Tempo = { bpm: 120, beatsPerBar: 4 };
  /** Samples of the running click that have sounded; at its length it is over. */
  private age: number;
  private hz = BEAT_HZ;
  private readonly length: number;

  constructor(private readonly sampleRate: number) {
    this.length = Math.round(CLICK_SECONDS * sampleRate);
    this.age = this.length;
  }

  setPlan(plan: Plan): void {
    this.plan = plan;
    this.tempo = tempoOfPlan(plan);
  }

  /**
   * Adds the clicks of a stretch of the piece to what is put out.
   * @param from, to frames of the arrays  @param position sample of the piece of the first of them
   */
  add(left: Float32Array, right: Float32Array, from: number, to: number, position: number): void {
    let at = from;
    while (at < to) {
      const sample = position + at - from;
      const next = this.nextBeat(sample);
      if (next === sample) this.begin(this.isBar(sample));
      const end = next === sample ? this.nextBeat(sample + 1) : next;
      const run = Math.min(to - at, end - sample);
      this.ring(left, right, at, at + run);
      at += run;
    }
  }

  /** Goes on with a click that has begun. */
  ring(left: Float32Array, right: Float32Array, from: number, to: number): void {
    for (let i = from; i < to && this.age < this.length; i += 1) {
      const t = this.age / this.length;
      const x = GAIN * Math.exp(-FALL * t) * Math.sin((2 * Math.PI * this.hz * this.age) / this.sampleRate);
      left[i] = left[i]! + x;
      if (right !== left) right[i] = right[i]! + x;
      this.age += 1;
    }
  }

  /** Begins a click. @param isBar the first beat of a bar */
  begin(isBar: boolean): void {
    this.hz = isBar ? BAR_HZ : BEAT_HZ;
    this.age = 0;
  }

  private isBar(sample: number): boolean {
    const beat = samplesToBeats(sample, this.tempo, this.sampleRate);
    const metre = spanAt(beat, this.plan!.metres);
    const bars = (beat - metre.beat) / metre.beatsPerBar;
    return Math.abs(bars - Math.round(bars)) * metre.beatsPerBar < NEAR_BEATS;
  }

  /** Sample of the first beat at or after a sample of the piece; Infinity without a piece. */
  private nextBeat(sample: number): number {
    const { plan, tempo, sampleRate } = this;
    if (!plan) return Infinity;
    const beat = samplesToBeats(sample, tempo, sampleRate);
    const metre = spanAt(beat, plan.metres);
    const step = QUARTERS / metre.unit;
    let line = Math.max(0, Math.floor((beat - metre.beat) / step - NEAR_BEATS));
    for (;;) {
      const at = beatsToSamples(Math.min(metre.end, metre.beat + line * step), tempo, sampleRate);
      if (at >= sample) return at;
      line += 1;
    }
  }
}

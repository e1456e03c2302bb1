import { spanAt } from '../music/metre';
import { bpmAt, samplesToBeats } from '../music/tempo';
import { Click } from './click';
import type { Engine } from './engine';
import { tempoOfPlan, type Plan } from './plan';

/**
 * Plays an engine with a metronome: clicks while it plays, and a count-in before it begins. Only what is listened to
 * has them.
 */
export class CountedEngine {
  /** Clicks on the beats while the piece plays. */
  click = false;
  private plan: Plan | null = null;
  private readonly clicks: Click;
  /** Beats of the count-in; 0 while there is none. */
  private beats = 0;
  private beatsPerBar = 4;
  private beatFrames = 0;
  private nextBeat = 0;
  /** Frames counted so far; below 0 at first, so that the engine starts with a block; null before the first one. */
  private counted: number | null = null;
  /** The engine runs, and what it plays is about to be heard. */
  private started = false;
  private from = 0;

  constructor(
    private readonly engine: Engine,
    sampleRate: number,
  ) {
    this.clicks = new Click(sampleRate);
  }

  get counting(): boolean {
    return this.beats > 0;
  }

  setPlan(plan: Plan): void {
    this.plan = plan;
    this.clicks.setPlan(plan);
  }

  /** @param bars that are counted in, of the metre and at the tempo that are at `from` */
  play(from: number, bars: number): void {
    const { plan } = this;
    this.beats = 0;
    if (!plan || bars === 0) {
      this.engine.play(from);
      return;
    }
    const tempo = tempoOfPlan(plan);
    const beat = samplesToBeats(from, tempo, plan.sampleRate);
    const { beatsPerBar, unit } = spanAt(beat, plan.metres);
    this.beatFrames = ((60 * plan.sampleRate) / bpmAt(beat, tempo)) * (4 / unit);
    this.beatsPerBar = Math.round((beatsPerBar * unit) / 4);
    this.beats = bars * this.beatsPerBar;
    this.nextBeat = 0;
    this.counted = null;
    this.started = false;
    this.from = from;
  }

  /** Ends playing, or a count-in. */
  stop(): void {
    this.beats = 0;
    this.engine.stop();
  }

  /** Goes elsewhere in the piece; a count-in goes on, and what follows it begins there. */
  locate(sample: number): void {
    this.from = sample;
    this.engine.locate(sample);
  }

  process(left: Float32Array, right: Float32Array, frames: number): void {
    const { engine } = this;
    const wasPlaying = engine.playing;
    const before = engine.heardPosition;
    engine.process(left, right, frames);
    const at = this.counting ? this.countIn(left, right, frames) : 0;
    if (this.click && wasPlaying && engine.playing) this.addClicks(left, right, at, frames, before);
    else this.clicks.ring(left, right, at, frames);
  }

  /** @returns how many frames of the block belong to the count-in */
  private countIn(left: Float32Array, right: Float32Array, frames: number): number {
    const total = Math.round(this.beats * this.beatFrames);
    // What effects make late is started as much earlier, so that it is heard on the beat.
    const start = Math.max(0, total - this.engine.latency);
    const counted = this.counted ?? start - frames * Math.ceil(start / frames);
    const own = Math.min(frames, total - counted);
    this.addCount(left, right, own, counted);
    this.counted = counted + own;
    if (!this.started && this.counted >= start) {
      this.started = true;
      this.engine.play(this.from);
    }
    if (this.counted >= total) this.beats = 0;
    return own;
  }

  private addCount(left: Float32Array, right: Float32Array, frames: number, counted: number): void {
    let at = 0;
    while (at < frames) {
      const beat = Math.round(this.nextBeat * this.beatFrames);
      if (beat === counted + at) {
        this.clicks.begin(this.nextBeat % this.beatsPerBar === 0);
        this.nextBeat += 1;
      }
      const until = Math.round(this.nextBeat * this.beatFrames) - counted;
      const run = Math.min(frames, until);
      this.clicks.ring(left, right, at, run);
      at = run;
    }
  }

  /** Clicks on the beats that are heard in a block. @param before what was heard when it began */
  private addClicks(left: Float32Array, right: Float32Array, at: number, frames: number, before: number): void {
    const { loop } = this.plan!;
    const { heardPosition: after, startedAt } = this.engine;
    const moved = after - before;
    if (loop.on && loop.end - before + after - loop.start === frames) {
      this.clicks.add(left, right, at, loop.end - before, before);
      this.clicks.add(left, right, loop.end - before, frames, loop.start);
      return;
    }
    // What is late is not heard at first; after a jump, what was heard before it ends within the block.
    const isOn = moved >= 0 && moved <= frames;
    const run = isOn ? moved : Math.min(frames, after - startedAt);
    const from = Math.max(at, frames - run);
    this.clicks.ring(left, right, at, from);
    this.clicks.add(left, right, from, frames, (isOn ? before : startedAt) + (from - (frames - run)));
  }
}

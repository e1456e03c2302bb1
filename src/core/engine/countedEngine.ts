import { lastAtOrUnder } from '../music/tempo';
import { Click, metreOfSample } from './click';
import type { Engine } from './engine';
import type { Plan } from './plan';

/**
 * Plays an engine with what keeps a hand in time: clicks while it plays, and bars that are counted before it begins.
 * Only what is listened to has them.
 */
export class CountedEngine {
  click = false;
  private plan: Plan | null = null;
  private readonly clicks: Click;
  /** Beats that are counted before playing begins; 0 while nothing is. */
  private beats = 0;
  private beatsPerBar = 4;
  private beatFrames = 0;
  private nextBeat = 0;
  /** Frames counted so far; below 0 while silence makes the count end with a block, null before its first block. */
  private counted: number | null = null;
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

  /** @param bars that are counted first, of the metre and at the tempo that are at `from` */
  play(from: number, bars: number): void {
    const { plan } = this;
    this.beats = 0;
    if (!plan || bars === 0) {
      this.engine.play(from);
      return;
    }
    const { beatsPerBar, unit } = metreOfSample(plan, from);
    const map = plan.tempoMap;
    const bpm = map ? map.bpm[lastAtOrUnder(map.seconds, from / plan.sampleRate)]! : plan.bpm;
    this.beatFrames = ((60 * plan.sampleRate) / bpm) * (4 / unit);
    this.beatsPerBar = Math.round((beatsPerBar * unit) / 4);
    this.beats = bars * this.beatsPerBar;
    this.nextBeat = 0;
    this.counted = null;
    this.from = from;
  }

  /** Ends playing, or a count that goes on. */
  stop(): void {
    this.beats = 0;
    this.engine.stop();
  }

  process(left: Float32Array, right: Float32Array, frames: number): void {
    const { engine } = this;
    const wasPlaying = engine.playing;
    const before = engine.heardPosition;
    engine.process(left, right, frames);
    if (this.counting) this.count(left, right, frames);
    else if (this.click && wasPlaying && engine.playing) this.addClicks(left, right, frames, before);
    else this.clicks.ring(left, right, 0, frames);
  }

  private count(left: Float32Array, right: Float32Array, frames: number): void {
    const total = Math.round(this.beats * this.beatFrames);
    this.counted ??= total - frames * Math.ceil(total / frames);
    let at = 0;
    while (at < frames) {
      const beat = Math.round(this.nextBeat * this.beatFrames);
      const isBeat = beat === this.counted && this.nextBeat < this.beats;
      if (isBeat) {
        this.clicks.begin(this.nextBeat % this.beatsPerBar === 0);
        this.nextBeat += 1;
      }
      const until = Math.round(this.nextBeat * this.beatFrames) - this.counted;
      const run = Math.min(frames - at, Math.max(1, until));
      this.clicks.ring(left, right, at, at + run);
      at += run;
      this.counted += run;
    }
    if (this.counted < total) return;
    this.beats = 0;
    this.engine.play(this.from);
  }

  private addClicks(left: Float32Array, right: Float32Array, frames: number, before: number): void {
    const { loop } = this.plan!;
    const after = this.engine.heardPosition;
    const turns = loop.on && before < loop.end && after < before;
    const first = turns ? Math.min(frames, loop.end - before) : frames;
    this.clicks.add(left, right, 0, first, before);
    if (turns) this.clicks.add(left, right, first, frames, loop.start);
  }
}

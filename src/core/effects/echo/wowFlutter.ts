import { STEP_FRAMES } from '../../dsp/blocks';
import { SineLfo } from '../../dsp/lfo';

/** Minimum distance of the heads from the write position, in samples. */
const MIN_DELAY = 4;

/** Wow and flutter as an offset in samples of the read heads, the same for both sides as on one reel. */
export class WowFlutter {
  readonly offsets = new Float64Array(STEP_FRAMES);
  /** False while the heads do not move. */
  moving = false;
  /** Maximum of the offsets to either side, in samples. */
  maxDeviation = 0;
  private readonly run = new Float64Array(STEP_FRAMES);
  private readonly wow = new SineLfo();
  private readonly flutter = new SineLfo();
  private wowReach = 0;
  private flutterReach = 0;

  constructor(private readonly sampleRate: number) {}

  locate(seconds: number, wowHz: number, wowPercent: number, flutterHz: number, flutterPercent: number): void {
    this.wow.locate(seconds, wowHz);
    this.flutter.locate(seconds, flutterHz);
    this.wowReach = this.reachOf(wowPercent, wowHz);
    this.flutterReach = this.reachOf(flutterPercent, flutterHz);
  }

  /** A sine of `percent` deviation in speed at `hz` displaces the head by this many samples to each side. */
  private reachOf(percent: number, hz: number): number {
    return ((percent / 100) * this.sampleRate) / (2 * Math.PI * hz);
  }

  /** Computes a step's offsets. `shortest` is the shortest delay in use, which the offsets never exceed. */
  prepare(wowHz: number, wowPercent: number, flutterHz: number, flutterPercent: number, shortest: number): void {
    const n = STEP_FRAMES;
    const room = Math.max(0, shortest - MIN_DELAY) / 2;
    const wow = Math.min(room, this.reachOf(wowPercent, wowHz));
    const flutter = Math.min(room, this.reachOf(flutterPercent, flutterHz));
    const reach = Math.max(wow, this.wowReach) + Math.max(flutter, this.flutterReach);
    const moved = this.moving;
    this.moving = reach > 0;
    if (moved || this.moving) this.run.fill(0);
    if (this.moving) {
      this.wow.addTo(this.run, n, wowHz, this.sampleRate, this.wowReach, wow);
      this.flutter.addTo(this.run, n, flutterHz, this.sampleRate, this.flutterReach, flutter);
    } else {
      this.skip(wowHz, flutterHz);
    }
    this.maxDeviation = reach;
    this.wowReach = wow;
    this.flutterReach = flutter;
  }

  /** Advances by a step in which the heads do not move. */
  skip(wowHz: number, flutterHz: number): void {
    this.wow.skip(STEP_FRAMES, wowHz, this.sampleRate);
    this.flutter.skip(STEP_FRAMES, flutterHz, this.sampleRate);
  }

  /** Copies the offsets of the run that begins at sample `from` to the front of `offsets`. */
  take(from: number, n: number): void {
    const { run, offsets } = this;
    for (let i = 0; i < n; i += 1) offsets[i] = run[from + i]!;
  }
}

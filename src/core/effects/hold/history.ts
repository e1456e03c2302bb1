import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { SincRings } from '../../dsp/sincRings';
import { SINC_AHEAD } from '../../dsp/sincTable';

/** Seconds that a hold remembers, at least. */
export const HISTORY_SECONDS = 16;
/** Reading between samples needs so many that come after: what comes in is read so much later. */
export const READ_LATENCY = SINC_AHEAD + 1;
/** Frames are counted on from a lower number that means the same, long before the kernel's positions end at 2^31. */
const RECOUNT_AT = 2 ** 29;

/** What entered a hold lately, to be read between its samples at any speed. Takes 8 bytes a frame. */
export class History {
  /** Frames that have come in: the next is written here. */
  end = 0;
  readonly size: number;
  /** Position to which the last reading came. */
  readTo = 0;
  private readonly rings: SincRings;
  private pinned = Infinity;
  private paused = false;
  private readonly fadedLeft = new Float64Array(STEP_FRAMES);
  private readonly fadedRight = new Float64Array(STEP_FRAMES);
  private readonly nothing = new Float64Array(SINC_AHEAD + 1);

  constructor(sampleRate: number) {
    this.size = 2 ** Math.ceil(Math.log2(HISTORY_SECONDS * sampleRate));
    this.rings = new SincRings(this.size);
  }

  clear(): void {
    this.rings.clear();
    this.end = 0;
    this.pinned = Infinity;
    this.paused = false;
  }

  /** What is read from `position` on is kept: nothing new is taken in once it would be written over. Infinity keeps none. */
  pin(position: number): void {
    this.pinned = position;
  }

  /** The first position that is not written over while a step is taken in. */
  get oldest(): number {
    return this.end - this.size + 2 * STEP_FRAMES;
  }

  /** Takes in a step. Where it leaves off and goes on again, it sinks to nothing and comes back. */
  write({ left, right }: StereoBlock): void {
    const full = this.end + 3 * STEP_FRAMES - this.pinned > this.size;
    if (full && this.paused) return;
    if (full !== this.paused) {
      this.writeFaded(left, right, full);
      return;
    }
    this.rings.write(this.end, left, right, STEP_FRAMES);
    this.end += STEP_FRAMES;
  }

  /** Zeroes the samples after the newest, which interpolation reads: they still hold the ring's previous turn. */
  clearAhead(): void {
    this.rings.write(this.end, this.nothing, this.nothing, SINC_AHEAD + 1);
  }

  private writeFaded(left: Float64Array, right: Float64Array, out: boolean): void {
    const { fadedLeft, fadedRight } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const share = out ? 1 - (i + 1) / STEP_FRAMES : (i + 1) / STEP_FRAMES;
      fadedLeft[i] = share * left[i]!;
      fadedRight[i] = share * right[i]!;
    }
    this.rings.write(this.end, fadedLeft, fadedRight, STEP_FRAMES);
    this.end += STEP_FRAMES;
    this.paused = out;
  }

  /** Counts from a lower number, which means the same; while nothing reads. */
  recount(): void {
    if (this.end > RECOUNT_AT && this.pinned === Infinity) this.end -= Math.floor(RECOUNT_AT / this.size) * this.size;
  }

  /**
   * Reads into [from, to) of `outLeft` and `outRight`: at `position`, then on by `speed` a sample, which may be negative
   * and grows by `growth` a sample.
   */
  read(position: number, speed: number, growth: number, from: number, to: number): void {
    const n = to - from;
    this.readTo = position + n * speed + (growth * n * (n - 1)) / 2;
    this.rings.read(position, speed, growth, from, to);
  }

  /** Both sides added, at an integer position. */
  monoAt(position: number): number {
    return this.rings.monoAt(position);
  }

  get outLeft(): Float64Array {
    return this.rings.outLeft;
  }

  get outRight(): Float64Array {
    return this.rings.outRight;
  }
}

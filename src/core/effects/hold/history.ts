import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { SincRings } from '../../dsp/sincRings';
import { SINC_AHEAD } from '../../dsp/sincTable';

/** Seconds that a hold remembers, at least. */
export const HISTORY_SECONDS = 16;
/** Interpolation needs this many later samples: the input is read with this delay. */
export const READ_LATENCY = SINC_AHEAD + 1;
/** Frame numbers are reduced to equivalent lower ones long before the kernel's positions end at 2^31. */
const RECOUNT_AT = 2 ** 29;

/** The recent input of a hold, read at any speed with interpolation. Takes 8 bytes a frame. */
export class History {
  /** Number of frames written: the next is written here. */
  end = 0;
  readonly size: number;
  /** Position at the end of the last read. */
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

  /** Protects all from `position` on: recording stops before it would be overwritten. Infinity protects nothing. */
  protect(position: number): void {
    this.pinned = position;
  }

  /** The first position that the next step does not overwrite. */
  get oldest(): number {
    return this.end - this.size + 2 * STEP_FRAMES;
  }

  /** Records a step. Where recording stops and starts again, the sound is faded out and in. */
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

  /** Reduces frame numbers to equivalent lower ones; only while nothing reads. */
  reduceFrameNumbers(): void {
    if (this.end > RECOUNT_AT && this.pinned === Infinity) this.end -= Math.floor(RECOUNT_AT / this.size) * this.size;
  }

  /**
   * Reads into [from, to) of `outLeft` and `outRight`: from `position`, advancing by `speed` a sample, which may be
   * negative and grows by `growth` a sample.
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

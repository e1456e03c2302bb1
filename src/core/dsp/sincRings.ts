import type { SincWork } from './kernels/sincRead/layout';
import { startKernel } from './kernels/load';
import { SINC_READ_BYTES } from './kernels/sincRead/bytes';
import { SINC_PHASES, SINC_TABLE, SINC_TAPS } from './sincTable';
import { sincReadReference } from './kernels/sincRead/reference';

/** Maximum samples of one read. */
export const READ_FRAMES = 128;
/** Offsets in words of 32 bits. */
const OUT = 0;
const TABLE = 4 * READ_FRAMES;
const RINGS = TABLE + (SINC_PHASES + 1) * SINC_TAPS;

/**
 * A stereo ring buffer read at any speed with fractional positions, rounded to the phases of the table: within a 4096th
 * of a sample.
 */
export class SincRings {
  /** The samples that were read last. */
  readonly outLeft: Float64Array;
  readonly outRight: Float64Array;
  readonly mask: number;
  private readonly left: Float32Array;
  private readonly right: Float32Array;
  private readonly work: SincWork;
  private readonly rightAt: number;

  /** @param size a power of two  @param withKernel false leaves the work to TypeScript, which tests compare */
  constructor(
    private readonly size: number,
    withKernel = true,
  ) {
    this.mask = size - 1;
    this.rightAt = RINGS + size + SINC_TAPS;
    const figures = this.rightAt + size + SINC_TAPS;
    const kernel = withKernel ? startKernel(SINC_READ_BYTES, figures * 4) : null;
    const bytes = kernel ? kernel.memory.buffer : new ArrayBuffer(figures * 4);
    const cells = new Float32Array(bytes, 0, figures);
    this.outLeft = new Float64Array(bytes, 4 * OUT, READ_FRAMES);
    this.outRight = new Float64Array(bytes, 4 * OUT + 8 * READ_FRAMES, READ_FRAMES);
    this.left = cells.subarray(RINGS, RINGS + size + SINC_TAPS);
    this.right = cells.subarray(this.rightAt);
    cells.set(SINC_TABLE, TABLE);
    this.work = kernel
      ? (kernel.exports as unknown as SincWork)
      : sincReadReference(cells, new Float64Array(bytes, 0, 2 * READ_FRAMES));
  }

  clear(): void {
    this.left.fill(0);
    this.right.fill(0);
  }

  /** Writes `n` samples from an index on. */
  write(place: number, left: Float64Array, right: Float64Array, n: number): void {
    const { mask } = this;
    const start = place & mask;
    if (start >= SINC_TAPS && start + n <= this.size) {
      const { left: toLeft, right: toRight } = this;
      for (let i = 0; i < n; i += 1) {
        toLeft[start + i] = left[i]!;
        toRight[start + i] = right[i]!;
      }
      return;
    }
    for (let i = 0; i < n; i += 1) {
      const at = (place + i) & mask;
      this.left[at] = left[i]!;
      this.right[at] = right[i]!;
      if (at < SINC_TAPS) this.repeat(at);
    }
  }

  /** Adds `n` samples times a level from an index on; the last `fresh` of them replace what was there. */
  overlapAdd(place: number, left: Float64Array, right: Float64Array, n: number, fresh: number, level: number): void {
    const { mask } = this;
    for (let i = 0; i < n; i += 1) {
      const at = (place + i) & mask;
      const kept = i < n - fresh ? 1 : 0;
      this.left[at] = kept * this.left[at]! + level * left[i]!;
      this.right[at] = kept * this.right[at]! + level * right[i]!;
      if (at < SINC_TAPS) this.repeat(at);
    }
  }

  /** The first samples are repeated behind the last. */
  private repeat(at: number): void {
    this.left[this.size + at] = this.left[at]!;
    this.right[this.size + at] = this.right[at]!;
  }

  /** Sum of both channels at a whole index. */
  monoAt(place: number): number {
    const at = place & this.mask;
    return this.left[at]! + this.right[at]!;
  }

  /**
   * Reads both channels into [from, to) of the output: from `start`, advancing by `speed`, which grows by `growth`.
   * Positions are below 2^31.
   */
  read(start: number, speed: number, growth: number, from: number, to: number): void {
    this.work.read(
      4 * RINGS,
      4 * this.rightAt,
      this.mask,
      4 * TABLE,
      start,
      speed,
      growth,
      4 * OUT,
      4 * OUT + 8 * READ_FRAMES,
      from,
      to,
    );
  }
}

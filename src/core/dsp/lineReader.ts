import { DelayLine, ringSize, SHORT_BELOW } from './delayLine';
import { joinKernel, startKernel, type KernelRoom } from './kernels/load';
import { LINE_READ_BYTES } from './kernels/lineRead/bytes';
import { LINE_READ_FUSED_BYTES } from './kernels/lineRead/fusedBytes';
import { SINC_TABLE, SINC_TAPS, sincCoefficients } from './sincTable';
import { copyBlock, STEP_FRAMES } from './blocks';

const CODE = { plain: LINE_READ_BYTES, fused: LINE_READ_FUSED_BYTES };

/** Where things are, in bytes from its beginning. */
const KERNEL_AT = 0;
const SCRATCH_AT = KERNEL_AT + 4 * SINC_TAPS;
const DELAYS_AT = SCRATCH_AT + 4 * STEP_FRAMES;
const READ_AT = DELAYS_AT + 8 * STEP_FRAMES;
const TABLE_AT = READ_AT + 8 * STEP_FRAMES;
const BYTES = TABLE_AT + 4 * SINC_TABLE.length;

interface Work {
  readStanding(from: number, kernel: number, scratch: number, to: number): void;
  readMoving(
    ring: number,
    place: number,
    mask: number,
    delays: number,
    frames: number,
    table: number,
    to: number,
  ): boolean | number;
}

/**
 * Reads delay lines whose rings are in the same memory as it: what DelayLine.readFixed and readMoving do, by
 * WebAssembly.
 */
export class LineReader {
  /** Bytes that it occupies, a multiple of sixteen. */
  static readonly bytes = BYTES;
  private readonly coefficients: Float32Array;
  private readonly delays: Float64Array;
  private readonly read: Float64Array;
  private readonly wanted = new Float64Array(SINC_TAPS);
  private readonly at: number;
  private fraction = -1;

  private constructor(
    private readonly work: Work,
    { memory, at }: KernelRoom,
  ) {
    this.at = at;
    this.coefficients = new Float32Array(memory.buffer, at + KERNEL_AT, SINC_TAPS);
    this.delays = new Float64Array(memory.buffer, at + DELAYS_AT, STEP_FRAMES);
    this.read = new Float64Array(memory.buffer, at + READ_AT, STEP_FRAMES);
    new Float32Array(memory.buffer, at + TABLE_AT, SINC_TABLE.length).set(SINC_TABLE);
  }

  /** `null` where the kernel cannot run. */
  static create(room: KernelRoom): LineReader | null {
    const kernel = joinKernel(CODE, room.memory);
    return kernel && new LineReader(kernel.exports as unknown as Work, room);
  }

  /** Reads a block at one fractional delay; false where it cannot, and nothing was read. */
  readFixed(line: DelayLine, delay: number, out: Float64Array): boolean {
    const fraction = DelayLine.fractionAt(delay);
    const from = delay < SHORT_BELOW || fraction < 1e-7 || fraction > 1 - 1e-7 ? -1 : line.windowAt(delay, STEP_FRAMES);
    if (from < 0) return false;
    if (fraction !== this.fraction) {
      this.fraction = fraction;
      sincCoefficients(fraction, this.wanted);
      for (let k = 0; k < SINC_TAPS; k += 1) this.coefficients[k] = this.wanted[k]!;
    }
    this.work.readStanding(
      line.ring.byteOffset + 4 * from,
      this.at + KERNEL_AT,
      this.at + SCRATCH_AT,
      this.at + READ_AT,
    );
    copyBlock(this.read, out);
    return true;
  }

  /**
   * Reads `n` samples, each at its own delay; false when one is too short for the long kernel, and nothing was read.
   */
  moving(line: DelayLine, delays: Float64Array, n: number, out: Float64Array): boolean {
    copyBlock(delays, this.delays);
    if (
      !this.work.readMoving(
        line.ring.byteOffset,
        line.place,
        line.mask,
        this.at + DELAYS_AT,
        n,
        this.at + TABLE_AT,
        this.at + READ_AT,
      )
    )
      return false;
    copyBlock(this.read, out);
    return true;
  }
}

/** A delay line that is read by a kernel where possible. Blocks of 64 samples. */
class ReadLine extends DelayLine {
  constructor(
    maxDelay: number,
    ring: Float32Array<ArrayBuffer>,
    private readonly reader: LineReader,
  ) {
    super(maxDelay, STEP_FRAMES, ring);
  }

  override readFixed(delay: number, n: number, out: Float64Array): void {
    if (n < STEP_FRAMES || !this.reader.readFixed(this, delay, out)) super.readFixed(delay, n, out);
  }

  override readMoving(delays: Float64Array, n: number, out: Float64Array): void {
    if (!this.reader.moving(this, delays, n, out)) super.readMoving(delays, n, out);
  }
}

/**
 * Delay lines that share a reader and its memory.
 * @param maxDelay longest delay in samples
 * @param withKernel false leaves the work to TypeScript, which tests compare
 */
export function readLines(count: number, maxDelay: number, withKernel = true): readonly DelayLine[] {
  const size = ringSize(maxDelay, STEP_FRAMES);
  const kernel = withKernel ? startKernel(CODE, LineReader.bytes + 4 * count * size) : null;
  const reader = kernel && LineReader.create({ memory: kernel.memory, at: 0 });
  return Array.from({ length: count }, (_, i) =>
    reader
      ? new ReadLine(maxDelay, new Float32Array(kernel!.memory.buffer, LineReader.bytes + 4 * i * size, size), reader)
      : new DelayLine(maxDelay, STEP_FRAMES),
  );
}

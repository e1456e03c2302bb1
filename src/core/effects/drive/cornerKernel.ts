import { STEP_FRAMES } from '../../dsp/blocks';
import { CORNER_FRAMES } from '../../dsp/bandlimitedCorner';
import { CORNERS_BYTES } from '../../dsp/kernels/corners/bytes';
import { joinKernel, type KernelRoom } from '../../dsp/kernels/load';
import type { DrawnCurve } from './curves';
import { DRAWN_POINTS } from './params';

/** Offsets in the memory, in bytes, as kernels/corners/kernel.as.ts has it. */
const HISTORIES_AT = 32;
const HISTORY_FLOATS = 16;
const SLOPES_AT = 96;
const CURVATURES_AT = 132;
const TABLE_AT = 256;
const Y_AT = 6528;
/** Bytes of memory that it needs. */
export const CORNER_ROOM = Y_AT + 4 * (CORNER_FRAMES + 8 * STEP_FRAMES);

type Shape = (room: number, side: number, cells: number, kind: number, n: number, drive: number, step: number) => void;

/** Curves with corners as WebAssembly, in the memory of the oversampler, so that nothing is copied. */
export class CornerKernel {
  private readonly histories: Float32Array;
  private readonly slopes: Float32Array;
  private readonly curvatures: Float32Array;
  private readonly table: Float32Array;
  /** Version of the drawn curve that is in the memory. */
  private version = -1;

  private constructor(
    private readonly work: Shape,
    private readonly room: KernelRoom,
  ) {
    const { buffer } = room.memory;
    this.histories = new Float32Array(buffer, room.at + HISTORIES_AT, HISTORY_FLOATS);
    this.slopes = new Float32Array(buffer, room.at + SLOPES_AT, DRAWN_POINTS);
    this.table = new Float32Array(buffer, room.at + TABLE_AT, (Y_AT - TABLE_AT) / 4);
    this.curvatures = new Float32Array(buffer, room.at + CURVATURES_AT, DRAWN_POINTS);
  }

  /** @param room of CORNER_ROOM bytes  @returns null where WebAssembly cannot run it */
  static join(room: KernelRoom): CornerKernel | null {
    const kernel = joinKernel(CORNERS_BYTES, room.memory);
    return kernel && new CornerKernel(kernel.exports.shape as Shape, room);
  }

  clear(): void {
    this.histories.fill(0);
  }

  /** Copies a drawn curve; does nothing while it is unchanged. */
  takeDrawn(drawn: DrawnCurve): void {
    if (drawn.version === this.version) return;
    this.version = drawn.version;
    drawn.copyTable(this.table);
    for (let point = 0; point < DRAWN_POINTS; point += 1) {
      this.slopes[point] = drawn.slopeChange(point);
      this.curvatures[point] = drawn.curvatureChange(point);
    }
  }

  /**
   * @param at index of the first sample among the cells of the memory
   * @param kind 0 hard, 1 fold, 2 wrap, 3 drawn
   * @param step by which the gain grows with each sample
   */
  shape(side: 0 | 1, at: number, kind: number, n: number, drive: number, step: number): void {
    this.work(this.room.at, side, 4 * at, kind, n, drive, step);
  }
}

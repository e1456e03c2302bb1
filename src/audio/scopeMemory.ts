import { STEP_FRAMES, type StereoBlock } from '../core/dsp/blocks';
import type { Four } from '../core/analysis/channelAnalyser';
import type { StepListener } from '../core/engine/channel';

/**
 * Shared memory to which the audio thread writes the sound of one channel, before and after its effects, for the
 * analyser to read.
 */
const FRAMES = 65_536;
const MASK = FRAMES - 1;
const LANES = 4;
const HEADER_BYTES = 8;

export const makeScopeMemory = (): SharedArrayBuffer => new SharedArrayBuffer(HEADER_BYTES + LANES * FRAMES * 4);

const lanesOf = (memory: SharedArrayBuffer): Four =>
  [0, 1, 2, 3].map((lane) => new Float32Array(memory, HEADER_BYTES + lane * FRAMES * 4, FRAMES)) as unknown as Four;

/** The audio thread's side: a step at a time. */
export class ScopeWriter implements StepListener {
  private readonly head: Int32Array;
  private readonly lanes: Four;
  private at = 0;

  constructor(memory: SharedArrayBuffer) {
    this.head = new Int32Array(memory, 0, 1);
    this.lanes = lanesOf(memory);
  }

  heard(before: StereoBlock, after: StereoBlock): void {
    const { at, lanes } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      lanes[0][at + i] = before.left[i]!;
      lanes[1][at + i] = before.right[i]!;
      lanes[2][at + i] = after.left[i]!;
      lanes[3][at + i] = after.right[i]!;
    }
    this.at = (at + STEP_FRAMES) & MASK;
    Atomics.store(this.head, 0, this.at);
  }
}

/** The analyser's side: reads what has been written since it last read. */
export class ScopeReader {
  private readonly head: Int32Array;
  private readonly lanes: Four;
  private readonly out: Four = [
    new Float32Array(FRAMES),
    new Float32Array(FRAMES),
    new Float32Array(FRAMES),
    new Float32Array(FRAMES),
  ];
  private seen: number;

  constructor(memory: SharedArrayBuffer) {
    this.head = new Int32Array(memory, 0, 1);
    this.lanes = lanesOf(memory);
    this.seen = Atomics.load(this.head, 0);
  }

  /**
   * @param take called with the new samples, at the beginning of each array of `four`; not called where there are none
   * @returns number of new samples
   */
  read(take: (four: Four, frames: number) => void): number {
    const head = Atomics.load(this.head, 0);
    const frames = (head - this.seen) & MASK;
    for (let lane = 0; lane < LANES; lane += 1) {
      const [from, to] = [this.lanes[lane]!, this.out[lane]!];
      for (let i = 0; i < frames; i += 1) to[i] = from[(this.seen + i) & MASK]!;
    }
    this.seen = head;
    if (frames > 0) take(this.out, frames);
    return frames;
  }
}

import { makeRandom } from '../dsp/random';

export type WavDepth = '16' | '24' | '32f';
export const bytesOf = (depth: WavDepth): number => (depth === '16' ? 2 : depth === '24' ? 3 : 4);

const DITHER_START = 0x5a1f;

/** Samples as the bytes or whole steps of a file. 16 bits are dithered with triangular noise of one step, so quiet tails fade smoothly; 24 bits are rounded, 32 are the samples themselves. */
export class SampleWriter {
  private readonly random = makeRandom(DITHER_START);

  constructor(private readonly depth: WavDepth) {}

  /** Writes frames [from, to) of the channels, interleaved, from byte `at` on; gives the byte after them. */
  write(channels: readonly ArrayLike<number>[], from: number, to: number, out: DataView, at: number): number {
    const { depth } = this;
    const frame = channels.length * bytesOf(depth);
    if (depth === '24')
      channels.forEach((channel, c) =>
        write24(channel, from, to, new Uint8Array(out.buffer, out.byteOffset), at + 3 * c, frame),
      );
    else {
      let place = at;
      for (let i = from; i < to; i += 1) {
        for (const channel of channels) {
          if (depth === '32f') out.setFloat32(place, channel[i]!, true);
          else out.setInt16(place, this.step(channel[i]!), true);
          place += bytesOf(depth);
        }
      }
    }
    return at + (to - from) * frame;
  }

  /** A sample as a whole step of 16 or 24 bits. */
  step(x: number): number {
    return this.depth === '16' ? toStep(x * HALF_16 + this.random() - this.random(), HALF_16) : step24(x);
  }
}

/** Steps on either side of nothing, as readers count them: what was read from a file of 24 bits and is not changed is written as it was. */
const HALF_16 = 32_768;
const HALF_24 = 8_388_608;

const toStep = (value: number, half: number): number => Math.max(-half, Math.min(half - 1, Math.round(value)));

const step24 = (x: number): number => toStep(x * HALF_24, HALF_24);

/** One channel byte by byte: the view's own writing takes several times as long, and has no 24 bits. */
function write24(
  channel: ArrayLike<number>,
  from: number,
  to: number,
  out: Uint8Array,
  at: number,
  frame: number,
): void {
  for (let i = from, place = at; i < to; i += 1, place += frame) {
    const value = step24(channel[i]!);
    out[place] = value;
    out[place + 1] = value >> 8;
    out[place + 2] = value >> 16;
  }
}

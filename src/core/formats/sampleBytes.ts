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
    const bytes = bytesOf(depth);
    let place = at;
    for (let i = from; i < to; i += 1) {
      for (const channel of channels) {
        if (depth === '32f') out.setFloat32(place, channel[i]!, true);
        else if (depth === '16') out.setInt16(place, this.step(channel[i]!), true);
        else writeInt24(out, place, this.step(channel[i]!));
        place += bytes;
      }
    }
    return place;
  }

  /** A sample as a whole step of 16 or 24 bits. */
  step(x: number): number {
    return this.depth === '16' ? toStep(x * 32_767 + this.random() - this.random(), 32_767) : toStep(x * 8_388_607, 8_388_607);
  }
}

const toStep = (value: number, most: number): number => Math.max(-most - 1, Math.min(most, Math.round(value)));

function writeInt24(view: DataView, at: number, value: number): void {
  view.setInt16(at + 1, value >> 8, true);
  view.setUint8(at, value & 255);
}

import { open } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { FLOAT_WAV_HEAD_BYTES } from '../../src/core/formats/floatWav';
import { decodeFrames } from '../../src/core/formats/pcm';
import { bytesOf, SampleWriter, type WavDepth } from '../../src/core/formats/sampleBytes';
import { wavHead } from '../../src/core/formats/wavHead';
import type { SoundInfo } from '../../src/core/piece/soundInfo';

/** Frames converted in one go: a millisecond or so, between which other requests are answered. */
const BLOCK = 8192;

/**
 * A stored sound as a WAV file of another depth, converted block by block while it is sent.
 * @returns its length in bytes and its content
 */
export function wavDownload(
  path: string,
  info: SoundInfo,
  depth: WavDepth,
): { readonly length: number; readonly stream: Readable } {
  const { frames, channels, sampleRate } = info;
  const head = wavHead({ channels, sampleRate, depth, frames });
  const dataBytes = frames * channels * bytesOf(depth);
  return {
    length: head.length + dataBytes + (dataBytes & 1),
    stream: Readable.from(blocks(path, info, depth, head, dataBytes & 1), { objectMode: false }),
  };
}

async function* blocks(
  path: string,
  { frames, channels }: SoundInfo,
  depth: WavDepth,
  head: Uint8Array,
  padding: number,
): AsyncGenerator<Uint8Array> {
  const file = await open(path, 'r');
  try {
    yield head;
    const writer = new SampleWriter(depth);
    const stored = new Uint8Array(BLOCK * channels * 4);
    const samples = Array.from({ length: channels }, () => new Float32Array(BLOCK));
    for (let from = 0; from < frames; from += BLOCK) {
      const n = Math.min(BLOCK, frames - from);
      await file.read(stored, 0, n * channels * 4, FLOAT_WAV_HEAD_BYTES + from * channels * 4);
      decodeFrames(stored, { channels, coding: 'f32le' }, samples, n);
      const out = new Uint8Array(n * channels * bytesOf(depth));
      writer.write(samples, 0, n, new DataView(out.buffer), 0);
      yield out;
    }
    if (padding > 0) yield new Uint8Array(padding);
  } finally {
    await file.close();
  }
}

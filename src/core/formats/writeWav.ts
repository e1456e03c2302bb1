import { makeRandom } from '../dsp/random';
import type { Audio } from './audio';

export type WavDepth = '16' | '24' | '32f';

const HEADER_BYTES = 44;
const DITHER_START = 0x5a1f;

/**
 * A WAV file's bytes. 16 bits are dithered with triangular noise of one step, so quiet tails fade smoothly;
 * 24 bits are rounded, 32 are the samples themselves.
 */
export function writeWav(audio: Audio, depth: WavDepth): Uint8Array {
  const count = audio.channels.length;
  const frames = audio.channels[0]?.length ?? 0;
  const bytesPerSample = depth === '16' ? 2 : depth === '24' ? 3 : 4;
  const dataBytes = frames * count * bytesPerSample;
  const out = new Uint8Array(HEADER_BYTES + dataBytes + (dataBytes & 1));
  const view = new DataView(out.buffer);
  writeHeader(view, count, audio.sampleRate, bytesPerSample, depth === '32f', dataBytes);
  const random = makeRandom(DITHER_START);
  let at = HEADER_BYTES;
  for (let i = 0; i < frames; i += 1) {
    for (let c = 0; c < count; c += 1) {
      const x = audio.channels[c]![i]!;
      if (depth === '32f') view.setFloat32(at, x, true);
      else if (depth === '16') view.setInt16(at, toStep(x * 32767 + random() - random(), 32767), true);
      else writeInt24(view, at, toStep(x * 8388607, 8388607));
      at += bytesPerSample;
    }
  }
  return out;
}

const toStep = (value: number, most: number): number => Math.max(-most - 1, Math.min(most, Math.round(value)));

function writeInt24(view: DataView, at: number, value: number): void {
  view.setInt16(at + 1, value >> 8, true);
  view.setUint8(at, value & 255);
}

function writeHeader(view: DataView, channels: number, rate: number, bytes: number, float: boolean, dataBytes: number): void {
  const text = (at: number, word: string): void => {
    for (let i = 0; i < 4; i += 1) view.setUint8(at + i, word.charCodeAt(i));
  };
  text(0, 'RIFF');
  view.setUint32(4, 36 + dataBytes + (dataBytes & 1), true);
  text(8, 'WAVE');
  text(12, 'fmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, float ? 3 : 1, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * channels * bytes, true);
  view.setUint16(32, channels * bytes, true);
  view.setUint16(34, bytes * 8, true);
  text(36, 'data');
  view.setUint32(40, dataBytes, true);
}

import { UnreadableSound, type Audio } from './audio';

const HEADER_BYTES = 44;
const FLOAT = 3;

/**
 * Reads the 32-bit float WAV that the server keeps, as `writeWav` lays it out; fast, and small enough for the browser.
 * @throws UnreadableSound for anything else
 */
export function readFloatWav(bytes: Uint8Array): Audio {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < HEADER_BYTES || view.getUint16(20, true) !== FLOAT || view.getUint16(34, true) !== 32) {
    throw new UnreadableSound('This is not a sound as the server keeps it.');
  }
  const count = view.getUint16(22, true);
  const frames = view.getUint32(40, true) / 4 / count;
  if (HEADER_BYTES + frames * count * 4 > bytes.length) throw new UnreadableSound('This sound came only in part. Load it again.');
  const samples = new Float32Array(bytes.buffer, bytes.byteOffset + HEADER_BYTES, frames * count);
  if (count === 1) return { sampleRate: view.getUint32(24, true), channels: [samples.slice()] };
  const channels = Array.from({ length: count }, () => new Float32Array(frames));
  channels.forEach((channel, c) => {
    for (let i = 0, at = c; i < frames; i += 1, at += count) channel[i] = samples[at]!;
  });
  return { sampleRate: view.getUint32(24, true), channels };
}

import { UnreadableSound, type Audio } from './audio';

/** Bytes before the first sample of a sound as the server keeps it. */
export const FLOAT_WAV_HEAD_BYTES = 44;
const FLOAT = 3;

/** Length in bytes of a sound as the server keeps it. */
export const floatWavBytes = (frames: number, channels: number): number => FLOAT_WAV_HEAD_BYTES + 4 * frames * channels;

/**
 * Reads the 32-bit float WAV that the server keeps, as `writeWav` lays it out; fast, and small enough for the browser.
 * @throws UnreadableSound for anything else
 */
export function readFloatWav(bytes: Uint8Array): Audio {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const known =
    bytes.length >= FLOAT_WAV_HEAD_BYTES && view.getUint16(20, true) === FLOAT && view.getUint16(34, true) === 32;
  const count = known ? view.getUint16(22, true) : 0;
  if (count !== 1 && count !== 2) throw new UnreadableSound('This is not a sound as the server keeps it.');
  const frames = Math.floor(view.getUint32(40, true) / 4 / count);
  if (floatWavBytes(frames, count) > bytes.length)
    throw new UnreadableSound('This sound came only in part. Load it again.');
  const samples = new Float32Array(bytes.buffer, bytes.byteOffset + FLOAT_WAV_HEAD_BYTES, frames * count);
  if (count === 1) return { sampleRate: view.getUint32(24, true), channels: [samples.slice()] };
  const channels = Array.from({ length: count }, () => new Float32Array(frames));
  channels.forEach((channel, c) => {
    for (let i = 0, at = c; i < frames; i += 1, at += count) channel[i] = samples[at]!;
  });
  return { sampleRate: view.getUint32(24, true), channels };
}

import { WaveFile } from 'wavefile';
import { UnreadableSound, type Audio } from './audio';

/**
 * Reads PCM of 8 to 32 bits, float and extensible WAV.
 * @throws UnreadableSound saying what is wrong and what to do
 */
export function readWav(bytes: Uint8Array): Audio {
  const promised = promisedDataBytes(bytes);
  if (promised !== null && promised.present < promised.expected) {
    const share = Math.floor((100 * promised.present) / promised.expected);
    throw new UnreadableSound(`This WAV file was cut short: ${share} % of its sound is there. Copy or export it again.`);
  }
  try {
    const file = new WaveFile(bytes);
    const { numChannels, sampleRate } = file.fmt as { numChannels: number; sampleRate: number };
    file.toBitDepth('32f');
    const samples: unknown = file.getSamples(false, Float32Array);
    const list = (Array.isArray(samples) ? samples : [samples]) as Float32Array[];
    return { sampleRate, channels: list.slice(0, numChannels) };
  } catch (error) {
    throw new UnreadableSound(`This WAV file cannot be read (${error instanceof Error ? error.message : 'unknown reason'}). Export it again as 16, 24 or 32 bit WAV.`);
  }
}

/** How many bytes the data chunk says it has, and how many there are; null when there is no such chunk. */
function promisedDataBytes(bytes: Uint8Array): { expected: number; present: number } | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 12;
  while (at + 8 <= bytes.length) {
    const word = String.fromCharCode(bytes[at]!, bytes[at + 1]!, bytes[at + 2]!, bytes[at + 3]!);
    const size = view.getUint32(at + 4, true);
    if (word === 'data') return { expected: size, present: bytes.length - at - 8 };
    at += 8 + size + (size & 1);
  }
  return null;
}

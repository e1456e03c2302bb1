import { UnreadableSound, type Audio } from './audio';
import { fourLetters, memorySource, viewOf, type ByteSource } from './byteSource';
import { bytesPerSample, checkPcmLayout, decodePcm, type PcmLayout, type SampleCoding } from './pcm';

const PCM = 1;
const FLOAT = 3;
const EXTENSIBLE = 0xfffe;
/** Of a format chunk: as much as the extensible form has. */
const FORMAT_BYTES = 40;

type Format = Pick<PcmLayout, 'channels' | 'sampleRate' | 'coding'>;

const INTEGER_CODINGS: Readonly<Record<number, SampleCoding>> = { 8: 'u8', 16: 's16le', 24: 's24le', 32: 's32le' };
const FLOAT_CODINGS: Readonly<Record<number, SampleCoding>> = { 32: 'f32le', 64: 'f64le' };

/**
 * Reads a WAV file in memory.
 * @throws UnreadableSound saying what is wrong and what to do
 */
export const readWav = (bytes: Uint8Array): Audio => decodePcm(bytes, wavLayout(memorySource(bytes)));

/**
 * Finds the samples of a WAV file: PCM of 8, 16, 24 or 32 bits or 32 and 64 bit float, plain or extensible.
 * Source: Microsoft and IBM, "Multimedia Programming Interface and Data Specifications" (1991), and
 * Microsoft, "Multiple Channel Audio Data and WAVE Files" (2001).
 * @throws UnreadableSound saying what is wrong and what to do
 */
export function wavLayout(source: ByteSource): PcmLayout {
  const head = source.read(0, 12);
  if (head.length < 12 || fourLetters(head, 0) !== 'RIFF' || fourLetters(head, 8) !== 'WAVE') {
    throw new UnreadableSound('This is no WAV file, whatever its name says. Export it again as 16, 24 or 32 bit WAV.');
  }
  const { format, data } = findChunks(source);
  if (!format || !data) {
    const missing = format ? 'sound' : 'description';
    throw new UnreadableSound(`This WAV file lacks its ${missing}. Copy or export it again.`);
  }
  if (data.offset + data.size > source.length) {
    const share = Math.floor((100 * (source.length - data.offset)) / data.size);
    throw new UnreadableSound(
      `This WAV file was cut short: ${share} % of its sound is there. Copy or export it again.`,
    );
  }
  const frames = Math.floor(data.size / (bytesPerSample(format.coding) * format.channels));
  const layout = { ...format, frames, offset: data.offset };
  checkPcmLayout(layout, source.length, 'WAV');
  return layout;
}

interface Found {
  readonly format: Format | null;
  readonly data: { readonly offset: number; readonly size: number } | null;
}

function findChunks(source: ByteSource): Found {
  let format: Format | null = null;
  for (let at = 12; at + 8 <= source.length;) {
    const head = source.read(at, 8);
    const id = fourLetters(head, 0);
    const size = viewOf(head).getUint32(4, true);
    if (id === 'fmt ') format = readFormat(source.read(at + 8, Math.min(size, FORMAT_BYTES)));
    if (id === 'data') return { format, data: { offset: at + 8, size } };
    at += 8 + size + (size & 1);
  }
  return { format, data: null };
}

/** Null for a chunk that is too short to say anything. */
function readFormat(bytes: Uint8Array): Format | null {
  if (bytes.length < 16) return null;
  const view = viewOf(bytes);
  const tag = view.getUint16(0, true);
  const code = tag === EXTENSIBLE && bytes.length >= 26 ? view.getUint16(24, true) : tag;
  const channels = view.getUint16(2, true);
  const bits = view.getUint16(14, true);
  const coding = code === PCM ? INTEGER_CODINGS[bits] : code === FLOAT ? FLOAT_CODINGS[bits] : undefined;
  if (!coding || channels === 0) {
    throw new UnreadableSound(
      `This WAV file is coded in a way that is not read here (kind ${code}, ${bits} bit, ${channels} channels). Export it again as 16, 24 or 32 bit WAV.`,
    );
  }
  return { channels, sampleRate: view.getUint32(4, true), coding };
}

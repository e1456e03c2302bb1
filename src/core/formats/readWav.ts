import { UnreadableSound, type Audio } from './audio';

const PCM = 1;
const FLOAT = 3;
const EXTENSIBLE = 0xfffe;

interface Format {
  readonly code: number;
  readonly channels: number;
  readonly sampleRate: number;
  /** Bytes of one sample of one channel. */
  readonly width: number;
}

/**
 * Reads WAV with PCM of 8, 16, 24 or 32 bits or 32 and 64 bit float, plain or extensible.
 * Source: Microsoft and IBM, "Multimedia Programming Interface and Data Specifications" (1991), and
 * Microsoft, "Multiple Channel Audio Data and WAVE Files" (2001).
 * @throws UnreadableSound saying what is wrong and what to do
 */
export function readWav(bytes: Uint8Array): Audio {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 12 || word(view, 0) !== 'RIFF' || word(view, 8) !== 'WAVE') {
    throw new UnreadableSound('This is no WAV file, whatever its name says. Export it again as 16, 24 or 32 bit WAV.');
  }
  const { format, data } = findChunks(view);
  if (!format || !data) throw new UnreadableSound(`This WAV file lacks its ${format ? 'sound' : 'description'}. Copy or export it again.`);
  if (data.at + data.size > bytes.length) {
    const share = Math.floor((100 * (bytes.length - data.at)) / data.size);
    throw new UnreadableSound(`This WAV file was cut short: ${share} % of its sound is there. Copy or export it again.`);
  }
  const frames = Math.floor(data.size / (format.width * format.channels));
  const channels = Array.from({ length: format.channels }, (_, c) => {
    const out = new Float32Array(frames);
    readChannel(view, data.at + c * format.width, format, out);
    return out;
  });
  return { sampleRate: format.sampleRate, channels };
}

const word = (view: DataView, at: number): string => String.fromCharCode(view.getUint8(at), view.getUint8(at + 1), view.getUint8(at + 2), view.getUint8(at + 3));

function findChunks(view: DataView): { format: Format | null; data: { at: number; size: number } | null } {
  let format: Format | null = null;
  for (let at = 12; at + 8 <= view.byteLength; ) {
    const id = word(view, at);
    const size = view.getUint32(at + 4, true);
    if (id === 'fmt ' && at + 24 <= view.byteLength) format = readFormat(view, at + 8, size);
    if (id === 'data') return { format, data: { at: at + 8, size } };
    at += 8 + size + (size & 1);
  }
  return { format, data: null };
}

function readFormat(view: DataView, at: number, size: number): Format {
  const tag = view.getUint16(at, true);
  const code = tag === EXTENSIBLE && size >= 26 && at + 26 <= view.byteLength ? view.getUint16(at + 24, true) : tag;
  const channels = view.getUint16(at + 2, true);
  const bits = view.getUint16(at + 14, true);
  const known = (code === PCM && [8, 16, 24, 32].includes(bits)) || (code === FLOAT && [32, 64].includes(bits));
  if (!known || channels === 0) {
    throw new UnreadableSound(`This WAV file is coded in a way that is not read here (kind ${code}, ${bits} bit). Export it again as 16, 24 or 32 bit WAV.`);
  }
  return { code, channels, sampleRate: view.getUint32(at + 4, true), width: bits / 8 };
}

/** One loop for each coding: files of hundreds of megabytes pass through here. */
function readChannel(view: DataView, from: number, { code, channels, width }: Format, out: Float32Array): void {
  const step = width * channels;
  const end = out.length;
  if (code === FLOAT && width === 4) for (let i = 0, at = from; i < end; i += 1, at += step) out[i] = view.getFloat32(at, true);
  else if (code === FLOAT) for (let i = 0, at = from; i < end; i += 1, at += step) out[i] = view.getFloat64(at, true);
  else if (width === 1) for (let i = 0, at = from; i < end; i += 1, at += step) out[i] = (view.getUint8(at) - 128) / 128;
  else if (width === 2) for (let i = 0, at = from; i < end; i += 1, at += step) out[i] = view.getInt16(at, true) / 32768;
  else if (width === 3) for (let i = 0, at = from; i < end; i += 1, at += step) out[i] = ((view.getInt8(at + 2) << 16) | view.getUint16(at, true)) / 8388608;
  else for (let i = 0, at = from; i < end; i += 1, at += step) out[i] = view.getInt32(at, true) / 2147483648;
}

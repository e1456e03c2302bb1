import { UnreadableSound, type Audio } from './audio';

interface Common {
  readonly channels: number;
  readonly frames: number;
  readonly bits: number;
  readonly sampleRate: number;
  readonly coding: string;
}

/**
 * Reads AIFF and AIFF-C with plain PCM of 8 to 32 bits, in either byte order, or 32 and 64 bit float.
 * Source: Apple Computer, "Audio Interchange File Format: AIFF-C" (1991).
 * @throws UnreadableSound saying what is wrong and what to do
 */
export function readAiff(bytes: Uint8Array): Audio {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const chunks = listChunks(view);
  const common = chunks.get('COMM');
  const sound = chunks.get('SSND');
  if (!common || !sound || common.size < 18 || sound.size < 8) throw new UnreadableSound('This AIFF file lacks its description or its sound. Export it again.');
  const about = readCommon(view, common.at, common.size);
  const from = sound.at + 8 + view.getUint32(sound.at, false);
  const width = Math.ceil(about.bits / 8);
  const needed = about.frames * about.channels * width;
  if (from + needed > bytes.length) {
    throw new UnreadableSound(`This AIFF file was cut short: ${Math.floor((100 * (bytes.length - from)) / needed)} % of its sound is there. Copy or export it again.`);
  }
  const read = sampleReader(view, about.coding, width);
  const channels = Array.from({ length: about.channels }, () => new Float32Array(about.frames));
  let at = from;
  for (let i = 0; i < about.frames; i += 1) {
    for (const channel of channels) {
      channel[i] = read(at);
      at += width;
    }
  }
  return { sampleRate: about.sampleRate, channels };
}

function listChunks(view: DataView): Map<string, { at: number; size: number }> {
  const found = new Map<string, { at: number; size: number }>();
  let at = 12;
  while (at + 8 <= view.byteLength) {
    const size = view.getUint32(at + 4, false);
    found.set(word(view, at), { at: at + 8, size });
    at += 8 + size + (size & 1);
  }
  return found;
}

const word = (view: DataView, at: number): string => String.fromCharCode(view.getUint8(at), view.getUint8(at + 1), view.getUint8(at + 2), view.getUint8(at + 3));

function readCommon(view: DataView, at: number, size: number): Common {
  return {
    channels: view.getUint16(at, false),
    frames: view.getUint32(at + 2, false),
    bits: view.getUint16(at + 6, false),
    sampleRate: Math.round(extended(view, at + 8)),
    coding: size >= 22 ? word(view, at + 18) : 'NONE',
  };
}

/** An 80-bit extended float, as AIFF writes its sample rate. */
function extended(view: DataView, at: number): number {
  const exponent = view.getUint16(at, false) & 0x7fff;
  const mantissa = view.getUint32(at + 2, false) * 4294967296 + view.getUint32(at + 6, false);
  return mantissa * Math.pow(2, exponent - 16446);
}

function sampleReader(view: DataView, coding: string, width: number): (at: number) => number {
  const little = coding === 'sowt';
  if (coding === 'fl32' || coding === 'FL32') return (at) => view.getFloat32(at, false);
  if (coding === 'fl64' || coding === 'FL64') return (at) => view.getFloat64(at, false);
  if (!['NONE', 'twos', 'sowt', 'in24', 'in32'].includes(coding)) {
    throw new UnreadableSound(`This AIFF file is packed as “${coding.trim()}”, which is not read here. Export it as plain AIFF or WAV.`);
  }
  if (width === 1) return (at) => view.getInt8(at) / 128;
  if (width === 2) return (at) => view.getInt16(at, little) / 32768;
  if (width === 3) return (at) => (little ? (view.getInt8(at + 2) << 16) | view.getUint16(at, true) : (view.getInt8(at) << 16) | view.getUint16(at + 1, false)) / 8388608;
  return (at) => view.getInt32(at, little) / 2147483648;
}

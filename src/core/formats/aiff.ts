import { UnreadableSound, type Audio } from './audio';
import { fourLetters, memorySource, viewOf, type ByteSource } from './byteSource';
import { checkPcmLayout, decodePcm, type PcmLayout, type SampleCoding } from './pcm';

/** Of a description chunk: as much as is read of it. */
const COMMON_BYTES = 22;

interface Chunk {
  readonly offset: number;
  readonly size: number;
}

type Common = Omit<PcmLayout, 'offset'>;

/** By bits, rounded up to whole bytes. */
const BIG_ENDIAN: readonly SampleCoding[] = ['s8', 's16be', 's24be', 's32be'];
const LITTLE_ENDIAN: readonly SampleCoding[] = ['s8', 's16le', 's24le', 's32le'];

/**
 * Reads an AIFF file in memory.
 * @throws UnreadableSound saying what is wrong and what to do
 */
export const readAiff = (bytes: Uint8Array): Audio => decodePcm(bytes, aiffLayout(memorySource(bytes)));

/**
 * Finds the samples of an AIFF or AIFF-C file with plain PCM of 1 to 32 bits, in either byte order, or 32 and 64 bit
 * float.
 * Source: Apple Computer, "Audio Interchange File Format: AIFF-C" (1991).
 * @throws UnreadableSound saying what is wrong and what to do
 */
export function aiffLayout(source: ByteSource): PcmLayout {
  const { common, sound } = findChunks(source);
  if (!common || !sound || common.size < 18 || sound.size < 8) {
    throw new UnreadableSound('This AIFF file lacks its description or its sound. Export it again.');
  }
  const about = readCommon(source.read(common.offset, Math.min(common.size, COMMON_BYTES)));
  const head = source.read(sound.offset, 8);
  const offset = sound.offset + 8 + (head.length < 8 ? 0 : viewOf(head).getUint32(0, false));
  const layout = { ...about, offset };
  checkPcmLayout(layout, source.length, 'AIFF');
  return layout;
}

/** The first description and the first sound: more of them are passed over, whatever their number. */
function findChunks(source: ByteSource): { readonly common: Chunk | null; readonly sound: Chunk | null } {
  let common: Chunk | null = null;
  let sound: Chunk | null = null;
  for (let at = 12; at + 8 <= source.length && !(common && sound);) {
    const head = source.read(at, 8);
    const id = fourLetters(head, 0);
    const size = viewOf(head).getUint32(4, false);
    if (id === 'COMM') common ??= { offset: at + 8, size };
    if (id === 'SSND') sound ??= { offset: at + 8, size };
    at += 8 + size + (size & 1);
  }
  return { common, sound };
}

function readCommon(bytes: Uint8Array): Common {
  if (bytes.length < 18)
    throw new UnreadableSound('This AIFF file was cut short in its description. Copy or export it again.');
  const view = viewOf(bytes);
  return {
    channels: view.getUint16(0, false),
    frames: view.getUint32(2, false),
    sampleRate: Math.round(extended(view, 8)),
    coding: codingOf(bytes.length >= COMMON_BYTES ? fourLetters(bytes, 18) : 'NONE', view.getUint16(6, false)),
  };
}

/** An 80-bit extended float, as AIFF writes its sample rate. */
function extended(view: DataView, at: number): number {
  const exponent = view.getUint16(at, false) & 0x7fff;
  const mantissa = view.getUint32(at + 2, false) * 4294967296 + view.getUint32(at + 6, false);
  return mantissa * Math.pow(2, exponent - 16446);
}

function codingOf(name: string, bits: number): SampleCoding {
  if (name.toLowerCase() === 'fl32') return 'f32be';
  if (name.toLowerCase() === 'fl64') return 'f64be';
  if (!['NONE', 'twos', 'sowt', 'in24', 'in32'].includes(name)) {
    throw new UnreadableSound(
      `This AIFF file is packed as “${name.trim()}”, which is not read here. Export it as plain AIFF or WAV.`,
    );
  }
  const coding = (name === 'sowt' ? LITTLE_ENDIAN : BIG_ENDIAN)[Math.ceil(bits / 8) - 1];
  if (!coding)
    throw new UnreadableSound(
      `This AIFF file says ${bits} bits; 1 to 32 are read. Export it as 16 or 24 bit AIFF or WAV.`,
    );
  return coding;
}

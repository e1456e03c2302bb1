import { aiffLayout } from '../../src/core/formats/aiff';
import { UnreadableSound } from '../../src/core/formats/audio';
import type { ByteSource } from '../../src/core/formats/byteSource';
import { bytesPerFrame, checkSampleRate, decodeFrames, type PcmLayout } from '../../src/core/formats/pcm';
import { wavLayout } from '../../src/core/formats/readWav';
import { FileSource } from './fileSource';
import { FloatWavFile, type WrittenSound } from './floatWavFile';

export const LONGEST_MINUTES = 30;
export const MAX_STORED_CHANNELS = 2;
/** Frames of an uncompressed file that are converted at once. */
const PCM_BLOCK = 1 << 14;
/** Bytes of a compressed file that are decoded at once, at least and at most. */
const MIN_PACKED_BLOCK = 128;
const MAX_PACKED_BLOCK = 4096;
/** Frames that a block shall unpack to, at most: 128 bytes of the densest FLAC are 400 000 already. */
const PACKED_FRAMES = 1 << 16;

/** Enough of a file to know what it is. */
const HEAD_BYTES = 64;

type PackedKind = 'flac' | 'mp3' | 'vorbis' | 'opus';
type Kind = 'wav' | 'aiff' | PackedKind;

const ascii = (bytes: Uint8Array, at: number, length: number): string =>
  String.fromCharCode(...bytes.subarray(at, at + length));

/** The format of a file by its first bytes, whatever its extension. */
export function kindOf(bytes: Uint8Array): Kind | null {
  const head = ascii(bytes, 0, 4);
  if (head === 'RIFF' && ascii(bytes, 8, 4) === 'WAVE') return 'wav';
  if (head === 'FORM' && ascii(bytes, 8, 3) === 'AIF') return 'aiff';
  if (head === 'fLaC') return 'flac';
  if (head === 'OggS') return ascii(bytes, 28, 8) === 'OpusHead' ? 'opus' : 'vorbis';
  if (head.startsWith('ID3') || (bytes[0] === 0xff && ((bytes[1] ?? 0) & 0xe0) === 0xe0)) return 'mp3';
  return null;
}

interface DecodedBlock {
  readonly channelData: Float32Array[];
  readonly sampleRate: number;
  readonly samplesDecoded: number;
}

interface PackedDecoder {
  readonly ready: Promise<void>;
  decode(bytes: Uint8Array): DecodedBlock | Promise<DecodedBlock>;
  flush?(): Promise<DecodedBlock>;
  free(): void;
}

const PACKED_DECODERS: Readonly<Record<PackedKind, () => Promise<PackedDecoder>>> = {
  flac: async () => new (await import('@wasm-audio-decoders/flac')).FLACDecoder(),
  vorbis: async () => new (await import('@wasm-audio-decoders/ogg-vorbis')).OggVorbisDecoder(),
  opus: async () => new (await import('ogg-opus-decoder')).OggOpusDecoder(),
  mp3: async () => new (await import('mpg123-decoder')).MPEGDecoder(),
};

/** Channels that the head of a compressed file announces; null where that is only known once frames are decoded. */
function announcedChannels(kind: PackedKind, head: Uint8Array): number | null {
  if (kind === 'flac') return head.length > 20 ? ((head[20]! >> 1) & 7) + 1 : null;
  if (kind === 'vorbis') return head[39] ?? null;
  return kind === 'opus' ? (head[37] ?? null) : null;
}

/** Options of decoding. */
export interface DecodeOptions {
  /** Files of silence alone are refused as uploads, and accepted as sounds of an imported piece. */
  readonly allowSilence: boolean;
  /** Called again and again while it goes on. */
  readonly onProgress: () => void;
}

/**
 * Decodes any sound file we take into the form that the server keeps, block by block: memory does not grow with the
 * file. What a header claims is held against the bytes that are there and against the limits before anything is
 * decoded, and what a compressed file unpacks to while it is.
 * @param to path of the file to write; removed by the caller when this throws
 * @throws UnreadableSound saying what is wrong with the file and what to do
 */
export async function decodeSound(from: string, to: string, options: DecodeOptions): Promise<WrittenSound> {
  const source = new FileSource(from);
  const sound = new GuardedSound(to);
  try {
    const kind = kindOf(source.read(0, HEAD_BYTES));
    if (!kind) {
      throw new UnreadableSound(
        'This is not a sound file that can be read, whatever its name says. WAV, AIFF, FLAC, MP3 and OGG are.',
      );
    }
    if (kind === 'wav') decodePcmFile(source, wavLayout(source), sound, options);
    else if (kind === 'aiff') decodePcmFile(source, aiffLayout(source), sound, options);
    else await decodePackedFile(kind, source, sound, options);
    return sound.finish(options.allowSilence);
  } finally {
    sound.discard();
    source.close();
  }
}

function decodePcmFile(
  source: ByteSource,
  layout: PcmLayout,
  sound: GuardedSound,
  { onProgress }: DecodeOptions,
): void {
  sound.begin(layout.sampleRate, layout.channels);
  sound.checkLength(layout.frames);
  const width = bytesPerFrame(layout);
  const channels = Array.from({ length: layout.channels }, () => new Float32Array(PCM_BLOCK));
  for (let done = 0; done < layout.frames; done += PCM_BLOCK) {
    const n = Math.min(PCM_BLOCK, layout.frames - done);
    decodeFrames(source.read(layout.offset + done * width, n * width), layout, channels, n);
    sound.write(channels, n);
    onProgress();
  }
}

async function decodePackedFile(
  kind: PackedKind,
  source: ByteSource,
  sound: GuardedSound,
  { onProgress }: DecodeOptions,
): Promise<void> {
  checkChannels(announcedChannels(kind, source.read(0, HEAD_BYTES)) ?? 1);
  let decoder: PackedDecoder | null = null;
  try {
    decoder = await PACKED_DECODERS[kind]();
    await decoder.ready;
    let block = MIN_PACKED_BLOCK;
    for (let at = 0; at < source.length;) {
      // A copy: the decoders keep views of what they were given.
      const bytes = new Uint8Array(source.read(at, block));
      at += bytes.length;
      const decoded = await decoder.decode(bytes);
      sound.take(decoded);
      if (decoded.samplesDecoded > PACKED_FRAMES) block = MIN_PACKED_BLOCK;
      else if (decoded.samplesDecoded < PACKED_FRAMES / 4) block = Math.min(MAX_PACKED_BLOCK, 2 * block);
      onProgress();
    }
    if (decoder.flush) sound.take(await decoder.flush());
  } catch (error) {
    if (error instanceof UnreadableSound || !(error instanceof Error) || 'code' in error) throw error;
    throw new UnreadableSound(
      `This ${kind.toUpperCase()} file is damaged (${error.message}). Export it again, or as WAV.`,
    );
  } finally {
    release(decoder);
  }
}

/** A decoder that met a damaged file may fail at being let go, too; its memory goes with it. */
function release(decoder: PackedDecoder | null): void {
  try {
    decoder?.free();
  } catch {
    // What was wrong with the file is known already.
  }
}

function checkChannels(channels: number): void {
  if (channels >= 1 && channels <= MAX_STORED_CHANNELS) return;
  throw new UnreadableSound(
    `This file has ${channels} channels; mono and stereo are read. Mix it down to stereo first.`,
  );
}

/** Writes decoded blocks, and checks the limits at each. */
class GuardedSound {
  private file: FloatWavFile | null = null;

  constructor(private readonly path: string) {}

  begin(sampleRate: number, channels: number): void {
    checkChannels(channels);
    checkSampleRate(sampleRate);
    this.file = new FloatWavFile(this.path, sampleRate, channels);
  }

  /** @throws UnreadableSound when the number of frames exceeds the limit */
  checkLength(frames: number): void {
    const minutes = frames / this.file!.sampleRate / 60;
    if (minutes <= LONGEST_MINUTES) return;
    throw new UnreadableSound(
      `This file is ${Math.floor(minutes)} minutes long or longer; up to ${LONGEST_MINUTES} are taken. Cut it into parts.`,
    );
  }

  /** A block from a decoder; the first one with samples determines rate and channels. */
  take({ channelData, sampleRate, samplesDecoded }: DecodedBlock): void {
    const frames = Math.min(samplesDecoded, ...channelData.map(({ length }) => length));
    if (channelData.length === 0 || !(frames > 0)) return;
    if (!this.file) this.begin(sampleRate, channelData.length);
    if (this.file!.channels !== channelData.length || this.file!.sampleRate !== sampleRate) {
      throw new UnreadableSound('This file changes its channels or its rate half way. Export it again, or as WAV.');
    }
    this.write(channelData, frames);
  }

  write(channels: readonly Float32Array[], frames: number): void {
    this.checkLength(this.file!.frames + frames);
    this.file!.write(channels, frames);
  }

  finish(allowSilence: boolean): WrittenSound {
    if (!this.file || this.file.frames === 0) throw new UnreadableSound('This file holds no samples. Export it again.');
    const written = this.file.finish();
    this.file = null;
    if (!allowSilence && written.peak === 0) {
      throw new UnreadableSound('This file holds only silence, from start to end. Check the export.');
    }
    return written;
  }

  /** Closes what was not finished. */
  discard(): void {
    this.file?.discard();
  }
}

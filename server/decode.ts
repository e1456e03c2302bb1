import { peakOf } from '../src/core/analysis/levels';
import { readAiff } from '../src/core/formats/aiff';
import { UnreadableSound, type Audio } from '../src/core/formats/audio';
import { readWav } from '../src/core/formats/readWav';

const LONGEST_MINUTES = 30;

type Kind = 'wav' | 'aiff' | 'flac' | 'mp3' | 'vorbis' | 'opus';

const ascii = (bytes: Uint8Array, at: number, length: number): string => String.fromCharCode(...bytes.subarray(at, at + length));

/** What a file is by its first bytes, whatever its name says. */
export function kindOf(bytes: Uint8Array): Kind | null {
  const head = ascii(bytes, 0, 4);
  if ((head === 'RIFF' || head === 'RIFX' || head === 'RF64') && ascii(bytes, 8, 4) === 'WAVE') return 'wav';
  if (head === 'FORM' && ascii(bytes, 8, 3) === 'AIF') return 'aiff';
  if (head === 'fLaC') return 'flac';
  if (head === 'OggS') return ascii(bytes, 28, 8) === 'OpusHead' ? 'opus' : 'vorbis';
  if (head.startsWith('ID3') || (bytes[0] === 0xff && ((bytes[1] ?? 0) & 0xe0) === 0xe0)) return 'mp3';
  return null;
}

interface Decoded {
  channelData: Float32Array[];
  sampleRate: number;
  samplesDecoded: number;
}

async function decodePacked(kind: 'flac' | 'mp3' | 'vorbis' | 'opus', bytes: Uint8Array): Promise<Decoded> {
  if (kind === 'mp3') {
    const { MPEGDecoder } = await import('mpg123-decoder');
    const decoder = new MPEGDecoder();
    await decoder.ready;
    return decoder.decode(bytes);
  }
  const make = {
    flac: async () => new (await import('@wasm-audio-decoders/flac')).FLACDecoder(),
    vorbis: async () => new (await import('@wasm-audio-decoders/ogg-vorbis')).OggVorbisDecoder(),
    opus: async () => new (await import('ogg-opus-decoder')).OggOpusDecoder(),
  };
  const decoder = await make[kind]();
  await decoder.ready;
  return decoder.decodeFile(bytes);
}

/**
 * Any sound file we take, as samples at its own rate.
 * @throws UnreadableSound saying what is wrong with it and what to do
 */
export async function decodeSound(bytes: Uint8Array): Promise<Audio> {
  const kind = kindOf(bytes);
  if (!kind) throw new UnreadableSound('This is not a sound file that can be read, whatever its name says. WAV, AIFF, FLAC, MP3 and OGG are.');
  const audio = kind === 'wav' ? readWav(bytes) : kind === 'aiff' ? readAiff(bytes) : await unpack(kind, bytes);
  check(audio);
  return audio;
}

async function unpack(kind: 'flac' | 'mp3' | 'vorbis' | 'opus', bytes: Uint8Array): Promise<Audio> {
  let decoded: Decoded;
  try {
    decoded = await decodePacked(kind, bytes);
  } catch (error) {
    throw new UnreadableSound(`This ${kind.toUpperCase()} file is damaged (${error instanceof Error ? error.message : 'unknown reason'}). Export it again, or as WAV.`);
  }
  return { sampleRate: decoded.sampleRate, channels: decoded.channelData.map((channel) => channel.slice(0, decoded.samplesDecoded)) };
}

function check({ channels, sampleRate }: Audio): void {
  const frames = channels[0]?.length ?? 0;
  if (frames === 0) throw new UnreadableSound('This file holds no samples. Export it again.');
  if (channels.length > 2) throw new UnreadableSound(`This file has ${channels.length} channels; mono and stereo are read. Mix it down to stereo first.`);
  if (sampleRate < 8000 || sampleRate > 384_000) throw new UnreadableSound(`This file says ${sampleRate} Hz; 8 to 384 kHz are read. Export it at 48 kHz.`);
  if (frames > LONGEST_MINUTES * 60 * sampleRate) throw new UnreadableSound(`This file is ${Math.round(frames / sampleRate / 60)} minutes long; up to ${LONGEST_MINUTES} are taken. Cut it into parts.`);
  for (const channel of channels) clean(channel);
  if (channels.every((channel) => peakOf(channel) === 0)) throw new UnreadableSound('This file holds only silence, from start to end. Check the export.');
}

/** Not-a-number and infinite samples, which some float files hold, become silence. */
function clean(channel: Float32Array): void {
  for (let i = 0; i < channel.length; i += 1) if (!Number.isFinite(channel[i])) channel[i] = 0;
}

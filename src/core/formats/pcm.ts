import { UnreadableSound, type Audio } from './audio';
import { viewOf } from './byteSource';

/** How one sample is written: kind, bits and byte order. */
export type SampleCoding =
  'u8' | 's8' | 's16le' | 's16be' | 's24le' | 's24be' | 's32le' | 's32be' | 'f32le' | 'f32be' | 'f64le' | 'f64be';

/** Where the samples of an uncompressed file are; channels are interleaved. */
export interface PcmLayout {
  /** 1 to 32. */
  readonly channels: number;
  /** In Hz. */
  readonly sampleRate: number;
  readonly frames: number;
  /** Byte of the first sample. */
  readonly offset: number;
  readonly coding: SampleCoding;
}

export const MAX_CHANNELS = 32;
export const MIN_SAMPLE_RATE = 8000;
export const MAX_SAMPLE_RATE = 384_000;

export const bytesPerSample = (coding: SampleCoding): number =>
  coding.endsWith('8') ? 1 : parseInt(coding.slice(1), 10) / 8;

export const bytesPerFrame = ({ channels, coding }: PcmLayout): number => channels * bytesPerSample(coding);

/** @throws UnreadableSound when the rate is none that sound is kept at */
export function checkSampleRate(sampleRate: number): void {
  if (sampleRate >= MIN_SAMPLE_RATE && sampleRate <= MAX_SAMPLE_RATE) return;
  throw new UnreadableSound(`This file says ${sampleRate} Hz; 8 to 384 kHz are read. Export it at 48 kHz.`);
}

/**
 * Checks the sizes in a header against the bytes of the file, before anything is allocated.
 * @param length of the whole file in bytes
 * @param kind of file, for the message
 * @throws UnreadableSound
 */
export function checkPcmLayout(layout: PcmLayout, length: number, kind: string): void {
  const { channels, frames, offset, sampleRate } = layout;
  if (channels < 1 || channels > MAX_CHANNELS) {
    throw new UnreadableSound(
      `This ${kind} file says ${channels} channels; 1 to ${MAX_CHANNELS} are read. Export it as stereo.`,
    );
  }
  checkSampleRate(sampleRate);
  const needed = frames * bytesPerFrame(layout);
  if (offset + needed <= length) return;
  const share = Math.max(0, Math.floor((100 * (length - offset)) / needed));
  throw new UnreadableSound(
    `This ${kind} file was cut short: ${share} % of its sound is there. Copy or export it again.`,
  );
}

/** All of a file in memory as samples. */
export function decodePcm(bytes: Uint8Array, layout: PcmLayout): Audio {
  const channels = Array.from({ length: layout.channels }, () => new Float32Array(layout.frames));
  decodeFrames(bytes.subarray(layout.offset), layout, channels, layout.frames);
  return { sampleRate: layout.sampleRate, channels };
}

/**
 * Decodes whole frames from the beginning of `bytes`.
 * @param out a channel each, at least `frames` long; full scale is 1
 */
export function decodeFrames(
  bytes: Uint8Array,
  layout: Pick<PcmLayout, 'channels' | 'coding'>,
  out: readonly Float32Array[],
  frames: number,
): void {
  const width = bytesPerSample(layout.coding);
  const step = width * layout.channels;
  const view = viewOf(bytes);
  out.forEach((channel, c) => DECODERS[layout.coding](view, c * width, step, channel, frames));
}

type Decoder = (view: DataView, from: number, step: number, out: Float32Array, frames: number) => void;

/** One loop for each coding: files of hundreds of megabytes pass through here. */
const DECODERS: Readonly<Record<SampleCoding, Decoder>> = {
  u8: (view, from, step, out, n) => {
    for (let i = 0, at = from; i < n; i += 1, at += step) out[i] = (view.getUint8(at) - 128) / 128;
  },
  s8: (view, from, step, out, n) => {
    for (let i = 0, at = from; i < n; i += 1, at += step) out[i] = view.getInt8(at) / 128;
  },
  s16le: (view, from, step, out, n) => {
    for (let i = 0, at = from; i < n; i += 1, at += step) out[i] = view.getInt16(at, true) / 32768;
  },
  s16be: (view, from, step, out, n) => {
    for (let i = 0, at = from; i < n; i += 1, at += step) out[i] = view.getInt16(at, false) / 32768;
  },
  s24le: (view, from, step, out, n) => {
    for (let i = 0, at = from; i < n; i += 1, at += step) {
      out[i] = ((view.getInt8(at + 2) << 16) | view.getUint16(at, true)) / 8388608;
    }
  },
  s24be: (view, from, step, out, n) => {
    for (let i = 0, at = from; i < n; i += 1, at += step) {
      out[i] = ((view.getInt8(at) << 16) | view.getUint16(at + 1, false)) / 8388608;
    }
  },
  s32le: (view, from, step, out, n) => {
    for (let i = 0, at = from; i < n; i += 1, at += step) out[i] = view.getInt32(at, true) / 2147483648;
  },
  s32be: (view, from, step, out, n) => {
    for (let i = 0, at = from; i < n; i += 1, at += step) out[i] = view.getInt32(at, false) / 2147483648;
  },
  f32le: (view, from, step, out, n) => {
    for (let i = 0, at = from; i < n; i += 1, at += step) out[i] = view.getFloat32(at, true);
  },
  f32be: (view, from, step, out, n) => {
    for (let i = 0, at = from; i < n; i += 1, at += step) out[i] = view.getFloat32(at, false);
  },
  f64le: (view, from, step, out, n) => {
    for (let i = 0, at = from; i < n; i += 1, at += step) out[i] = view.getFloat64(at, true);
  },
  f64be: (view, from, step, out, n) => {
    for (let i = 0, at = from; i < n; i += 1, at += step) out[i] = view.getFloat64(at, false);
  },
};

import { buffer } from 'node:stream/consumers';
import type { Readable } from 'node:stream';
import * as yazl from 'yazl';

const ascii = (text: string): number[] => Array.from(text, (letter) => letter.charCodeAt(0));

/** An AIFF whose header claims 1 M frames of 65 535 channels of no bits. */
export function emptyBitsAiff(): Uint8Array {
  const bytes = new Uint8Array(120);
  const view = new DataView(bytes.buffer);
  bytes.set(ascii('FORM'), 0);
  view.setUint32(4, 112, false);
  bytes.set(ascii('AIFFCOMM'), 8);
  view.setUint32(16, 18, false);
  view.setUint16(20, 65_535, false);
  view.setUint32(22, 1_000_000, false);
  view.setUint16(26, 0, false);
  bytes.set([0x40, 0x0e, 0xbb, 0x80], 28);
  bytes.set(ascii('SSND'), 38);
  view.setUint32(42, 70, false);
  return bytes;
}

interface WavClaims {
  readonly channels: number;
  readonly sampleRate: number;
  readonly bits: number;
  readonly dataBytes: number;
}

/** A WAV of 100 bytes with an arbitrary header. */
export function claimingWav({ channels, sampleRate, bits, dataBytes }: WavClaims): Uint8Array {
  const bytes = new Uint8Array(100);
  const view = new DataView(bytes.buffer);
  bytes.set(ascii('RIFF'), 0);
  view.setUint32(4, 92, true);
  bytes.set(ascii('WAVEfmt '), 8);
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, sampleRate, true);
  view.setUint16(34, bits, true);
  bytes.set(ascii('data'), 36);
  view.setUint32(40, dataBytes, true);
  return bytes;
}

/** Check sums of FLAC frames: of their head and of all of them. Source: RFC 9639 (2024), sections 9.1.8 and 9.3. */
function crc(bytes: readonly number[], bits: 8 | 16, polynomial: number): number {
  const top = 1 << (bits - 1);
  const mask = (1 << bits) - 1;
  return bytes.reduce((sum, byte) => {
    let value = sum ^ (byte << (bits - 8));
    for (let i = 0; i < 8; i += 1) value = ((value << 1) ^ (value & top ? polynomial : 0)) & mask;
    return value;
  }, 0);
}

/** A number as FLAC counts its frames: like UTF-8, up to 16 bits here. */
function coded(n: number): number[] {
  if (n < 0x80) return [n];
  return n < 0x800 ? [0xc0 | (n >> 6), 0x80 | (n & 63)] : [0xe0 | (n >> 12), 0x80 | ((n >> 6) & 63), 0x80 | (n & 63)];
}

const FLAC_BLOCK = 65_535;

/**
 * A stereo FLAC of 48 kHz in which every frame is 65 535 times the same sample: 20 bytes that unpack to half a
 * megabyte.
 * Source: RFC 9639 (2024).
 */
export function constantFlac(frames: number, sample = 1000): Uint8Array {
  const info = [0x80, 0, 0, 34, 0xff, 0xff, 0xff, 0xff, 0, 0, 0, 0, 0, 0, 0x0b, 0xb8, 0x02, 0xf0, 0, 0, 0, 0];
  const head = [...ascii('fLaC'), ...info, ...new Array<number>(16).fill(0)];
  const parts = [Uint8Array.from(head)];
  const constant = [0, (sample >> 8) & 255, sample & 255];
  for (let n = 0; n < frames; n += 1) {
    const start = [0xff, 0xf8, 0x7a, 0x18, ...coded(n), (FLAC_BLOCK - 1) >> 8, (FLAC_BLOCK - 1) & 255];
    const frame = [...start, crc(start, 8, 0x07), ...constant, ...constant];
    const sum = crc(frame, 16, 0x8005);
    parts.push(Uint8Array.from([...frame, sum >> 8, sum & 255]));
  }
  return Buffer.concat(parts);
}

/** A zip file of entries by name. */
export async function zipOf(entries: Readonly<Record<string, Uint8Array>>): Promise<Uint8Array> {
  const zip = new yazl.ZipFile();
  for (const [name, bytes] of Object.entries(entries)) zip.addBuffer(Buffer.from(bytes), name);
  zip.end();
  return buffer(zip.outputStream as Readable);
}

const zeros = (megabytes: number): Uint8Array => new Uint8Array(megabytes << 20);

/** Archives of a piece in which some entry unpacks to more than the limit. */
export async function archiveBombs(piece: object): Promise<Record<string, Uint8Array>> {
  const text = (value: unknown): Uint8Array => new TextEncoder().encode(JSON.stringify(value));
  const hash = 'a'.repeat(64);
  const listed = { ...piece, sounds: { [hash]: { name: 'bomb', frames: 1, sampleRate: 48_000, channels: 2 } } };
  const [huge, brackets] = [zeros(70), Buffer.alloc(60 << 20, '[')];
  return {
    'a huge piece': await zipOf({ 'piece.json': huge }),
    'a piece of brackets': await zipOf({ 'piece.json': brackets }),
    'a piece of objects': await zipOf({ 'piece.json': Buffer.from(`{"tracks":[${'{},'.repeat(240_000)}{}]}`) }),
    'a huge history': await zipOf({ 'piece.json': text(piece), 'history.json': huge }),
    'a history of objects': await zipOf({
      'piece.json': text(piece),
      'history.json': Buffer.from(`{"cursor":0,"entries":[${'{},'.repeat(240_000)}{}]}`),
    }),
    'a huge sound': await zipOf({ 'piece.json': text(listed), [`sounds/${hash}.wav`]: huge }),
    'unlisted sounds': await zipOf({
      'piece.json': text(listed),
      'sounds/x.wav': huge,
      [`sounds/${'b'.repeat(64)}.wav`]: huge,
    }),
  };
}

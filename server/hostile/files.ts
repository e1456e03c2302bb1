import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { writeWav } from '../../src/core/formats/writeWav';
import { toneWav } from '../testing';
import { claimingWav, constantFlac, emptyBitsAiff } from './bombs';

export type NamedFile = readonly [name: string, bytes: Uint8Array];

const FIXTURES = join(__dirname, '..', 'fixtures');

/** A valid sound file for each reader. */
export const soundFiles = (): NamedFile[] => [
  ...readdirSync(FIXTURES).map((name): NamedFile => [name, new Uint8Array(readFileSync(join(FIXTURES, name)))]),
  ['16-bit WAV', toneWav(3000, 2)],
  ['float WAV', writeWav({ sampleRate: 44_100, channels: [new Float32Array(3000).fill(0.1)] }, '32f')],
];

/** Small sound files that claim, or unpack to, more than the limit. */
export function soundBombs(): NamedFile[] {
  const wav = { channels: 2, sampleRate: 48_000, bits: 16, dataBytes: 48 };
  return [
    ['AIFF without bits', emptyBitsAiff()],
    ['WAV of 65535 channels', claimingWav({ ...wav, channels: 65_535 })],
    ['WAV of 4 GB', claimingWav({ ...wav, dataBytes: 4_294_967_295 })],
    ['FLAC of an hour', constantFlac(2700)],
  ];
}

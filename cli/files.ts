import { closeSync, fsyncSync, openSync, readFileSync, renameSync, rmSync, writeSync } from 'node:fs';
import { BadData } from '../src/core/exchange/chainFile';
import { UnreadableSound, type Audio } from '../src/core/formats/audio';
import { readWav } from '../src/core/formats/readWav';
import { writeWav, type WavDepth } from '../src/core/formats/writeWav';

const reason = (error: unknown): string => (error instanceof Error ? error.message : String(error));

export function readSound(path: string): Audio {
  let bytes: Uint8Array;
  try {
    bytes = readFileSync(path);
  } catch (error) {
    throw new BadData(`${path} cannot be read: ${reason(error)}.`);
  }
  try {
    return checked(readWav(bytes), path);
  } catch (error) {
    if (error instanceof UnreadableSound) throw new BadData(`${path}: ${error.message}`);
    throw error;
  }
}

/** Refuses samples that are no numbers, and says so where channels are left out. */
function checked(audio: Audio, path: string): Audio {
  audio.channels.forEach((samples, channel) => {
    const at = samples.findIndex((x) => !Number.isFinite(x));
    if (at >= 0)
      throw new BadData(`${path}: sample ${at + 1} of channel ${channel + 1} is no number. Export the file again.`);
  });
  if (audio.channels.length > 2)
    process.stderr.write(`${path} has ${audio.channels.length} channels: the first two are used.\n`);
  return audio;
}

export function readJson(path: string): unknown {
  try {
    return JSON.parse(readFileSync(path, 'utf8'));
  } catch (error) {
    throw new BadData(`${path} cannot be read as JSON: ${reason(error)}.`);
  }
}

/** Writes whole or not at all: into a neighbour first, then renamed. */
export function writeSound(path: string, audio: Audio, depth: WavDepth): void {
  const neighbour = `${path}.${process.pid}.part`;
  try {
    const file = openSync(neighbour, 'w');
    try {
      const bytes = writeWav(audio, depth);
      for (let at = 0; at < bytes.length;) at += writeSync(file, bytes, at);
      fsyncSync(file);
    } finally {
      closeSync(file);
    }
    renameSync(neighbour, path);
  } catch (error) {
    rmSync(neighbour, { force: true });
    throw new BadData(`${path} cannot be written: ${reason(error)}. What was there before is unchanged.`);
  }
}

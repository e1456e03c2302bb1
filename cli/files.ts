import { closeSync, fsyncSync, openSync, readFileSync, renameSync, rmSync, writeSync } from 'node:fs';
import { BadData } from '../src/core/exchange/chainFile';
import { UnreadableSound, type Audio } from '../src/core/formats/audio';
import { readWav } from '../src/core/formats/readWav';
import { writeWav, type WavDepth } from '../src/core/formats/writeWav';
import { reasonOf } from '../src/core/reasonOf';

/** The bytes of a file. @throws BadData */
export function readBytes(path: string): Uint8Array {
  try {
    return readFileSync(path);
  } catch (error) {
    throw new BadData(`${path} cannot be read: ${reasonOf(error)}.`);
  }
}

/** A WAV file. @throws BadData */
export const readSound = (path: string): Audio => soundOfBytes(readBytes(path), path);

/** Samples of a WAV. @param name of where it comes from, for messages @throws BadData */
export function soundOfBytes(bytes: Uint8Array, name: string): Audio {
  try {
    return checked(readWav(bytes), name);
  } catch (error) {
    if (error instanceof UnreadableSound) throw new BadData(`${name}: ${error.message}`);
    throw error;
  }
}

/** Refuses samples that are not finite, and warns where channels are ignored. */
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
    throw new BadData(`${path} cannot be read as JSON: ${reasonOf(error)}.`);
  }
}

/** Writes atomically: into a temporary file beside the target, which is then renamed. */
export function writeWhole(path: string, bytes: Uint8Array): void {
  const neighbour = `${path}.${process.pid}.part`;
  try {
    const file = openSync(neighbour, 'w');
    try {
      for (let at = 0; at < bytes.length;) at += writeSync(file, bytes, at);
      fsyncSync(file);
    } finally {
      closeSync(file);
    }
    renameSync(neighbour, path);
  } catch (error) {
    rmSync(neighbour, { force: true });
    throw new BadData(`${path} cannot be written: ${reasonOf(error)}. What was there before is unchanged.`);
  }
}

export const writeSound = (path: string, audio: Audio, depth: WavDepth): void =>
  writeWhole(path, writeWav(audio, depth));

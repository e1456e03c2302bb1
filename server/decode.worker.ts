import { readFileSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import * as z from 'zod';
import { UnreadableSound } from '../src/core/formats/audio';
import { writeWav } from '../src/core/formats/writeWav';
import { decodeSound } from './decode';

/** Decodes one uploaded file away from the server's own thread and hands back the WAV that is kept. */
async function main(): Promise<void> {
  const { path } = z.object({ path: z.string() }).parse(workerData);
  try {
    const audio = await decodeSound(readFileSync(path));
    const wav = writeWav(audio, '32f');
    const info = { frames: audio.channels[0]!.length, sampleRate: audio.sampleRate, channels: audio.channels.length };
    parentPort?.postMessage({ ok: true, wav, info }, [wav.buffer as ArrayBuffer]);
  } catch (error) {
    const known = error instanceof UnreadableSound;
    parentPort?.postMessage({ ok: false, known, message: error instanceof Error ? error.message : String(error) });
  }
}

void main();

import { createHash } from 'node:crypto';
import { mkdtempSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { ExportOrder } from '../src/core/files/order';
import { writeWav } from '../src/core/formats/writeWav';
import type { Piece } from '../src/core/piece/piece';
import { makeSaltPier } from '../src/core/sounds/saltPier';

const EXPORTER = resolve('build/export.worker.cjs');
const MB = 1 << 20;

/** How fast the demo is written to a file, alone and four stems at once, and how much memory a long one takes. */
export async function exportFigures(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'zephiro-bench-'));
  try {
    const { piece, sounds } = makeSaltPier((bytes) => createHash('sha256').update(bytes).digest('hex'));
    mkdirSync(join(folder, 'sounds'));
    for (const { hash, channels } of sounds)
      writeFileSync(
        join(folder, 'sounds', `${hash}.wav`),
        writeWav({ sampleRate: piece.sampleRate, channels: [...channels] }, '32f'),
      );
    const seconds = (piece.lengthBeats * 60) / piece.tempo.bpm;
    const order: ExportOrder = {
      piece: piece.id,
      what: 'mix',
      fromBeat: 0,
      toBeat: piece.lengthBeats,
      tail: 'none',
      format: 'wav24',
      lufs: null,
      prints: [],
    };
    await one(folder, piece, order, 0);
    const alone = await one(folder, piece, order, 0);
    process.stdout.write(`the demo to WAV, alone: ${(seconds / alone).toFixed(1)} x real time (wanted: 30)\n`);
    const began = performance.now();
    await Promise.all([0, 1, 2, 3].map((index) => one(folder, piece, { ...order, what: 'stems' }, index)));
    const four = (performance.now() - began) / 1000;
    process.stdout.write(
      `four stems at once: ${((4 * seconds) / four).toFixed(1)} x real time together, ${((4 * alone) / four).toFixed(2)} times one alone (wanted: both cores)\n`,
    );
    await long(folder, piece, order);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function one(folder: string, piece: Piece, order: ExportOrder, index: number): Promise<number> {
  const began = performance.now();
  const worker = new Worker(EXPORTER, {
    workerData: { piece, order, index, sounds: join(folder, 'sounds'), path: join(folder, `out${index}`) },
  });
  return new Promise((done, reject) => {
    worker.on('error', reject);
    worker.on('message', (message: { readonly type: string; readonly message?: string }) => {
      if (message.type === 'failed') reject(new Error(message.message));
      if (message.type === 'done') done((performance.now() - began) / 1000);
    });
  });
}

/** The demo's loop laid end to end for two hours: memory is looked at all the while. */
async function long(folder: string, piece: Piece, order: ExportOrder): Promise<void> {
  const beats = 120 * piece.tempo.bpm;
  const turns = Math.floor(beats / piece.lengthBeats);
  const hours: Piece = {
    ...piece,
    lengthBeats: beats,
    tracks: piece.tracks.slice(0, 1).map((track) => ({
      ...track,
      clips: Array.from({ length: turns }, (_, k) =>
        track.clips.map((clip) => ({ ...clip, id: `${clip.id}-${k}`, start: clip.start + k * piece.lengthBeats })),
      )
        .flat()
        .slice(0, 2000),
    })),
  };
  const seen: number[] = [];
  const watch = setInterval(() => seen.push(process.memoryUsage().rss / MB), 500);
  const took = await one(folder, hours, { ...order, toBeat: beats, format: 'wav16' }, 0);
  clearInterval(watch);
  const third = Math.floor(seen.length / 3);
  const mean = (from: number, to: number): number =>
    seen.slice(from, to).reduce((sum, x) => sum + x, 0) / Math.max(1, to - from);
  process.stdout.write(
    `two hours of one track: ${took.toFixed(0)} s, memory ${mean(third, 2 * third).toFixed(0)} MB in its middle third, ${mean(2 * third, seen.length).toFixed(0)} MB in its last\n`,
  );
}

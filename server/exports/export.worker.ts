import type { SoundData } from '../../src/core/dsp/soundData';
import { rmSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { parentPort, workerData } from 'node:worker_threads';
import * as z from 'zod';
import { RunningLoudness } from '../../src/core/analysis/runningLoudness';
import { resample } from '../../src/core/dsp/resample';
import { renderBlocks } from '../../src/core/engine/render';
import { exportOrderSchema, NORMAL_CEILING_DB, type ExportOrder } from '../../src/core/files/order';
import { exportPart, soundsPlayed, type ExportPart } from '../../src/core/files/parts';
import { readFloatWav } from '../../src/core/formats/floatWav';
import { bytesOf, SampleWriter, type WavDepth } from '../../src/core/formats/sampleBytes';
import { wavHead } from '../../src/core/formats/wavHead';
import type { Piece } from '../../src/core/piece/piece';
import { readPiece } from '../../src/core/piece/versions/readPiece';
import { FlacWriter } from './flac';
import { GrowingFile } from './growingFile';
import { codeOf } from '../http/problem';
import { reasonOf } from '../../src/core/reasonOf';

const jobSchema = z.object({
  /** Path of the piece as JSON. */
  piece: z.string(),
  order: exportOrderSchema,
  index: z.number(),
  sounds: z.string(),
  path: z.string(),
});
const CHANNELS = 2;
const BLOCK = 8192;
const TELL_MS = 100;

/** What was rendered, as plain floats on the disk, with what is to be known of it. */
interface Raw {
  readonly file: GrowingFile;
  readonly frames: number;
  /** Heard only where it is asked for. */
  readonly loudness: RunningLoudness | null;
}

/**
 * Renders one file of an export away from the server's own thread: first as floats, then to what was asked for, in
 * blocks that never grow.
 */
async function main(): Promise<void> {
  const { order, index, sounds, path, ...job } = jobSchema.parse(workerData);
  const raw = `${path}.raw`;
  try {
    const piece = readPiece(JSON.parse(await readFile(job.piece, 'utf8')));
    const part = exportPart(piece, order, index);
    const rendered =
      part.source.kind === 'render'
        ? await renderRaw(piece, part, order, sounds, raw)
        : await soundRaw(part, order, part.source.hash, sounds, raw);
    const { gain, note } = gainFor(order, rendered.loudness);
    if (order.format.startsWith('flac'))
      await writeFlac(part, rendered, gain, order.format === 'flac16' ? 16 : 24, path);
    else writeWavFile(part, rendered, gain, order.format.slice(3) as WavDepth, path);
    rendered.file.discard();
    rmSync(raw, { force: true });
    parentPort?.postMessage({ type: 'done', note });
  } catch (error) {
    rmSync(raw, { force: true });
    parentPort?.postMessage({
      type: 'failed',
      code: codeOf(error),
      message: reasonOf(error),
    });
  }
}

async function readSound(
  folder: string,
  hash: string,
): Promise<{ readonly sampleRate: number; readonly channels: readonly Float32Array[] }> {
  const bytes = await readFile(join(folder, `${hash}.wav`)).catch(() => null);
  if (!bytes) throw new Error('A sound of the piece is not on this server.');
  // Copied, because samples have to be aligned.
  return readFloatWav(new Uint8Array(bytes));
}

async function renderRaw(
  piece: Piece,
  { source, sampleRate }: ExportPart,
  order: ExportOrder,
  folder: string,
  path: string,
): Promise<Raw> {
  if (source.kind !== 'render') throw new Error('This part is not rendered.');
  const sounds = new Map<string, SoundData>();
  for (const hash of soundsPlayed(piece)) {
    const sound = await readSound(folder, hash);
    sounds.set(
      hash,
      sound.channels.map((channel) => resample(channel, sound.sampleRate, sampleRate)),
    );
  }
  const sink = new RawSink(path, order.lufs === null ? null : new RunningLoudness(sampleRate));
  let told = 0;
  const done = renderBlocks(
    {
      ...source,
      sounds,
      onProgress: (share) => {
        if (performance.now() - told > TELL_MS) {
          told = performance.now();
          parentPort?.postMessage({ type: 'progress', share: 0.9 * share });
        }
        return true;
      },
    },
    sink,
  );
  return { file: sink.file, frames: done?.frames ?? 0, loudness: sink.loudness };
}

async function soundRaw(
  { sampleRate }: ExportPart,
  order: ExportOrder,
  hash: string,
  folder: string,
  path: string,
): Promise<Raw> {
  const { channels } = await readSound(folder, hash);
  const sink = new RawSink(path, order.lufs === null ? null : new RunningLoudness(sampleRate));
  const [left, right] = [channels[0]!, channels[1] ?? channels[0]!];
  for (let at = 0; at < left.length; at += BLOCK)
    sink.take(left.subarray(at, at + BLOCK), right.subarray(at, at + BLOCK), Math.min(BLOCK, left.length - at));
  return { file: sink.file, frames: left.length, loudness: sink.loudness };
}

/** Both sides as floats, one after the other, block by block. */
class RawSink {
  readonly file: GrowingFile;

  constructor(
    path: string,
    readonly loudness: RunningLoudness | null,
  ) {
    this.file = new GrowingFile(path);
  }

  take(left: Float32Array, right: Float32Array, n: number): void {
    this.loudness?.process(left, right, 0, n);
    const both = new Float32Array(CHANNELS * n);
    for (let i = 0; i < n; i += 1) {
      both[2 * i] = left[i]!;
      both[2 * i + 1] = right[i]!;
    }
    this.file.append(new Uint8Array(both.buffer));
  }
}

/** The gain to the wanted loudness, limited by the true peak. */
function gainFor(
  { lufs }: ExportOrder,
  loudness: RunningLoudness | null,
): { readonly gain: number; readonly note: string } {
  if (lufs === null || !loudness || !Number.isFinite(loudness.integrated)) return { gain: 1, note: '' };
  const wanted = lufs - loudness.integrated;
  const most = NORMAL_CEILING_DB - loudness.truePeakDb;
  const taken = Math.min(wanted, most);
  const reached = (loudness.integrated + taken).toFixed(1).replace('-', '\u2212');
  return {
    gain: Math.pow(10, taken / 20),
    note: taken < wanted - 0.05 ? `Its peaks allow ${reached} LUFS.` : `Now at ${reached} LUFS.`,
  };
}

/** Gives what was rendered block by block, a channel each. */
function forEachBlock(
  { file, frames }: Raw,
  gain: number,
  act: (channels: readonly [Float32Array, Float32Array], n: number) => void,
): void {
  const bytes = new Uint8Array(BLOCK * CHANNELS * 4);
  const both = new Float32Array(bytes.buffer);
  const channels = [new Float32Array(BLOCK), new Float32Array(BLOCK)] as const;
  for (let from = 0; from < frames; from += BLOCK) {
    const n = Math.min(BLOCK, frames - from);
    file.read(bytes, from * CHANNELS * 4);
    for (let i = 0; i < n; i += 1) {
      channels[0][i] = both[2 * i]! * gain;
      channels[1][i] = both[2 * i + 1]! * gain;
    }
    act(channels, n);
  }
}

function writeWavFile(
  { cues, loop, timeStamp, sampleRate }: ExportPart,
  raw: Raw,
  gain: number,
  depth: WavDepth,
  path: string,
): void {
  const out = new GrowingFile(path);
  const { frames } = raw;
  out.append(wavHead({ channels: CHANNELS, sampleRate, depth, frames, cues, loop, timeStamp, growing: true }));
  const writer = new SampleWriter(depth);
  const bytes = new Uint8Array(BLOCK * CHANNELS * bytesOf(depth));
  const view = new DataView(bytes.buffer);
  forEachBlock(raw, gain, (channels, n) => out.append(bytes.subarray(0, writer.write(channels, 0, n, view, 0))));
  if (out.length % 2 === 1) out.append(new Uint8Array(1));
  out.finish();
}

async function writeFlac(
  { sampleRate }: ExportPart,
  raw: Raw,
  gain: number,
  bits: 16 | 24,
  path: string,
): Promise<void> {
  const out = new GrowingFile(path);
  const writer = new SampleWriter(bits === 16 ? '16' : '24');
  const flac = await FlacWriter.begin(sampleRate, CHANNELS, bits, raw.frames, (bytes) => out.append(bytes));
  forEachBlock(raw, gain, (channels, n) => flac.write(n, (channel, frame) => writer.step(channels[channel]![frame]!)));
  const { sizes, md5 } = flac.finish();
  // The stream's description is behind the four letters and its own head: sizes of blocks, then of frames, then the sum
  // at its end.
  out.overwrite(sizes, 12);
  out.overwrite(md5, 26);
  out.finish();
}

void main();

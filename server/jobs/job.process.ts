import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { Worker } from 'node:worker_threads';
import { UnreadableSound } from '../../src/core/formats/audio';
import { Problem, codeOf } from '../http/problem';
import { decodeSound } from './decodeSound';
import { jobSchema, type Job, type Report } from './jobs';
import { unpackArchive } from './unpackArchive';
import { writeDemo } from './writeDemo';
import { reasonOf } from '../../src/core/reasonOf';

/** Memory limit of this process in bytes; passed in MB by the parent. */
const MAX_RSS_BYTES = Number(process.argv[2]) * 1024 * 1024;
/** A process that has grown beyond this is not reused, so that a job never runs short because of earlier ones. */
const RETIRED_RSS_BYTES = 110 * 1024 * 1024;
/** Beyond this, unused memory is collected before the next job. */
const COLLECTED_RSS_BYTES = 80 * 1024 * 1024;
const PROGRESS_MS = 250;

/** Ends this process as soon as it exceeds its memory limit: in a thread, because a decoder may block for long. */
const WATCHDOG = `
  const { workerData } = require('node:worker_threads');
  setInterval(() => { if (process.memoryUsage.rss() > workerData) process.kill(process.pid, 'SIGKILL'); }, 15);
`;

const report = (message: Report): void => void process.send?.(message);

let reportedAt = 0;
function onProgress(): void {
  const now = performance.now();
  if (now - reportedAt < PROGRESS_MS) return;
  reportedAt = now;
  report({ kind: 'progress' });
}

/** Whether it uses more memory than an idle process should, after garbage collection. */
function hasGrown(): boolean {
  if (process.memoryUsage.rss() > COLLECTED_RSS_BYTES) globalThis.gc?.();
  return process.memoryUsage.rss() > RETIRED_RSS_BYTES;
}

async function perform(job: Job): Promise<unknown> {
  switch (job.kind) {
    case 'decode': {
      const { hash, frames, sampleRate, channels } = await decodeSound(job.from, job.to, {
        allowSilence: false,
        onProgress,
      });
      return { hash, info: { frames, sampleRate, channels } };
    }
    case 'unpack':
      return { sounds: await unpackArchive(job.from, job.to, onProgress) };
    case 'demo':
      return { sounds: await writeDemo(job.demo, job.to, onProgress) };
    case 'hash': {
      const hash = createHash('sha256');
      await pipeline(createReadStream(job.path), hash);
      return { hash: hash.digest('hex') };
    }
  }
}

async function answerTo(message: unknown): Promise<Report> {
  try {
    return { kind: 'done', result: await perform(jobSchema.parse(message)), retire: hasGrown() };
  } catch (error) {
    const retire = hasGrown();
    if (error instanceof UnreadableSound) {
      return { kind: 'refused', status: 422, title: 'This file cannot be used', detail: error.message, retire };
    }
    if (error instanceof Problem) {
      const { status, title, detail } = error;
      return { kind: 'refused', status, title, detail, retire };
    }
    const text = reasonOf(error);
    return { kind: 'failed', code: codeOf(error), message: text, retire };
  }
}

// Decoders log errors to the console; they are part of the response instead.
console.error = () => undefined;
console.warn = () => undefined;
new Worker(WATCHDOG, { eval: true, workerData: MAX_RSS_BYTES, resourceLimits: { maxOldGenerationSizeMb: 16 } }).unref();
process.on('message', (message) => void answerTo(message).then(report));
process.on('disconnect', () => process.exit(0));
// Tells that it has started.
report({ kind: 'progress' });

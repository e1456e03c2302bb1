import { createHash } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as delay } from 'node:timers/promises';
import { newFolder, removeFolders } from '../testing';
import { JobAborted, JobPool } from './jobPool';
import { hashedSchema, type Job } from './jobs';

const PROGRAM = join(__dirname, '..', '..', 'build', 'job.process.cjs');
const TEXT = 'a file of a test';
const HASH = createHash('sha256').update(TEXT).digest('hex');

const never = (): AbortSignal => new AbortController().signal;

function hashJob(): Job {
  const path = join(newFolder(), 'file');
  writeFileSync(path, TEXT);
  return { kind: 'hash', path };
}

const pools: JobPool[] = [];
function newPool(options: { readonly size?: number; readonly idleMs?: number } = {}): JobPool {
  const pool = new JobPool({ program: PROGRAM, size: 1, ...options });
  pools.push(pool);
  return pool;
}

afterEach(() => {
  for (const pool of pools.splice(0)) pool.close();
});
afterAll(removeFolders);

test('a job that comes while a process is ended for having nothing to do gets another one', async () => {
  const pool = newPool({ idleMs: 1 });
  const job = hashJob();
  for (let gapMs = 0; gapMs < 10; gapMs += 1) {
    expect(await pool.run(job, hashedSchema, never())).toEqual({ hash: HASH });
    await delay(gapMs);
  }
});

test('jobs beyond the processes wait in order, and one that is given up leaves the queue', async () => {
  const pool = newPool();
  const [first, second, third] = [hashJob(), hashJob(), hashJob()];
  const leave = new AbortController();
  const done: string[] = [];
  const work = [
    pool.run(first, hashedSchema, never()).then(() => done.push('first')),
    pool.run(second, hashedSchema, leave.signal).catch((error: unknown) => {
      expect(error).toBeInstanceOf(JobAborted);
      done.push('second given up');
    }),
    pool.run(third, hashedSchema, never()).then(() => done.push('third')),
  ];
  expect([first, second, third].map((job) => pool.ahead(job))).toEqual([0, 1, 2]);
  leave.abort();
  expect(pool.ahead(third)).toBe(1);
  await Promise.all(work);
  expect(done).toEqual(['second given up', 'first', 'third']);
});

test('a job that ends badly says so, and the next one works', async () => {
  const pool = newPool();
  await expect(pool.run({ kind: 'hash', path: '/there/is/none' }, hashedSchema, never())).rejects.toMatchObject({
    code: 'ENOENT',
  });
  expect(await pool.run(hashJob(), hashedSchema, never())).toEqual({ hash: HASH });
});

test('a closed pool gives up what runs and what waits', async () => {
  const pool = newPool();
  const work = [hashJob(), hashJob()].map((job) => pool.run(job, hashedSchema, never()).then(() => 'done', String));
  pool.close();
  for (const told of await Promise.all(work)) expect(told).not.toBe('done');
  await expect(pool.run(hashJob(), hashedSchema, never())).rejects.toBeInstanceOf(JobAborted);
});

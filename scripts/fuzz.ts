/**
 * Property tests with random seeds and attacks on a running server, in turns, for a given time.
 * npm run fuzz [-- MINUTES [SEED]]
 * Prints what was found with what is needed to find it again, and ends with 1 when anything was.
 */
import { spawnSync, type ChildProcess } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { makeRandom } from '../src/core/dsp/random';
import { writeWav } from '../src/core/formats/writeWav';
import { emptyPiece } from '../src/core/piece/piece';
import { apiRoutes } from '../server/app';
import { addressesOf, type Address } from '../server/hostile/apiAddresses';
import { archiveBombs } from '../server/hostile/bombs';
import { damaged, type Random } from '../server/hostile/damage';
import { soundBombs, soundFiles, type NamedFile } from '../server/hostile/files';
import { HOSTILE_BODIES, HOSTILE_QUERIES, HOSTILE_SEGMENTS } from '../server/hostile/hostileValues';
import { processMemories, treeMemory } from '../server/hostile/processMemory';
import type { Services } from '../server/services';
import { freePort, rawRequest, toneWav, type RawAnswer } from '../server/testing';
import { startServer } from './startServer';

const ROOT = join(__dirname, '..');
const MEGABYTE = 1 << 20;
/** The largest file that is sent. */
const LARGEST_BYTES = 100 * MEGABYTE;
const MAX_GROWTH_BYTES = 2 * LARGEST_BYTES + 64 * MEGABYTE;
const MAX_HEALTH_MS = 1000;
const AT_ONCE = 4;
/** Attacks on the server between two runs of the property tests. */
const ATTACK_MS = 120_000;

interface Found {
  readonly what: string;
  readonly again: string;
}

/** One server under attack, and what was seen of it. */
class Attack {
  readonly found: Found[] = [];
  readonly counts = new Map<string, number>();
  slowestHealthMs = 0;
  mostMemory = 0;
  /** Of the server and of each process that it started, when it was most. */
  memories: number[] = [];
  baseMemory = 0;

  private constructor(
    private readonly port: number,
    private readonly folder: string,
    private readonly child: ChildProcess,
  ) {}

  static async start(): Promise<Attack> {
    const folder = mkdtempSync(join(tmpdir(), 'zephiro-fuzz-'));
    const port = await freePort();
    const child = await startServer(folder, port, { ZEPHIRO_DEMO: 'no' });
    const attack = new Attack(port, folder, child);
    writeFileSync(join(folder, 'victim'), 'kept');
    const json = JSON.stringify(emptyPiece('p1', 'Piece'));
    await rawRequest(port, '/api/pieces', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: json,
    });
    // Processes for jobs are there before it is looked at what is added to them.
    await Promise.all(
      [0, 1, 2, 3].map(() => rawRequest(port, '/api/sounds?name=n', { method: 'POST', body: toneWav(48_000 * 60) })),
    );
    attack.baseMemory = treeMemory(child.pid!);
    return attack;
  }

  /** Watches health and memory until it is stopped. */
  watch(): () => Promise<void> {
    let going = true;
    const watching = (async () => {
      while (going) {
        const from = performance.now();
        await rawRequest(this.port, '/api/health').catch((error: unknown) =>
          this.report('the server is gone', String(error)),
        );
        this.slowestHealthMs = Math.max(this.slowestHealthMs, performance.now() - from);
        this.seeMemory(processMemories(this.child.pid!));
        await new Promise((resolve) => setTimeout(resolve, 25));
      }
    })();
    return () => {
      going = false;
      return watching;
    };
  }

  private seeMemory(memories: number[]): void {
    const sum = memories.reduce((all, bytes) => all + bytes, 0);
    if (sum <= this.mostMemory) return;
    this.mostMemory = sum;
    this.memories = memories;
  }

  async send(
    what: string,
    again: string,
    path: string,
    init: Parameters<typeof rawRequest>[2],
  ): Promise<RawAnswer | null> {
    this.counts.set(what, (this.counts.get(what) ?? 0) + 1);
    const answer = await rawRequest(this.port, path, init).catch(() => null);
    // An upload that is refused before all of it came may end in a closed connection.
    if (answer && answer.status >= 500)
      this.report(`${what}: ${answer.status}`, `${init?.method ?? 'GET'} ${path.slice(0, 200)} ${again}`);
    return answer;
  }

  report(what: string, again: string): void {
    this.found.push({ what, again });
    process.stdout.write(`FOUND ${what}\n  ${again}\n`);
  }

  /** What has to be so at the end. */
  async finish(): Promise<void> {
    if (readFileSync(join(this.folder, 'victim'), 'utf8') !== 'kept') this.report('a file outside was changed', '');
    for (const name of ['arriving', 'exporting']) {
      const left = readdirSync(join(this.folder, name));
      if (left.length > 0) this.report(`left in ${name}`, left.join(' '));
    }
    if (this.slowestHealthMs > MAX_HEALTH_MS) this.report(`health took ${Math.round(this.slowestHealthMs)} ms`, '');
    const grown = this.mostMemory - this.baseMemory;
    const each = this.memories.map((bytes) => Math.round(bytes / MEGABYTE)).join(' + ');
    if (grown > MAX_GROWTH_BYTES) this.report(`memory grew by ${Math.round(grown / MEGABYTE)} MB`, `to ${each} MB`);
    this.child.kill('SIGTERM');
    await new Promise((resolve) => this.child.once('exit', resolve));
    rmSync(this.folder, { recursive: true, force: true });
  }
}

const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

interface Ammunition {
  readonly addresses: readonly Address[];
  readonly sounds: readonly NamedFile[];
  readonly bombs: readonly NamedFile[];
  readonly archives: readonly NamedFile[];
  readonly archive: Uint8Array;
}

async function load(): Promise<Ammunition> {
  const archives = Object.entries(await archiveBombs(emptyPiece('bomb', 'Bomb')));
  const large = writeWav({ sampleRate: 48_000, channels: [new Float32Array(LARGEST_BYTES / 2 - 64).fill(0.1)] }, '16');
  return {
    addresses: addressesOf(apiRoutes({} as Services)),
    sounds: soundFiles(),
    bombs: [...soundBombs(), ['the largest file', large]],
    archives,
    archive: archives.find(([name]) => name === 'unlisted sounds')![1],
  };
}

/** One request of some kind. @param again with what it can be had again */
async function shoot(attack: Attack, ammunition: Ammunition, random: Random, again: string): Promise<void> {
  const kind = random();
  if (kind < 0.55) {
    const [name, bytes] = pick(random, ammunition.sounds);
    await attack.send(`damaged ${name}`, again, '/api/sounds?name=n', { method: 'POST', body: damaged(bytes, random) });
  } else if (kind < 0.6) {
    const body = damaged(ammunition.archive, random);
    await attack.send('damaged archive', again, '/api/archives', { method: 'POST', body });
  } else if (kind < 0.603) {
    const [name, body] = pick(random, ammunition.bombs);
    await attack.send(`bomb: ${name}`, again, '/api/sounds?name=n', { method: 'POST', body });
  } else if (kind < 0.605) {
    const [name, body] = pick(random, ammunition.archives);
    await attack.send(`bomb: ${name}`, again, '/api/archives', { method: 'POST', body });
  } else {
    const { method, path, params } = pick(random, ammunition.addresses);
    const filled = params.reduce(
      (made, param) => made.replace(`:${param}`, random() < 0.3 ? 'p1' : pick(random, HOSTILE_SEGMENTS)),
      path,
    );
    const body = method === 'GET' || method === 'DELETE' ? undefined : pick(random, HOSTILE_BODIES);
    const headers = { ...body?.headers, 'if-match': pick(random, ['"1"', '"99999999999999999999"', '*', '"-1"', '']) };
    const init = { method, headers, body: body?.bytes };
    // The piece that others are tried on is put into the bin now and then; that is no fault.
    await attack.send(`${method} ${path}`, again, `/api${filled}${pick(random, HOSTILE_QUERIES)}`, init);
  }
}

async function attackFor(ms: number, ammunition: Ammunition, seed: number): Promise<Attack> {
  const attack = await Attack.start();
  const stop = attack.watch();
  const end = performance.now() + ms;
  let shots = 0;
  await Promise.all(
    Array.from({ length: AT_ONCE }, async () => {
      while (performance.now() < end) {
        shots += 1;
        await shoot(attack, ammunition, makeRandom(seed + shots), `(attack ${seed + shots})`);
      }
    }),
  );
  await stop();
  await attack.finish();
  return attack;
}

/** Every property test once with a seed of its own. @returns whether all held */
function runProperties(seed: number): boolean {
  const grep = spawnSync('git', ['grep', '-l', "from 'fast-check'", '--', 'src', 'server', 'cli'], {
    cwd: ROOT,
    encoding: 'utf8',
  });
  const files = grep.stdout.split('\n').filter((name) => /\.test\.tsx?$/.test(name));
  const env = { ...process.env, FUZZ_SEED: String(seed) };
  const { status } = spawnSync('npx', ['jest', '--silent', '--maxWorkers=2', ...files], {
    cwd: ROOT,
    env,
    stdio: 'inherit',
  });
  return status === 0;
}

async function main(): Promise<void> {
  const minutes = Number(process.argv[2] ?? 20);
  let seed = Number(process.argv[3] ?? Date.now() % 1_000_000_000);
  const end = performance.now() + minutes * 60_000;
  mkdirSync(join(ROOT, 'build'), { recursive: true });
  spawnSync(process.execPath, [join(ROOT, 'scripts', 'build-realtime.mjs'), '--server'], { stdio: 'inherit' });
  const ammunition = await load();
  const failures: string[] = [];
  const total = new Map<string, number>();
  while (performance.now() < end) {
    const attack = await attackFor(Math.min(ATTACK_MS, end - performance.now()), ammunition, seed);
    attack.counts.forEach((n, what) => total.set(what, (total.get(what) ?? 0) + n));
    failures.push(...attack.found.map(({ what, again }) => `${what} ${again}`));
    const grown = Math.round((attack.mostMemory - attack.baseMemory) / MEGABYTE);
    process.stdout.write(
      `attack ${seed}: ${attack.found.length} found; health at most ${Math.round(attack.slowestHealthMs)} ms; memory +${grown} MB\n`,
    );
    if (performance.now() < end && !runProperties(seed))
      failures.push(`a property does not hold: FUZZ_SEED=${seed} npx jest`);
    seed += 1_000_003;
  }
  process.stdout.write(
    `${[...total]
      .sort()
      .map(([what, n]) => `${String(n).padStart(7)} ${what}`)
      .join('\n')}\n`,
  );
  process.stdout.write(
    failures.length === 0
      ? `Nothing found in ${minutes} minutes.\n`
      : `${failures.length} found:\n${failures.join('\n')}\n`,
  );
  process.exit(failures.length === 0 ? 0 : 1);
}

void main();

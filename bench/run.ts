import { chromium, type Page } from '@playwright/test';
import { build } from 'esbuild';
import { mkdtempSync, rmSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { runInThisContext } from 'node:vm';
import { BROWSER } from '../scripts/browser';
import { startServer } from '../scripts/startServer';
import { newSlot } from '../src/core/piece/edits/chain';
import type { Piece } from '../src/core/piece/piece';
import { playNothing, playPiece } from './deadline';
import { exportFigures } from './exports';
import { handToEngine } from './hands';
import { mixOf } from './mix';

const PORT = 4177;
const ORIGIN = `http://127.0.0.1:${PORT}`;
const ROUNDS = 9;
const WORK_SECONDS = 30;
const PRESETS = ['callAcross', 'wornReel', 'steppingStones', 'fogBank'];

const LOOPS = [
  ['echo', 'feedback delay with filter, 375 ms'],
  ['fraction', 'the same at a dotted eighth of 92 BPM'],
  ['filters', 'chain of four filters'],
  ['network', 'reverb network of sixteen lines'],
  ['convolution', 'convolution, 3 s of stereo impulse'],
  ['shaping', 'shaping at four times the rate'],
] as const;

const say = (line: string): void => void process.stdout.write(`${line}\n`);
const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!;

async function bundled(entry: string): Promise<string> {
  const made = await build({
    entryPoints: [join(__dirname, entry)],
    bundle: true,
    write: false,
    format: 'iife',
    globalName: 'bench',
    target: 'esnext',
    minify: true,
  });
  return made.outputFiles[0]!.text;
}

/**
 * Asks the page's worker made of this code, starting it at the first time: a loop is as warm as on an audio thread that
 * has played for a while.
 */
const inWorker = <T>(page: Page, code: string, message: unknown): Promise<T> =>
  page.evaluate(
    async ([source, order]) => {
      const kept = window as unknown as { benchWorker?: Worker };
      kept.benchWorker ??= new Worker(URL.createObjectURL(new Blob([source as string], { type: 'text/javascript' })));
      const worker = kept.benchWorker;
      return new Promise((resolve, reject) => {
        worker.onmessage = ({ data }) => resolve(ArrayBuffer.isView(data) ? [...(data as Float64Array)] : data);
        worker.onerror = (event) => reject(new Error(event.message));
        worker.postMessage(order);
      });
    },
    [code, message] as const,
  ) as Promise<T>;

async function compare(page: Page): Promise<void> {
  const code = await bundled('loops.worker.ts');
  const nodes = await bundled('browserNodes.ts');
  say(`\nThe same work, ${WORK_SECONDS} s of stereo at 48 kHz, in turns, median of ${ROUNDS} rounds, times real time:`);
  for (const [what, name] of LOOPS) {
    const ours: number[] = [];
    const theirs: number[] = [];
    for (let round = 0; round <= ROUNDS; round += 1) {
      const mine = await inWorker<number>(page, code, { what, seconds: WORK_SECONDS });
      const native = (await page.evaluate(
        `${nodes}; bench.browserNodes(${JSON.stringify({ what, seconds: WORK_SECONDS })})`,
      )) as number;
      if (round === 0) continue;
      ours.push(mine);
      theirs.push(native);
    }
    const [a, b] = [median(ours), median(theirs)];
    say(
      `  ${name.padEnd(44)} ours ${((WORK_SECONDS * 1000) / a).toFixed(0).padStart(5)} x   browser ${((WORK_SECONDS * 1000) / b).toFixed(0).padStart(5)} x   ratio ${(b / a).toFixed(2)}`,
    );
  }
}

const LANES = 200;
const LANE_POINTS = 500;
const LANE_BLOCKS = 11_250;

/** A hundred silent tracks whose levels and pans are moved: nothing but lanes costs anything. */
function laneful(demo: Piece, lanes: number): Piece {
  const point = (i: number): Piece['lanes'][number]['points'][number] => ({
    beat: (i * demo.lengthBeats) / LANE_POINTS,
    value: 0.5 + 0.4 * Math.sin(i),
    shape: i % 3 === 0 ? 'curve' : 'line',
    bend: i % 3 === 0 ? 0.4 : 0,
  });
  const tracks = Array.from({ length: LANES / 2 }, (_, i) => ({
    ...demo.tracks[0]!,
    id: `t${i}`,
    name: `Track ${i}`,
    clips: [],
    chain: [],
    sends: [],
  }));
  return {
    ...demo,
    id: 'bench-lanes',
    tracks,
    returns: [],
    lanes: Array.from({ length: lanes }, (_, i) => ({
      id: `l${i}`,
      target: { kind: 'channel', channel: `t${i >> 1}`, param: i % 2 === 0 ? 'gain' : 'pan' },
      unit: 'own' as const,
      on: true,
      points: Array.from({ length: LANE_POINTS }, (_unused, k) => point(k)),
    })),
  };
}

/** What reading lanes costs: the same piece with and without them, in turns. */
async function readLanes(page: Page, demo: Piece): Promise<void> {
  const code = await bundled('lanes.worker.ts');
  const extra: number[] = [];
  for (let round = 0; round <= ROUNDS; round += 1) {
    const without = await inWorker<number>(page, code, { piece: laneful(demo, 0), blocks: LANE_BLOCKS });
    const all = await inWorker<number>(page, code, { piece: laneful(demo, LANES), blocks: LANE_BLOCKS });
    if (round > 0) extra.push(((all - without) / LANE_BLOCKS / ((128 / 48_000) * 1000)) * 100);
  }
  say(
    `\n${LANES} lanes of ${LANES * LANE_POINTS} points, over the same piece without: ${median(extra).toFixed(2)} % of the deadline (median of ${ROUNDS} rounds)`,
  );
}

/** Scrolls and zooms a lane of fifty thousand points in the real client. */
async function scrollLane(page: Page, demo: Piece): Promise<void> {
  const points = Array.from({ length: 50_000 }, (_, i) => ({
    beat: (i * demo.lengthBeats) / 50_000,
    value: 0.5 + 0.4 * Math.sin(i / 40),
    shape: 'line' as const,
    bend: 0,
  }));
  const piece: Piece = {
    ...demo,
    id: 'bench-points',
    lanes: [{ id: 'many', target: { kind: 'channel', channel: 'hum', param: 'gain' }, unit: 'own', on: true, points }],
  };
  await store(piece);
  await page.addInitScript((id) => localStorage.setItem('zephiro.open', id), piece.id);
  await page.goto(`${ORIGIN}/moves`);
  const lane = page.getByRole('group', { name: /^Lane Level/ });
  await lane.waitFor();
  // Sounds that are still being fetched and read are not what is measured here.
  await page.waitForLoadState('networkidle');
  await page.evaluate(() => new Promise((done) => requestIdleCallback(done)));
  await page.evaluate(() => {
    const tasks: number[] = [];
    new PerformanceObserver((list) => list.getEntries().forEach((entry) => tasks.push(entry.duration))).observe({
      entryTypes: ['longtask'],
    });
    Object.assign(window, { longTasks: tasks });
  });
  const taken = (): Promise<number[]> =>
    page.evaluate(() => (window as unknown as { longTasks: number[] }).longTasks.splice(0));
  // From within the page, a quarter of a second apart: looking for the button and for whether it can be clicked is not
  // the client's work.
  await page.getByRole('button', { name: 'Show less time' }).evaluate(async (button) => {
    for (let i = 0; i < 5; i += 1) {
      (button as HTMLElement).click();
      await new Promise((done) => setTimeout(done, 250));
    }
  });
  const zooming = await taken();
  const rate = await lane.evaluate(async (element) => {
    let view = element.parentElement;
    while (view && view.scrollWidth <= view.clientWidth) view = view.parentElement;
    let count = 0;
    const end = performance.now() + 5000;
    while (performance.now() < end) {
      await new Promise(requestAnimationFrame);
      count += 1;
      if (view)
        view.scrollLeft = (view.scrollWidth - view.clientWidth) * (0.5 - 0.5 * Math.cos((count / 150) * Math.PI));
    }
    return count / 5;
  });
  const scrolling = await taken();
  const longest = (tasks: readonly number[]): string =>
    `${tasks.length} tasks over 50 ms, longest ${Math.max(0, ...tasks).toFixed(0)} ms`;
  say(
    `A lane of 50 000 points: scrolling ${rate.toFixed(1)} frames a second, ${longest(scrolling)}; zooming five times ${longest(zooming)}.`,
  );
}

async function store(piece: Piece): Promise<void> {
  const answer = await fetch(`${ORIGIN}/api/pieces`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(piece),
  });
  if (!answer.ok) throw new Error(`The piece was not taken: ${await answer.text()}`);
}

/** A piece with every hold on its main output on. */
const allHeld = (piece: Piece): Piece => ({
  ...piece,
  main: {
    ...piece.main,
    chain: piece.main.chain.map((slot) =>
      'held' in slot.values ? { ...slot, values: { ...slot.values, held: true } } : slot,
    ),
  },
});

async function main(): Promise<void> {
  if (process.argv[2] === undefined || process.argv[2] === 'exports') await exportFigures();
  if (process.argv[2] === undefined || process.argv[2] === 'hands') await asleepFigures();
  if (process.argv[2] !== 'exports') await inBrowser();
}

/** Bundled as the client is: modules that are loaded one by one take twice as long in a step. */
async function asleepFigures(): Promise<void> {
  const { asleepShares } = runInThisContext(`${await bundled('asleep.ts')}; bench`) as typeof import('./asleep');
  say('\nA hold that nobody holds, on the main output, in Node: share of the 2.67 ms deadline');
  for (const [id, share] of asleepShares()) say(`  ${id.padEnd(12)} ${(100 * share).toFixed(3)} %`);
}

async function inBrowser(): Promise<void> {
  const browser = await chromium.launch({
    executablePath: BROWSER,
    args: [
      '--no-sandbox',
      '--autoplay-policy=no-user-gesture-required',
      '--disable-background-networking',
      '--no-first-run',
    ],
  });
  const folder = mkdtempSync(join(tmpdir(), 'zephiro-bench-'));
  const server = await startServer(folder, PORT);
  try {
    say(`${cpus().length} x ${cpus()[0]?.model ?? 'unknown'}, Node ${process.version}, Chromium ${browser.version()}`);
    const stored = (await (await fetch(`${ORIGIN}/api/pieces/salt-pier`)).json()) as { piece: Piece };
    const piece: Piece = {
      ...stored.piece,
      id: 'bench',
      tracks: stored.piece.tracks.map((track, i) => ({
        ...track,
        chain: i < PRESETS.length ? [newSlot(`echo-${i}`, 'echo', PRESETS[i]!)] : [],
      })),
    };
    await store(piece);
    const watched = (): Promise<Page> => browser.newPage({ bypassCSP: true, viewport: { width: 390, height: 844 } });
    const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
    await page.goto(`${ORIGIN}/api/health`);
    const only = process.argv[2];
    if (only === undefined || only === 'loops') await compare(page);
    if (only === undefined || only === 'lanes') {
      await readLanes(await browser.newPage(), stored.piece);
      await scrollLane(await browser.newPage({ viewport: { width: 390, height: 844 } }), stored.piece);
    }
    if (only === undefined || only === 'mix' || only === 'demo') await playNothing(await watched(), ORIGIN);
    if (only === undefined || only === 'mix') {
      const mix = mixOf(stored.piece);
      await store(mix);
      const effects = [...mix.tracks, ...mix.returns, mix.main].reduce((sum, { chain }) => sum + chain.length, 0);
      await playPiece(
        await watched(),
        ORIGIN,
        mix,
        `A mix of ${mix.tracks.length} tracks, ${mix.returns.length} returns and ${effects} effects`,
      );
    }
    if (only === undefined || only === 'hands') {
      await handToEngine(await browser.newPage({ viewport: { width: 1280, height: 800 } }), ORIGIN);
      const held = allHeld({ ...stored.piece, id: 'bench-held' });
      await store(held);
      await playPiece(await watched(), ORIGIN, held, 'The demo with its four holds held');
      await playPiece(await watched(), ORIGIN, stored.piece, 'The demo with nobody at its holds');
    }
    if (only === undefined || only === 'demo') {
      const page = await watched();
      await playPiece(page, ORIGIN, piece, 'The demo with four echoes', async () => {
        await page.getByRole('button', { name: /^Open Echo/ }).click();
        await page.getByRole('img', { name: /^Repeats/ }).waitFor();
      });
    }
  } finally {
    await browser.close();
    server.kill('SIGTERM');
    rmSync(folder, { recursive: true, force: true });
  }
}

void main();

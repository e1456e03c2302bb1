import type { Page } from '@playwright/test';
import { build } from 'esbuild';
import { join } from 'node:path';
import type { Piece } from '../src/core/piece/piece';

const PLAY_SECONDS = 32;
const BLOCKS_PER_SECOND = 48_000 / 128;
const WARM_BLOCKS = 2 * BLOCKS_PER_SECOND;
/** What a person looks at before the first tap; sounds are read meanwhile, and effects rehearsed. */
const LOOKED_AT_MS = 4000;

const say = (line: string): void => void process.stdout.write(`${line}\n`);

/**
 * Has every processor of the page timed from its first block on, on the audio thread itself. The page must not mind
 * code from elsewhere (`bypassCSP`).
 */
async function clock(page: Page): Promise<void> {
  const made = await build({
    entryPoints: [join(__dirname, 'clocked.worklet.ts')],
    bundle: true,
    write: false,
    format: 'esm',
    target: 'esnext',
  });
  await page.addInitScript(
    ([code, blocks]) => {
      const memory = new SharedArrayBuffer(8 * (1 + blocks));
      Object.assign(window, { shares: new Float64Array(memory) });
      const { addModule } = AudioWorklet.prototype;
      AudioWorklet.prototype.addModule = async function (url) {
        await addModule.call(this, URL.createObjectURL(new Blob([code], { type: 'text/javascript' })));
        if (url) await addModule.call(this, url);
      };
      window.AudioWorkletNode = class extends AudioWorkletNode {
        constructor(context: BaseAudioContext, name: string, options?: AudioWorkletNodeOptions) {
          super(context, name, {
            ...options,
            processorOptions: { ...(options?.processorOptions as object), shares: memory },
          });
        }
      };
    },
    [made.outputFiles[0]!.text, PLAY_SECONDS * BLOCKS_PER_SECOND] as const,
  );
}

/** @returns the share of its time that each block took, once all have been played */
async function shares(page: Page): Promise<number[]> {
  await page.waitForFunction(
    () => {
      const all = (window as unknown as { shares: Float64Array }).shares;
      return all[0]! + 1 >= all.length;
    },
    undefined,
    { timeout: 2000 * PLAY_SECONDS, polling: 500 },
  );
  return page.evaluate(() => [...(window as unknown as { shares: Float64Array }).shares.subarray(1)]);
}

/** For all blocks, and for those after the first two seconds: the difference is the cost of starting. */
function sayShares(what: string, all: readonly number[]): void {
  say(`${what}, ${all.length} blocks of 128 at 48 kHz on the audio thread: share of the 2.67 ms deadline`);
  for (const [when, heard] of [
    ['from the start', all],
    ['after two seconds', all.slice(WARM_BLOCKS)],
  ] as const) {
    const sorted = [...heard].sort((x, y) => x - y);
    const at = (share: number): string =>
      `${(100 * sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!).toFixed(2)} %`;
    say(`  ${when.padEnd(18)} median ${at(0.5)}   99th ${at(0.99)}   99.9th ${at(0.999)}   max ${at(1)}`);
  }
}

/** What the machine does to blocks that only count. @param origin of the client */
export async function playNothing(page: Page, origin: string): Promise<void> {
  await clock(page);
  await page.goto(origin);
  await page.evaluate(async () => {
    const context = new AudioContext({ sampleRate: 48_000, latencyHint: 'interactive' });
    await context.audioWorklet.addModule('');
    new AudioWorkletNode(context, 'arithmetic', { numberOfInputs: 0 }).connect(context.destination);
    (window as unknown as { shares: Float64Array }).shares[0] = 0;
    await context.resume();
  });
  sayShares('Arithmetic that always takes as long', await shares(page));
}

/**
 * Opens a piece that is stored in the real client, taps play, and watches page and audio thread.
 * @param what it is called
 * @param show brings up what shall be on the screen
 */
export async function playPiece(
  page: Page,
  origin: string,
  piece: Piece,
  what: string,
  show?: () => Promise<void>,
): Promise<void> {
  await clock(page);
  await page.addInitScript((id) => localStorage.setItem('zephiro.open', id), piece.id);
  await page.goto(`${origin}/chain`);
  await page.getByRole('button', { name: 'Play', exact: true }).waitFor();
  await show?.();
  await page.waitForLoadState('networkidle');
  await page.waitForTimeout(LOOKED_AT_MS);
  const started = await tapPlay(page);
  const beatMs = 60_000 / piece.tempo.bpm;
  say(
    `\nPlaying starts ${Math.max(0, started - beatMs).toFixed(0)} ms after the tap (the second beat shows after ${started.toFixed(0)} ms, one beat is ${beatMs.toFixed(0)} ms).`,
  );
  const [all, { rate, tasks }] = await Promise.all([shares(page), frames(page)]);
  sayShares(what, all);
  say(
    `The page meanwhile: ${rate.toFixed(1)} frames a second, ${tasks.length} tasks over 50 ms, longest ${Math.max(0, ...tasks).toFixed(0)} ms.`,
  );
}

/** @returns ms from the tap until the second beat shows */
async function tapPlay(page: Page): Promise<number> {
  return page.evaluate(async () => {
    const bar = document.querySelector('[aria-label="Back to the start"]')!;
    const tasks: number[] = [];
    new PerformanceObserver((list) => list.getEntries().forEach((entry) => tasks.push(entry.duration))).observe({
      entryTypes: ['longtask'],
    });
    Object.assign(window, { longTasks: tasks });
    const before = bar.textContent;
    const tapped = performance.now();
    (window as unknown as { shares: Float64Array }).shares[0] = 0;
    document.querySelector<HTMLElement>('[aria-label=Play]')!.click();
    while (bar.textContent === before) await new Promise(requestAnimationFrame);
    const took = performance.now() - tapped;
    tasks.length = 0;
    return took;
  });
}

async function frames(page: Page): Promise<{ rate: number; tasks: number[] }> {
  return page.evaluate(async (seconds) => {
    let count = 0;
    const end = performance.now() + seconds * 1000;
    while (performance.now() < end) {
      await new Promise(requestAnimationFrame);
      count += 1;
    }
    return { rate: count / seconds, tasks: [...(window as unknown as { longTasks: number[] }).longTasks] };
  }, PLAY_SECONDS - 5);
}

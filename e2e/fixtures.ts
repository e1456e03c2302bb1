import { expect, test as base, type APIRequestContext, type Locator, type Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { compilePlan } from '../src/core/engine/compilePlan';
import { render } from '../src/core/engine/render';
import { beatsToSamples } from '../src/core/music/tempo';
import { readWav } from '../src/core/formats/readWav';
import type { Audio } from '../src/core/formats/audio';
import type { Piece } from '../src/core/piece/piece';

export interface Stored {
  readonly piece: Piece;
  readonly revision: number;
  readonly history: { readonly entries: readonly { readonly label: string }[]; readonly cursor: number };
}

/** The demo without its returns and sends: jobs make their own, and what they measure has nothing of others in it. */
const withoutReturns = (piece: Piece): Piece => ({
  ...piece,
  returns: [],
  tracks: piece.tracks.map((track) => ({ ...track, sends: [] })),
});

/** Stores a copy of the demo piece, changed. @returns its id */
export async function copyOfDemo(request: APIRequestContext, change: (piece: Piece) => Piece): Promise<string> {
  const { piece } = (await (await request.get('/api/pieces/salt-pier')).json()) as Stored;
  const id = crypto.randomUUID();
  await request.post('/api/pieces', { data: { ...change(piece), id } });
  return id;
}

/** Every test has a copy of the demo piece of its own, open in the page, and a hand: touch or the keyboard. */
export const test = base.extend<{ pieceId: string; hand: Hand }>({
  hand: ({ page, hasTouch }, provide) => provide(handOn(page, hasTouch)),
  pieceId: async ({ page, request }, provide) => {
    const id = await copyOfDemo(request, withoutReturns);
    await page.addInitScript((open) => localStorage.setItem('zephiro.open', open), id);
    await page.goto('/');
    await expect(page.getByRole('heading', { name: 'Salt Pier' })).toBeVisible();
    await provide(id);
  },
});

/** Lets what is changed of the demo stay in this window: other tests open it as it is. */
export async function keepInWindow(page: Page): Promise<void> {
  await page.route('**/api/pieces/salt-pier', async (route) => {
    const request = route.request();
    if (request.method() !== 'PUT') return route.continue();
    const base = Number(((await request.headerValue('if-match')) ?? '').replace(/\D/g, ''));
    return route.fulfill({ json: { revision: base + 1 } });
  });
}

export const go = async (page: Page, view: 'Piece' | 'Chain' | 'Moves' | 'Play' | 'Shelf'): Promise<void> => {
  await page.getByRole('link', { name: view, exact: true }).click();
};

/** Opens something of the piece's head: on a phone by way of its menu. */
export async function fromHead(page: Page, name: string): Promise<void> {
  const more = page.getByRole('button', { name: 'More for the piece' });
  if (await more.isVisible()) await more.click();
  await page.getByRole('button', { name, exact: true }).click();
}

/** Unfolds a channel's own level, sends and tools above its chain. */
export async function unfoldStrip(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Unfold level, sends and tools/ }).click();
}

/** The piece as the server has it, once everything the page did has reached it. */
export async function saved(page: Page, id: string, ready: (stored: Stored) => boolean = () => true): Promise<Stored> {
  let stored: Stored | undefined;
  await expect
    .poll(async () => ready((stored = (await (await page.request.get(`/api/pieces/${id}`)).json()) as Stored)), {
      timeout: 40_000,
    })
    .toBe(true);
  return stored!;
}

/** The playhead, in beats from the start, as the transport shows it. */
export async function beatShown(page: Page): Promise<number> {
  const text = (await page.getByRole('button', { name: 'Back to the start' }).textContent()) ?? '';
  const [bar = 1, beat = 1] = text.split('bar')[0]!.split('.').map(Number);
  return (bar - 1) * 4 + beat - 1;
}

/** A hold in Play, by the name of its effect. */
export const stone = (page: Page, name: string): Locator =>
  page.getByRole('button', { name: new RegExp(`^Hold ${name}`) });

export const isDown = (pad: Locator, down: boolean): Promise<void> =>
  expect(pad).toHaveAttribute('aria-pressed', String(down));

/** Where an element is once it is still: what was just typed may have moved it. */
async function restingBox(
  page: Page,
  target: Locator,
): Promise<{ x: number; y: number; width: number; height: number }> {
  let before = (await target.boundingBox())!;
  for (;;) {
    await frames(page, 2);
    const now = (await target.boundingBox())!;
    if (now.x === before.x && now.y === before.y && now.width === before.width && now.height === before.height)
      return now;
    before = now;
  }
}

/** Drags with one finger along points given as shares of the element's box, through the browser's own touch input. */
export async function touchAlong(
  page: Page,
  target: Locator,
  points: readonly (readonly [number, number])[],
  pause: () => Promise<void> = async () => undefined,
): Promise<void> {
  await target.scrollIntoViewIfNeeded();
  const box = await restingBox(page, target);
  const at = ([x, y]: readonly [number, number]): { x: number; y: number } => ({
    x: box.x + x * box.width,
    y: box.y + y * box.height,
  });
  const client = await page.context().newCDPSession(page);
  const [first, ...rest] = points;
  await client.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [at(first!)] });
  for (const point of rest) {
    await client.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: [at(point)] });
    await pause();
  }
  await client.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  await client.detach();
}

/** Lets the page draw the next frames. */
export const frames = (page: Page, count: number): Promise<void> =>
  page.evaluate(
    (left) =>
      new Promise<void>((done) => {
        const next = (n: number): void => void (n === 0 ? done() : requestAnimationFrame(() => next(n - 1)));
        next(left);
      }),
    count,
  );

/** Types into a rail: tap the value, type, Enter. */
export async function typeInto(page: Page, rail: string, text: string): Promise<void> {
  await page.getByRole('button', { name: new RegExp(`^${rail}, .*Type a value`) }).click();
  const field = page.getByRole('textbox', { name: `${rail} as text` });
  await field.fill(text);
  await field.press('Enter');
  await expect(field).toBeHidden();
}

/** Prints that the open piece has, as the server knows. */
async function printsOf(page: Page): Promise<number> {
  const id = await page.evaluate(() => localStorage.getItem('zephiro.open'));
  return ((await (await page.request.get(`/api/pieces/${id}`)).json()) as Stored).piece.prints.length;
}

/** Prints the chosen clip and gives what the Shelf's download holds. */
export async function printAndDownload(
  page: Page,
  clip: string,
  part: 'Wet only' | 'Wet and dry',
  rings: string,
): Promise<Audio> {
  await go(page, 'Piece');
  await page.getByRole('button', { name: `Clip ${clip}` }).click();
  await page.getByRole('button', { name: 'Print', exact: true }).click();
  await page.getByRole('radio', { name: part }).click();
  await page.getByRole('radio', { name: `Rings: ${rings}` }).click();
  const before = await printsOf(page);
  await page.getByRole('button', { name: 'Start the print' }).click();
  await expect.poll(() => printsOf(page), { timeout: 60_000 }).toBe(before + 1);
  await go(page, 'Shelf');
  const card = page.getByRole('group', { name: `Print ${clip}` }).first();
  await expect(card).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    card.getByRole('button', { name: /as 32 float WAV/ }).click(),
  ]);
  return readWav(await readFile((await download.path())!));
}

/** A sound of the piece as the server has it. */
export async function soundNamed(page: Page, piece: Piece, name: string): Promise<Audio> {
  const [hash] = Object.entries(piece.sounds).find(([, sound]) => sound.name === name)!;
  return readWav(await (await page.request.get(`/api/sounds/${hash}`)).body());
}

/** Largest difference of two stretches of samples. */
export function farthest(a: Float32Array, b: Float32Array): number {
  let most = Math.abs(a.length - b.length);
  for (let i = 0; i < Math.min(a.length, b.length); i += 1) most = Math.max(most, Math.abs(a[i]! - b[i]!));
  return most;
}

/** Repeats of a sound as theory has them: the n-th after n times `delay` samples, at level^(n-1). */
export function repeats(dry: Float32Array, delay: number, level: number, length: number): Float32Array {
  const out = new Float32Array(length);
  for (let n = 1, gain = 1; n * delay < length && gain > 1e-7; n += 1, gain *= level) {
    for (let i = 0; i < dry.length && i + n * delay < length; i += 1)
      out[i + n * delay] = out[i + n * delay]! + gain * dry[i]!;
  }
  return out;
}

/** A thumb on the phone, the keyboard alone on a wide screen. */
export interface Hand {
  press(role: 'button' | 'radio' | 'switch' | 'link' | 'tab', name: string | RegExp): Promise<void>;
  /** Adds an effect to the chain in view and opens its editor. */
  add(effect: string, preset: string): Promise<void>;
  /** Shows the chain, from the editor on a phone; on a wide screen it is always there. */
  chain(): Promise<void>;
  /** Shows a section of the editor on a phone; on a wide screen all are there. */
  section(name: string): Promise<void>;
  view(view: 'Piece' | 'Chain' | 'Moves' | 'Play' | 'Shelf'): Promise<void>;
}

export function handOn(page: Page, touch: boolean): Hand {
  const press: Hand['press'] = async (role, name) => {
    const control = page.getByRole(role, { name, exact: typeof name === 'string' }).last();
    if (touch) {
      await control.tap();
      return;
    }
    // A key on what cannot be pressed yet is lost, where a tap waits.
    await expect(control).toBeEnabled();
    // A sheet that is about to close takes the focus back, and the key with it.
    await expect(async () => {
      await control.focus();
      await expect(control).toBeFocused({ timeout: 500 });
    }).toPass();
    await page.keyboard.press(role === 'radio' || role === 'switch' ? 'Space' : 'Enter');
  };
  const chain = async (): Promise<void> => {
    if (touch && (await page.getByRole('button', { name: 'Back to the chain' }).isVisible()))
      await press('button', 'Back to the chain');
  };
  return {
    press,
    chain,
    add: async (effect, preset) => {
      await chain();
      const more = page.getByRole('button', { name: 'Add an effect' });
      if (await more.isVisible()) await press('button', 'Add an effect');
      await page.getByRole('searchbox', { name: 'Search effects and purposes' }).last().fill(preset);
      await press('button', `Add ${effect}: ${preset}`);
      await expect(page.getByRole('heading', { name: effect, exact: true, level: 2 })).toBeVisible();
    },
    section: async (name) => {
      if (touch) await press('tab', new RegExp(`^${name}`));
    },
    view: (view) => press('link', view),
  };
}

/** Chooses a stretch of whole beats on the ruler: with a finger, or by the arrow keys from the start of the piece. */
export async function chooseStretch(page: Page, touch: boolean, from: number, to: number): Promise<void> {
  const ruler = page.getByRole('slider', { name: 'Place in the piece' });
  if (touch) {
    await touchAlong(page, ruler, [
      [from / 64, 0.5],
      [(from + to) / 128, 0.5],
      [to / 64, 0.5],
    ]);
    return;
  }
  await ruler.focus();
  for (let i = 0; i < from; i += 1) await page.keyboard.press('ArrowRight');
  for (let i = from; i < to; i += 1) await page.keyboard.press('Shift+ArrowRight');
}

/** The piece as its own engine plays it, from a beat to a beat, with every return. */
export async function rendered(
  page: Page,
  piece: Piece,
  fromBeat: number,
  toBeat: number,
): Promise<{ left: Float32Array; right: Float32Array }> {
  const sounds = new Map<string, Float32Array[]>();
  for (const hash of Object.keys(piece.sounds))
    sounds.set(hash, readWav(await (await page.request.get(`/api/sounds/${hash}`)).body()).channels);
  const at = (beat: number): number => beatsToSamples(beat, piece.tempo, piece.sampleRate);
  return render({
    plan: compilePlan(piece),
    sounds,
    fromSample: at(fromBeat),
    toSample: at(toBeat),
    tail: { kind: 'seconds', seconds: 0 },
  })!;
}

/** Mean power of a stretch in dB. */
export const powerDb = (samples: Float32Array, from: number, to: number): number =>
  10 * Math.log10(samples.subarray(from, to).reduce((sum, x) => sum + x * x, 1e-20) / (to - from));

export { expect };

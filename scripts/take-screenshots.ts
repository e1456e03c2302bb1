import { chromium, type Page } from '@playwright/test';
import { mkdirSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { newSlot } from '../src/core/piece/edits/chain';
import type { Piece } from '../src/core/piece/piece';
import { BROWSER } from './browser';
import { startServer } from './startServer';

const PORT = 4179;
const FOLDER = 'docs/screenshots';
const PHONE = { width: 390, height: 844 };
const WIDE = { width: 1280, height: 800 };

/**
 * The demo after an evening's work: an echo on the humming voice, its input ridden, its cutoff turned by an LFO, a
 * reverb and a described room behind it, a return for all, one answer printed and placed.
 */
const ridden = (piece: Piece): Piece => ({
  ...piece,
  returns: [
    {
      id: 'space',
      name: 'Space',
      gain: 1,
      pan: 0,
      mute: false,
      solo: false,
      sends: [],
      chain: [newSlot('water', 'reverb', 'openWater', { mix: 1 })],
    },
  ],
  tracks: piece.tracks.map((track) => ({
    ...track,
    sends: [{ to: 'space', level: track.id === 'hum' ? 0.4 : 0.2, pre: false }],
    chain:
      track.id === 'hum'
        ? [
            newSlot('call', 'echo', 'callAcross'),
            newSlot('swell', 'reverb', 'tideRise'),
            newSlot('room', 'convolver', 'ownRoom'),
            newSlot('parted', 'braid', 'bloom'),
          ]
        : track.chain,
  })),
  modulators: [
    {
      id: 'swell',
      name: 'LFO 1',
      kind: 'lfo',
      rate: '1 bar',
      shape: 'sine',
      phase: 0,
      roll: 1,
    },
  ],
  links: [
    {
      id: 'turn',
      modulator: 'swell',
      target: { kind: 'effect', channel: 'hum', effect: 'call', param: 'cutoff' },
      depth: 0.25,
    },
  ],
  lanes: [
    {
      id: 'ride',
      target: { kind: 'effect', channel: 'hum', effect: 'call', param: 'input' },
      unit: 'own',
      on: true,
      points: (
        [
          [0, 0.15, 'line', 0],
          [13.5, 0.15, 'curve', 0.6],
          [15, 1, 'line', 0],
          [16.5, 1, 'curve', -0.5],
          [18, 0.1, 'line', 0],
          [27, 0.1, 'line', 0],
          [27.5, 0.9, 'hold', 0],
          [29, 0.2, 'line', 0],
          [44, 0.2, 'curve', 0.4],
          [49, 0.95, 'line', 0],
        ] as const
      ).map(([beat, value, shape, bend]) => ({ beat, value, shape, bend })),
    },
  ],
});

async function open(page: Page, view: string): Promise<void> {
  await page.getByRole('link', { name: view, exact: true }).click();
}

/** Prints an answer and places it, so that every picture after it shows a print. */
async function printOne(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Clip Hum, answer' }).click();
  await page.getByRole('button', { name: 'Print', exact: true }).click();
  await page.getByRole('button', { name: 'Start the print' }).click();
  await open(page, 'Shelf');
  await page.getByRole('button', { name: /^Place Hum, answer/ }).click();
  await page.getByText(/^Placed on/).waitFor();
  await page.getByRole('button', { name: 'Put the message away' }).click();
  await open(page, 'Piece');
}

async function pictures(page: Page, name: string): Promise<void> {
  const shoot = (view: string): Promise<Buffer> => page.screenshot({ path: join(FOLDER, `${view}-${name}.png`) });
  await page.getByRole('heading', { name: 'Salt Pier' }).waitFor();
  await page.waitForFunction(() => !document.body.textContent?.includes('loading …'));
  // A tap on the track that is in view already would open what can be done with it.
  for (const track of ['Kalimba', 'Humming voice'])
    await page.getByRole('button', { name: `Track ${track}`, exact: true }).click();
  await page.waitForFunction(() => !document.body.textContent?.includes('Sounding it out'));
  if (name !== 'wide-night') await shoot('piece');
  await open(page, 'Chain');
  // The view is loaded when it is opened first.
  await page.getByRole('img', { name: /^Repeats/ }).waitFor();
  const back = page.getByRole('button', { name: 'Back to the chain' });
  if (await back.isVisible()) {
    await back.click();
    for (const effect of ['Echo', 'Reverb', 'Convolver'])
      await page
        .getByRole('button', { name: new RegExp(`^Open ${effect}`) })
        .first()
        .locator('svg')
        .waitFor();
    if (name !== 'phone-night') await shoot('chain');
    await page.getByRole('button', { name: /^Open Echo/ }).click();
  }
  await page.getByRole('img', { name: /^Repeats/ }).waitFor();
  if (name !== 'wide-night') await shoot('editor');
  if (name === 'phone-day') {
    await links(page, shoot);
    await otherBenches(page, shoot);
    await meters(page, shoot);
    await treat(page, shoot);
  }
  await open(page, 'Moves');
  await page.getByRole('group', { name: /^Lane Echo input/ }).waitFor();
  if (name !== 'wide-night' && name !== 'phone-night') await shoot('moves');
  if (name === 'phone-night' || name === 'wide-night') await play(page, shoot);
  await open(page, 'Shelf');
  await page
    .getByRole('group', { name: /^Print/ })
    .locator('svg')
    .first()
    .waitFor();
  if (name !== 'wide-night' && name !== 'phone-night') await shoot('shelf');
  if (name === 'phone-day') await throws(page, shoot);
}

/** What turns the echo's cutoff. */
async function links(page: Page, shoot: (view: string) => Promise<Buffer>): Promise<void> {
  await page.getByRole('tab', { name: /^Links/ }).click();
  await page.getByRole('group', { name: 'LFO 1 turns Echo cutoff' }).waitFor();
  await shoot('links');
}

/** The steps of a clip that is about to be treated. */
async function treat(page: Page, shoot: (view: string) => Promise<Buffer>): Promise<void> {
  await open(page, 'Piece');
  await page.getByRole('button', { name: 'Clip Hum, first call' }).click();
  await page.getByRole('button', { name: 'Treat this clip …' }).click();
  await page.getByRole('button', { name: 'Add an effect' }).click();
  await page.getByRole('searchbox', { name: 'Search effects and purposes' }).last().fill('Warm hold');
  await page.getByRole('button', { name: 'Treat with Drive: Warm hold' }).click();
  await page.getByRole('button', { name: 'Add pitch and length' }).click();
  await page.getByRole('button', { name: 'Unfold step 2' }).click();
  await page.getByText(/^Gives back/).waitFor();
  await shoot('treat');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Let go of the selection' }).click();
}

/** Hits of the crates picked to be thrown. */
async function throws(page: Page, shoot: (view: string) => Promise<Buffer>): Promise<void> {
  await open(page, 'Moves');
  await page.getByRole('button', { name: /^Channel: / }).click();
  await page.getByRole('radio', { name: 'Crates' }).click();
  await page.getByRole('button', { name: 'Throws of Crates' }).click();
  await page.getByRole('button', { name: 'Pick every 4th' }).click();
  await shoot('throws');
}

/** A stutter that is held and a sweep on the field, while the piece plays. */
async function play(page: Page, shoot: (view: string) => Promise<Buffer>): Promise<void> {
  await open(page, 'Play');
  const field = page.getByRole('slider', { name: /^Field Low water/ });
  await field.waitFor();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  const box = (await field.boundingBox())!;
  const at = (x: number, y: number): [number, number] => [box.x + x * box.width, box.y + y * box.height];
  await page.mouse.move(...at(0.5, 0.5));
  await page.mouse.down();
  for (let i = 0; i <= 24; i += 1) await page.mouse.move(...at(0.5 + i / 90, 0.5 + 0.16 * Math.sin(i / 5)));
  await page.keyboard.down('1');
  // It sounds from its line on: what it does is drawn from then on.
  await page.locator('[aria-label^="Hold Stutter"] [data-testid="hold picture"] path[d^="M"]').last().waitFor();
  await shoot('play');
  await page.keyboard.up('1');
  await page.mouse.up();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
}

/** The meters of the voice while it sings. */
async function meters(page: Page, shoot: (view: string) => Promise<Buffer>): Promise<void> {
  await page.getByRole('button', { name: 'Back to the chain' }).click();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.getByRole('button', { name: /^Unfold level, sends and tools/ }).click();
  await page.getByRole('button', { name: /^Meters of/ }).click();
  await page.getByLabel(/^3 seconds −[12]\d/).waitFor();
  await shoot('meters');
  await page.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
}

/** A reverb's shore and a room from above. */
async function otherBenches(page: Page, shoot: (view: string) => Promise<Buffer>): Promise<void> {
  for (const [effect, picture, view] of [
    ['Reverb', /^Decay/, 'reverb'],
    ['Braid', /^Braid/, 'braid'],
  ] as const) {
    await page.getByRole('button', { name: 'Back to the chain' }).click();
    await page
      .getByRole('button', { name: new RegExp(`^Open ${effect}`) })
      .first()
      .click();
    await page.getByRole('img', { name: picture }).waitFor();
    await shoot(view);
  }
}

async function main(): Promise<void> {
  const browser = await chromium.launch({
    executablePath: BROWSER,
    args: ['--no-sandbox', '--disable-background-networking', '--no-first-run'],
  });
  const folder = mkdtempSync(join(tmpdir(), 'zephiro-pictures-'));
  const server = await startServer(folder, PORT);
  const url = `http://127.0.0.1:${PORT}`;
  try {
    const { piece } = (await (await fetch(`${url}/api/pieces/salt-pier`)).json()) as { piece: Piece };
    await fetch(`${url}/api/pieces/salt-pier`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', 'If-Match': '"1"' },
      body: JSON.stringify({ saveId: 'pictures', piece: ridden(piece), history: { from: 0, entries: [], cursor: 0 } }),
    });
    mkdirSync(FOLDER, { recursive: true });
    for (const old of readdirSync(FOLDER)) rmSync(join(FOLDER, old));
    let printed = false;
    // Night on a wide screen differs in nothing but its inks: two views of it are enough.
    for (const [name, viewport, colorScheme] of [
      ['phone-day', PHONE, 'light'],
      ['phone-night', PHONE, 'dark'],
      ['wide-day', WIDE, 'light'],
      ['wide-night', WIDE, 'dark'],
    ] as const) {
      const context = await browser.newContext({ viewport, colorScheme, hasTouch: viewport === PHONE });
      const page = await context.newPage();
      await page.goto(url);
      if (!printed) await printOne(page);
      printed = true;
      await pictures(page, name);
      await context.close();
    }
  } finally {
    await browser.close();
    server.kill('SIGTERM');
    rmSync(folder, { recursive: true, force: true });
  }
}

void main();

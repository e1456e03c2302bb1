import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { test as base, type Locator, type Page } from '@playwright/test';
import { paramPosition } from '../src/core/params/resolve';
import { SEND_LEVEL } from '../src/core/piece/piece';
import {
  beatShown,
  chooseStretch,
  copyOfDemo,
  expect,
  handOn,
  isDown,
  keepInWindow,
  saved,
  stone,
  test as inPiece,
  typeInto,
  type Hand,
  type Stored,
} from './fixtures';
import { Fingers } from './fingers';

/** Touches that the table says, by the first words of a row: "first sound", "J1". */
const STATED = new Map(
  readFileSync(join(__dirname, '../docs/jobs.md'), 'utf8')
    .split('\n')
    .map((row) => row.split('|').map((cell) => cell.trim()))
    .filter((cells) => /^\d+$/.test(cells.at(-2) ?? ''))
    .map((cells) => [cells[1]!, Number(cells.at(-2))]),
);

/** A hand that counts what it does. */
class Counting {
  touches = 0;
  readonly press: Hand['press'];
  private readonly hand: Hand;

  constructor(
    private readonly page: Page,
    private readonly touch: boolean,
  ) {
    this.hand = handOn(page, touch);
    this.press = async (role, name) => {
      this.touches += 1;
      await this.hand.press(role, name);
    };
  }

  view(view: Parameters<Hand['view']>[0]): Promise<void> {
    return this.press('link', view);
  }

  /** Opens something of the piece's head: on a phone by way of its menu. */
  async fromHead(name: string | RegExp): Promise<void> {
    if (this.touch) await this.press('button', 'More for the piece');
    await this.press('button', name);
  }

  /** Adds an effect, searched for by its purpose. */
  async add(effect: string, preset: string): Promise<void> {
    if (this.touch && (await this.page.getByRole('button', { name: 'Back to the chain' }).isVisible()))
      await this.press('button', 'Back to the chain');
    const more = this.page.getByRole('button', { name: 'Add an effect' });
    const field = this.page.getByRole('searchbox', { name: 'Search effects and purposes' }).last();
    await expect(more.or(field).first()).toBeVisible();
    if (await more.isVisible()) await this.press('button', 'Add an effect');
    await this.type('Search effects and purposes', preset);
    await this.press('button', `Add ${effect}: ${preset}`);
  }

  async type(field: string, text: string): Promise<void> {
    this.touches += 1;
    await this.page.getByRole('searchbox', { name: field }).last().fill(text);
  }

  async stretch(from: number, to: number): Promise<void> {
    this.touches += 1;
    await chooseStretch(this.page, this.touch, from, to);
  }

  /** Rides a rail a little. */
  async ride(rail: string): Promise<void> {
    this.touches += 1;
    const slider = this.page.getByRole('slider', { name: rail, exact: true });
    await slider.focus();
    for (let i = 0; i < 4; i += 1) await slider.press('ArrowLeft');
  }

  done(row: string): void {
    const stated = STATED.get(row) ?? 0;
    // By thumb as many as the table says; by keyboard no more.
    if (this.touch) expect.soft(this.touches, row).toBe(stated);
    else expect.soft(this.touches, row).toBeLessThanOrEqual(stated);
    this.touches = 0;
  }
}

/** The demo as it opens for somebody who was never here; what is changed stays in this window. */
const inDemo = inPiece.extend<{ demo: void }>({
  demo: async ({ page }, provide) => {
    await keepInWindow(page);
    await page.goto('/');
    await expect(page.getByRole('heading', { name: 'Salt Pier' })).toBeVisible();
    await provide();
  },
});

const sounds = (page: Page): Promise<void> =>
  expect
    .poll(
      () =>
        page
          .getByRole('img', { name: 'Main level' })
          .evaluate((line) =>
            Math.max(
              ...[...line.querySelectorAll<HTMLElement>('div > div')].map((part) =>
                Number(/scaleX\(([\d.]+)\)/.exec(part.style.transform)?.[1] ?? 0),
              ),
            ),
          ),
      { timeout: 30_000 },
    )
    .toBeGreaterThan(0.2);

inDemo('from the demo to the first sound, effect, print and file', async ({ page, hasTouch, demo: _ }) => {
  const hand = new Counting(page, hasTouch);
  await hand.press('button', 'Play');
  await sounds(page);
  hand.done('first sound');

  hand.touches = 1;
  await hand.view('Chain');
  await hand.press('button', 'Add Echo: Call across the water');
  await expect(page.getByRole('heading', { name: 'Echo', level: 2 })).toBeVisible();
  await sounds(page);
  hand.done('first effect heard');
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await page.getByRole('link', { name: 'Piece', exact: true }).click();

  await hand.press('button', 'Clip Hum, answer');
  await hand.press('button', 'Print');
  await hand.press('button', 'Start the print');
  await hand.view('Shelf');
  await expect(page.getByRole('group', { name: /^Print Hum, answer/ }).first()).toBeVisible({ timeout: 60_000 });
  hand.done('first print');
  await page.getByRole('link', { name: 'Piece', exact: true }).click();

  await hand.fromHead(/^Write files/);
  await hand.press('button', 'Start writing');
  const file = page.getByRole('button', { name: /^Download Salt Pier/ }).first();
  await expect(file).toBeVisible({ timeout: 90_000 });
  const download = page.waitForEvent('download');
  await hand.press('button', /^Download Salt Pier/);
  expect((await download).suggestedFilename()).toMatch(/^Salt Pier - mix - \d{4}-\d\d-\d\d\.wav$/);
  hand.done('first written file');
});

/** Plays what a first-time user is told of: by fingers, or by the keys that are printed on the pads. */
class SetHand {
  constructor(
    private readonly page: Page,
    private readonly hand: Counting,
    private readonly fingers: Fingers | null,
  ) {}

  private until(beat: number): Promise<void> {
    return expect.poll(() => beatShown(this.page), { intervals: [50], timeout: 60_000 }).toBeGreaterThanOrEqual(beat);
  }

  /** Holds a pad or a stone from a beat to a beat. */
  async hold(target: Locator, key: string, from: number, to: number): Promise<void> {
    const { page, fingers } = this;
    await this.until(from);
    this.hand.touches += 1;
    const finger = fingers ? await fingers.press(target) : 0;
    if (!fingers) await page.keyboard.down(key);
    await isDown(target, true);
    await this.until(to);
    if (fingers) await fingers.lift(finger);
    else await page.keyboard.up(key);
    await isDown(target, false);
  }

  /** Sweeps the field up over some bars. */
  async sweep(field: Locator, from: number, to: number): Promise<void> {
    const { page, fingers } = this;
    await this.until(from);
    this.hand.touches += 1;
    if (fingers) {
      const finger = await fingers.press(field, 0.2, 0.5);
      for (let beat = from; beat < to; beat += 1) {
        await this.until(beat);
        await fingers.move(finger, 12, 0);
      }
      await fingers.lift(finger);
      return;
    }
    // A key that is held moves the field as fast as a finger would; with Shift it takes four bars.
    await page.keyboard.down('Shift');
    await page.keyboard.down('ArrowRight');
    await this.until(to);
    await page.keyboard.up('ArrowRight');
    await page.keyboard.up('Shift');
  }
}

const fieldOf = (page: Page): Locator => page.getByRole('slider', { name: /^Field Low water/ });
const throwPad = (page: Page): Locator => page.getByRole('button', { name: 'Throw Kalimba into Far shore' });

base('from the demo to the first hold, and a set that is recorded and mended', async ({ page, request, hasTouch }) => {
  const id = await copyOfDemo(request, (piece) => piece);
  await page.addInitScript((open) => localStorage.setItem('zephiro.open', open), id);
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Salt Pier' })).toBeVisible();
  const hand = new Counting(page, hasTouch);
  const hands = new SetHand(page, hand, hasTouch ? await Fingers.on(page) : null);
  await hand.view('Play');
  await hand.press('button', 'Play');
  await hands.hold(stone(page, 'Stutter'), '1', 0, 1);
  hand.done('first hold heard');
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await page.getByRole('button', { name: 'Back to the start' }).click();
  await page.getByRole('link', { name: 'Piece', exact: true }).click();

  await hand.view('Play');
  await hand.press('switch', 'Record moves');
  await hand.press('button', 'Play');
  // The last beat of the first part, four bars up, a throw into the gap behind.
  await hands.hold(stone(page, 'Stutter'), '1', 15, 16);
  await hands.sweep(fieldOf(page), 16, 32);
  await hands.hold(throwPad(page), 'a', 33, 34);
  await hand.press('button', 'Stop');
  const { lanes } = (await saved(page, id, ({ piece }) => piece.lanes.some(({ target }) => target.kind === 'send')))
    .piece;
  const params = lanes.map(({ target }) => ('param' in target ? target.param : target.kind));
  expect(params).toEqual(expect.arrayContaining(['held', 'cutoff', 'send']));

  await base.step('the throw that came late is put on the bar', async () => {
    await hand.view('Moves');
    await hand.press('button', /^Moves of Kalimba/);
    const lane = page.getByRole('group', { name: /^Lane Send/ });
    const late = lanes.find(({ target }) => target.kind === 'send')!.points[1]!;
    expect(late.value).toBe(1);
    hand.touches += 1;
    if (hasTouch) {
      const box = (await lane.boundingBox())!;
      const down = 1 - paramPosition(SEND_LEVEL, late.value);
      await page.touchscreen.tap(box.x + (late.beat / 64) * box.width, box.y + 12 + down * (box.height - 24));
    } else {
      await lane.focus();
      for (let i = 0; i < 2; i += 1) await page.keyboard.press('ArrowRight');
    }
    await expect(page.getByRole('group', { name: 'Point 2 of 3' })).toBeVisible();
    hand.touches += 1;
    await typeInto(page, 'Beat', '33');
    const throwLane = ({ piece }: Stored) => piece.lanes.find(({ target }) => target.kind === 'send')!;
    const mended = throwLane(await saved(page, id, (stored) => throwLane(stored).points[1]!.beat === 32));
    expect(mended.points.map(({ value }) => value)).toEqual([0, 1, 0]);
  });
  hand.done('a set recorded, one touch mended');
});

type Ready = (stored: Stored) => boolean;
type Job = (hand: Counting, page: Page) => Promise<Ready | void>;

const effects = ({ piece }: Stored, channel = 'hum'): string =>
  piece.tracks
    .find(({ id }) => id === channel)!
    .chain.map(({ effect }) => effect)
    .join();

const JOBS: Readonly<Record<string, Job>> = {
  J1: async (hand) => {
    await hand.view('Chain');
    await hand.press('button', 'Add Echo: Call across the water');
    await hand.press('button', 'Play');
    return ({ piece }) => piece.tracks.some(({ chain }) => chain.some(({ values }) => values.timeL === '1/8d'));
  },
  J2: async (hand) => {
    await hand.view('Chain');
    await hand.add('Reverb', 'Neutral');
    await hand.press('button', 'Decay: half');
    return (stored) => effects(stored) === 'reverb' && stored.history.cursor === 2;
  },
  J3: async (hand) => {
    await hand.press('button', 'Add sounds, a track or a return');
    await hand.press('button', 'Add an echo and a space that every track sends to');
    return ({ piece }) => piece.returns.length === 2 && piece.tracks.every(({ sends }) => sends.length === 2);
  },
  J4: async (hand, page) => {
    await hand.view('Chain');
    await hand.add('Side delay', 'Wide plank');
    await hand.press('button', 'Play');
    if (await page.getByRole('button', { name: 'Back to the chain' }).isVisible())
      await hand.press('button', 'Back to the chain');
    await hand.press('button', /^Unfold level, sends and tools/);
    await expect(page.getByLabel('Loss in mono').first()).toContainText('dB');
    return (stored) => effects(stored) === 'sideDelay';
  },
  J5: async (hand, page) => {
    await page.getByRole('button', { name: 'Add sounds, a track or a return' }).click();
    await page.getByRole('button', { name: 'Add return: Echo' }).click();
    await page.getByRole('button', { name: 'Track Crates' }).click();
    await hand.view('Moves');
    await hand.press('button', 'Throws of Crates');
    await hand.press('button', 'Pick last of 4 bars');
    await hand.press('button', /^Throw \d+ hits/);
    return ({ piece }) => piece.lanes.length === 1;
  },
  J6: async (hand) => {
    await hand.view('Chain');
    await hand.press('button', /^Unfold level, sends and tools/);
    await hand.press('switch', 'Record moves');
    await hand.press('button', 'Play');
    await hand.ride('Level');
    await hand.press('button', 'Stop');
    return ({ piece }) => piece.lanes.some(({ target }) => target.kind === 'channel' && target.param === 'gain');
  },
  J7: async (hand, page) => {
    await hand.press('button', 'Clip Crates, all hands');
    await hand.press('button', 'Swells into hits of this track');
    await hand.press('button', 'Pick the last of 4 bars');
    await hand.press('button', 'Make 4 swells');
    await expect(page.getByText(/4 swells made/)).toBeVisible({ timeout: 60_000 });
    return ({ piece }) => piece.tracks.length === 6;
  },
  J8: async (hand, page) => {
    await hand.fromHead(/^Gaps of the piece/);
    await hand.press('button', /^Choose the gap 5\.2 to 7\.1, Humming voice/);
    await hand.press('button', 'Bed over this');
    await hand.press('button', 'Make Frozen bed');
    await expect(page.getByText(/Frozen bed made/)).toBeVisible({ timeout: 60_000 });
    return ({ piece }) => piece.tracks.length === 6;
  },
  J9: async (hand, page) => {
    await hand.stretch(24, 32);
    await hand.press('button', 'Riser over this');
    await hand.press('button', 'Make Riser');
    await expect(page.getByText(/^Riser made/)).toBeVisible({ timeout: 60_000 });
    return ({ piece }) => piece.tracks.length === 6;
  },
  J10: async (hand, page) => {
    await hand.view('Play');
    await hand.press('button', 'Play');
    const pad = stone(page, 'Stutter');
    hand.touches += 1;
    await pad.focus();
    await page.keyboard.down('Enter');
    await expect(pad).toHaveAttribute('aria-pressed', 'true');
    await page.keyboard.up('Enter');
  },
  J11: async (hand) => {
    await hand.view('Chain');
    await hand.add('Braid', 'Five bells');
    await hand.press('button', 'Play');
    return ({ piece }) => piece.tracks.some(({ chain }) => chain.some(({ values }) => values.plays === 'pattern'));
  },
  J12: async (hand, page) => {
    await hand.press('button', 'Clip Hum, answer');
    await hand.press('button', 'Treat this clip …');
    await hand.press('button', 'Add an effect');
    await hand.type('Search effects and purposes', 'red iron');
    await hand.press('button', 'Treat with Drive: Red iron');
    await hand.press('button', 'Treat this clip');
    await expect(page.getByText(/^Hum, answer treated/)).toBeVisible({ timeout: 60_000 });
    return ({ piece }) => piece.tracks.some(({ clips }) => clips.some(({ treated }) => treated));
  },
  J13: async (hand) => {
    await hand.view('Chain');
    await hand.add('Convolver', 'Call into the cistern');
    return (stored) => effects(stored) === 'convolver';
  },
  J14: async (hand) => {
    await hand.view('Chain');
    await hand.add('Pitch', 'Octave under');
    return (stored) => effects(stored) === 'pitch';
  },
  J15: async (hand) => {
    await hand.view('Chain');
    await hand.add('Placer', 'Circling gull');
    return ({ piece }) => piece.tracks.some(({ chain }) => chain.some(({ values }) => values.path === 'circle'));
  },
  J16: async (hand) => {
    await hand.view('Chain');
    await hand.add('Taps', 'Coming tide');
    await hand.add('Reverb', 'Over open water');
    return (stored) => effects(stored) === 'taps,reverb';
  },
};

inPiece.describe('touches of the jobs', () => {
  for (const [job, play] of Object.entries(JOBS))
    inPiece(`${job} takes no more touches than the table says`, async ({ page, pieceId, hasTouch }) => {
      const hand = new Counting(page, hasTouch);
      const ready = await play(hand, page);
      if (ready) await saved(page, pieceId, ready);
      hand.done(job);
    });
});

import type { Page } from '@playwright/test';
import { beatShown, copyOfDemo, expect, handOn, isDown, saved, stone, test as base, typeInto } from './fixtures';
import { Fingers } from './fingers';
import type { Piece, Target } from '../src/core/piece/piece';

/** The demo with its returns, and two controls of a controller on the field. */
function withControls(piece: Piece): Piece {
  const [field] = piece.fields!;
  const on = (number: number, target: Target) => ({ id: `control-${number}`, number, midiChannel: 0, target });
  return { ...piece, controls: [on(20, field!.across.target), on(21, field!.up.target)] };
}

const test = base.extend<{ setPiece: string }>({
  setPiece: async ({ page, request }, provide) => {
    const id = await copyOfDemo(request, withControls);
    await page.goto(`/piece/${id}`);
    await expect(page.getByRole('heading', { name: 'Salt Pier' })).toBeVisible();
    await provide(id);
  },
});

/** What a set is played with. */
interface SetHand {
  start(): Promise<void>;
  stop(): Promise<void>;
  /** Holds the stone of an index for as long as `during` takes. */
  hold(index: number, during: () => Promise<void>): Promise<void>;
  nextPreset(): Promise<void>;
  /** Moves the field down and comes back. */
  sweep(): Promise<void>;
  /** Holds the first pad for as long as `during` takes. */
  pad(during: () => Promise<void>): Promise<void>;
  letGoOfAll(): Promise<void>;
}

const STONES = ['Stutter', 'Tape stop', 'Backwards', 'Cloud'] as const;
const field = (page: Page) => page.getByRole('slider', { name: /^Field Low water/ });
const throwPad = (page: Page) => page.getByRole('button', { name: /^Throw Kalimba into/, includeHidden: true }).first();

async function later(page: Page, beats: number): Promise<void> {
  const from = await beatShown(page);
  await expect.poll(() => beatShown(page), { intervals: [50] }).toBeGreaterThanOrEqual(from + beats);
}

/** A set as somebody plays it: every kind of thing that Play has, some of them at once. */
async function playSet(page: Page, hand: SetHand): Promise<void> {
  const held = STONES.map((name) =>
    page.getByRole('button', { name: new RegExp(`^Hold ${name}`), includeHidden: true }),
  );
  await hand.start();
  await expect.poll(() => beatShown(page)).toBeGreaterThan(0);
  await hand.hold(0, async () => {
    await isDown(held[0]!, true);
    const before = (await held[0]!.getAttribute('aria-label'))!;
    await hand.nextPreset();
    await expect(held[0]!).not.toHaveAttribute('aria-label', before);
    // The beat that is shown is rounded down: after two of them more than one has passed.
    await later(page, 2);
  });
  await isDown(held[0]!, false);
  await hand.sweep();
  await hand.pad(() => isDown(throwPad(page), true));
  await isDown(throwPad(page), false);
  await hand.hold(2, () =>
    hand.hold(3, async () => {
      await isDown(held[2]!, true);
      await isDown(held[3]!, true);
      await later(page, 1);
      await hand.letGoOfAll();
      await isDown(held[2]!, false);
      await isDown(held[3]!, false);
    }),
  );
  await hand.stop();
}

/** What the set left: lanes of everything that was played. */
async function expectRecorded(page: Page, id: string): Promise<void> {
  const nameOf = (target: Target): string =>
    target.kind === 'effect' ? `${target.effect} ${target.param}` : target.kind;
  const wanted = ['deck-rattle held', 'deck-rattle slice', 'undertow held', 'send'];
  const { piece } = await saved(page, id, (stored) => {
    const names = new Set(stored.piece.lanes.map(({ target }) => nameOf(target)));
    return wanted.every((name) => names.has(name)) && [...names].some((name) => name.endsWith(' cutoff'));
  });
  const stutter = piece.lanes.find(({ target }) => nameOf(target) === 'deck-rattle held')!;
  const on = stutter.points.find(({ value }) => value === 1)!;
  const off = stutter.points.find(({ value, beat }) => value === 0 && beat > on.beat)!;
  expect(off.beat - on.beat).toBeGreaterThan(0.5);
}

async function openPlay(page: Page, touch: boolean): Promise<void> {
  const hand = handOn(page, touch);
  await hand.view('Play');
  await hand.press('switch', 'Record moves');
}

function byKeys(page: Page): SetHand {
  const press = handOn(page, false).press;
  const whileDown = async (key: string, during: () => Promise<void>): Promise<void> => {
    await page.keyboard.down(key);
    await during();
    await page.keyboard.up(key);
  };
  return {
    start: () => press('button', 'Play'),
    stop: () => press('button', 'Stop'),
    hold: (index, during) => whileDown(String(index + 1), during),
    nextPreset: () => page.keyboard.press('.'),
    sweep: async () => {
      await whileDown('ArrowLeft', () => expect(field(page)).toHaveAttribute('aria-valuenow', /^([0-3]\d|\d)$/));
      await expect(field(page)).toHaveAttribute('aria-valuenow', /^(49|50|51)$/);
    },
    pad: (during) => whileDown('a', during),
    letGoOfAll: () => page.keyboard.press('Escape'),
  };
}

async function byTouch(page: Page): Promise<SetHand> {
  const fingers = await Fingers.on(page);
  const press = handOn(page, true).press;
  const down: number[] = [];
  const whileDown = async (target: ReturnType<typeof stone>, during: () => Promise<void>): Promise<void> => {
    const finger = await fingers.press(target);
    down.push(finger);
    await during();
    down.pop();
    await fingers.lift(finger);
  };
  return {
    start: () => press('button', 'Play'),
    stop: () => press('button', 'Stop'),
    hold: (index, during) => whileDown(stone(page, STONES[index]!), during),
    nextPreset: async () => {
      await fingers.move(down[0]!, 30, 0);
      await fingers.move(down[0]!, 30, 0);
    },
    sweep: async () => {
      const finger = await fingers.press(field(page), 0.5, 0.5);
      for (let i = 0; i < 8; i += 1) await fingers.move(finger, -12, -4);
      await expect(field(page)).toHaveAttribute('aria-valuenow', /^([0-3]\d|\d)$/);
      await fingers.lift(finger);
      await expect(field(page)).toHaveAttribute('aria-valuenow', /^(49|50|51)$/);
    },
    pad: (during) => whileDown(throwPad(page), during),
    letGoOfAll: async () => void (await fingers.press(page.getByRole('button', { name: 'Let go of all' }))),
  };
}

/** The controller that ships: fingers on its pads, everything else by keys. */
async function byController(page: Page): Promise<SetHand> {
  const fingers = await Fingers.on(page);
  const press = handOn(page, false).press;
  const pad = async (number: number, during: () => Promise<void>): Promise<void> => {
    const target = page.getByRole('button', { name: `Pad ${number} of the controller`, exact: true });
    await target.scrollIntoViewIfNeeded();
    const finger = await fingers.press(target);
    await during();
    await fingers.lift(finger);
  };
  return {
    start: () => press('button', 'Start, by the controller'),
    stop: () => press('button', 'Stop, by the controller'),
    hold: (index, during) => pad(index + 1, during),
    nextPreset: () => press('button', 'Next preset, by the controller'),
    sweep: async () => {
      // It takes hold when it passes where the cutoff stands.
      for (const at of [10, 120, 60, 20]) await typeInto(page, 'Fader 1', String(at));
    },
    pad: (during) => pad(9, during),
    letGoOfAll: () => press('button', 'Let go of all, by the controller'),
  };
}

test('a whole set by keyboard alone', async ({ page, setPiece }) => {
  await openPlay(page, false);
  await playSet(page, byKeys(page));
  await expectRecorded(page, setPiece);
});

test('a whole set by the controller that ships, alone', async ({ page, setPiece }) => {
  await openPlay(page, false);
  await handOn(page, false).press('button', /^Controller: /);
  await playSet(page, await byController(page));
  await expectRecorded(page, setPiece);
});

test.describe('with fingers', () => {
  test.use({ hasTouch: true });

  test('a whole set by touch alone', async ({ page, setPiece }) => {
    await openPlay(page, true);
    await playSet(page, await byTouch(page));
    await expectRecorded(page, setPiece);
  });
});

import type { Lane } from '../src/core/piece/piece';
import { expect, frames, saved, test, touchAlong, typeInto } from './fixtures';

test('J6: lanes are folded, chosen and shown by touch, bent and shifted by hand or keys, and cleared at once', async ({
  page,
  pieceId,
  hasTouch,
  hand,
}) => {
  const lane = async (param: string, ready: (lane: Lane) => boolean): Promise<Lane> => {
    const find = (lanes: readonly Lane[]): Lane | undefined =>
      lanes.find(({ target }) => 'param' in target && target.param === param);
    // The lane itself may not have reached the server yet.
    const stored = await saved(page, pieceId, ({ piece }) => {
      const found = find(piece.lanes);
      return found !== undefined && ready(found);
    });
    return find(stored.piece.lanes)!;
  };
  const pan = page.getByRole('group', { name: /^Lane Pan/ });
  await hand.view('Moves');
  for (const name of ['Level', 'Pan']) {
    await hand.press('button', 'Add a lane by hand');
    await hand.press('button', `Lane for Channel ${name}`);
  }
  await test.step('a folded lane keeps its line and takes no hand', async () => {
    await hand.press('button', 'Fold lane Level');
    await expect(page.getByRole('group', { name: /^Lane Level/ })).toHaveCount(0);
    await expect(page.getByRole('button', { name: 'Open lane Level' })).toBeVisible();
  });
  await test.step('a point more at bar 5', async () => {
    const ruler = page.getByRole('slider', { name: 'Place in the piece' });
    if (hasTouch) {
      const box = (await ruler.boundingBox())!;
      await page.touchscreen.tap(box.x + (box.width * 16) / 64, box.y + 10);
    } else {
      await ruler.focus();
      for (let i = 0; i < 16; i += 1) await page.keyboard.press('ArrowRight');
    }
    await hand.press('button', 'Add a point at the playhead');
    await typeInto(page, 'Pan', '50 % right');
    const { points } = await lane('pan', (made) => made.points[1]?.value === 0.5);
    expect(points[1]!.beat).toBeCloseTo(16, 1);
  });
  if (hasTouch) {
    const { height: tall } = (await pan.boundingBox())!;
    const rise = tall - 24;
    const place = (beat: number, value: number): [number, number] => [
      beat / 64,
      (12 + (0.5 - value / 2) * rise) / tall,
    ];
    await test.step('the line between is pushed up with both its points, then bent by its middle', async () => {
      const [x, y] = place(8, 0.25);
      await touchAlong(
        page,
        pan,
        [
          [x, y],
          [x, y - rise / 9 / tall],
          [x, y - rise / 4 / tall],
        ],
        () => frames(page, 1),
      );
      const shifted = await lane('pan', ({ points }) => points[0]!.value > 0.4);
      expect(shifted.points.map(({ value }) => value)).toEqual([expect.closeTo(0.5, 1), expect.closeTo(1, 1)]);
      const [, middle] = place(8, (shifted.points[0]!.value + shifted.points[1]!.value) / 2);
      await touchAlong(
        page,
        pan,
        [
          [x, middle],
          [x, middle + 4 / tall],
          [x, middle + 6 / tall],
        ],
        () => frames(page, 1),
      );
      const bent = await lane('pan', ({ points }) => points[0]!.shape === 'curve');
      // Six pixels of pan, as a share of how far the line rises.
      const share = 0.5 - (2 * 6) / rise / (shifted.points[1]!.value - shifted.points[0]!.value);
      expect(positionAtMiddle(bent)).toBeCloseTo(share, 1);
    });
    await test.step('a finger beside the line scrolls, and changes nothing', async () => {
      const zoom = async (way: 'less' | 'more'): Promise<void> => {
        await hand.press('button', 'More for the moves');
        for (let i = 0; i < 2; i += 1) await hand.press('button', `Show ${way} time`);
        await hand.press('button', 'Close');
      };
      await zoom('less');
      const left = async (): Promise<number> => (await pan.boundingBox())!.x;
      await expect.poll(async () => (await pan.boundingBox())!.width).toBeGreaterThan(1000);
      const before = await left();
      const { points } = await lane('pan', () => true);
      await touchAlong(page, pan, [
        [0.22, 0.9],
        [0.18, 0.9],
        [0.12, 0.9],
        [0.06, 0.9],
      ]);
      await expect.poll(left).toBeLessThan(before - 50);
      // A tap while the view still coasts only stops it.
      let at = before;
      const moved = async (): Promise<number> => {
        const was = at;
        at = await left();
        return at - was;
      };
      await expect.poll(moved).toBe(0);
      expect((await lane('pan', () => true)).points).toEqual(points);
      await zoom('more');
    });
  } else {
    await test.step('keys choose a point, change its value and its place, and remove it', async () => {
      await pan.focus();
      await page.keyboard.press('ArrowLeft');
      await page.keyboard.press('PageUp');
      await page.keyboard.press('ArrowDown');
      await page.keyboard.press('Shift+ArrowRight');
      const { points } = await lane('pan', (made) => made.points[0]!.beat > 0);
      expect(points[0]).toMatchObject({ beat: 0.0625, value: expect.closeTo(0.18, 6) });
      await hand.press('button', 'Shape after this point: line. Change');
      await hand.press('button', 'Shape after this point: hold. Change');
      await typeInto(page, 'Bend', '-30 %');
      await lane('pan', (made) => made.points[0]!.bend === -0.3);
      await pan.focus();
      await page.keyboard.press('Delete');
      await lane('pan', (made) => made.points.length === 1);
    });
  }
  await test.step('only the rail touched last', async () => {
    await hand.press('button', /^Lanes in view/);
    await hand.press('radio', /^Just touched/);
    await hand.press('button', 'Close');
    await expect(page.getByText('Touch a rail of this channel, and its lane stands here.')).toBeVisible();
    await hand.view('Chain');
    await hand.add('Echo', 'Neutral');
    await page.getByRole('slider', { name: 'Feedback' }).press('ArrowRight');
    await hand.view('Moves');
    await hand.press('button', 'Add a lane for the rail touched last');
    await expect(page.getByRole('group', { name: /^Lane Echo feedback/ })).toBeVisible();
    await expect(pan).toHaveCount(0);
  });
  await test.step('some chosen, then all cleared, which one undo brings back', async () => {
    await hand.press('button', /^Lanes in view/);
    await hand.press('radio', /^Chosen/);
    await hand.press('switch', 'Echo feedback in view');
    await hand.press('switch', 'Level in view');
    await hand.press('button', 'Close');
    await expect(page.getByRole('group', { name: /^Lane / })).toHaveCount(1);
    await expect(pan).toBeVisible();
    await hand.press('button', /^Lanes in view/);
    await hand.press('button', 'Clear all moves of Humming voice');
    await expect(page.getByText('3 lanes cleared. Undo brings them back.')).toBeVisible();
    await saved(page, pieceId, ({ piece }) => piece.lanes.length === 0);
    await hand.press('button', /^Undo: Clear all moves/);
    await saved(page, pieceId, ({ piece }) => piece.lanes.length === 3);
  });
});

/** How far a bent first segment has come half way. */
function positionAtMiddle({ points }: Lane): number {
  const slow = points[0]!.bend > 0 ? 1 - 0.98 * points[0]!.bend : 1 / (1 + 0.98 * points[0]!.bend);
  return 0.5 / (0.5 + slow * 0.5);
}

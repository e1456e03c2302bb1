import { beatShown, expect, farthest, powerDb, rendered, saved, test } from './fixtures';

test('a hold is played by its pad, recorded as a move of its switch, and undone', async ({
  page,
  pieceId,
  hasTouch,
  hand,
}) => {
  await hand.view('Chain');
  await hand.press('button', /^Channel: /);
  await hand.press('radio', 'Main');
  await hand.add('Stutter', 'Deck rattle');
  const pad = page.getByRole('button', { name: 'Hold Stutter' });
  await expect(pad).toBeVisible();
  await hand.press('switch', 'Record moves');
  await hand.press('button', 'Play');
  const touch = await page.context().newCDPSession(page);
  const down = async (): Promise<void> => {
    if (hasTouch) {
      const box = (await pad.boundingBox())!;
      const touchPoints = [{ x: box.x + box.width / 2, y: box.y + box.height / 2 }];
      await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints });
    } else {
      await pad.focus();
      await page.keyboard.down('Space');
    }
  };
  const up = async (): Promise<void> => {
    if (hasTouch) await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
    else await page.keyboard.up('Space');
  };
  await down();
  await expect(pad).toHaveAttribute('aria-pressed', 'true');
  await expect.poll(() => beatShown(page)).toBeGreaterThan(2);
  await up();
  await expect(pad).toHaveAttribute('aria-pressed', 'false');
  await hand.press('button', 'Stop');
  const { piece, history } = await saved(page, pieceId, (stored) => stored.piece.lanes.length === 1);
  const [lane] = piece.lanes;
  expect(lane!.target).toMatchObject({ kind: 'effect', param: 'held' });
  const on = lane!.points.find(({ value }) => value === 1)!;
  const off = lane!.points.find(({ value, beat }) => value === 0 && beat > on.beat)!;
  expect(off.beat - on.beat).toBeGreaterThan(0.5);
  expect(history.entries[history.cursor - 1]!.label).toMatch(/^Record held/);
  const held = await rendered(page, piece, 0, off.beat);
  const without = await rendered(page, { ...piece, lanes: [] }, 0, off.beat);
  const apart = held.left.map((x, i) => x - without.left[i]!);
  const start = Math.floor((on.beat * 60 * piece.sampleRate) / piece.tempo.bpm);
  expect(farthest(held.left.subarray(0, start), without.left.subarray(0, start))).toBe(0);
  expect(powerDb(apart, start, apart.length)).toBeGreaterThan(-60);
});

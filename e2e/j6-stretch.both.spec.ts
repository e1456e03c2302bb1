import type { Lane } from '../src/core/piece/piece';
import { chooseStretch, expect, handOn, saved, test, touchAlong } from './fixtures';

/** A lane's value at a beat: straight lines and holds. */
function valueAt({ points }: Lane, beat: number): number {
  const next = points.findIndex((point) => point.beat > beat);
  if (next <= 0) return points[next === 0 ? 0 : points.length - 1]!.value;
  const [a, b] = [points[next - 1]!, points[next]!];
  return a.shape === 'line' ? a.value + ((b.value - a.value) * (beat - a.beat)) / (b.beat - a.beat) : a.value;
}

test('J6: a stretch is drawn, flipped, copied to another place, repeated, cleared, and undone', async ({
  page,
  pieceId,
  hasTouch,
  hand,
}) => {
  await hand.view('Moves');
  await hand.press('button', 'Add a lane by hand');
  await hand.press('button', 'Lane for Channel Pan');
  const lane = async (cursor: number): Promise<Lane> =>
    (await saved(page, pieceId, (stored) => stored.history.cursor === cursor)).piece.lanes[0]!;
  await test.step('choose bars 3 and 4 on the ruler', async () => {
    await chooseStretch(page, hasTouch, 8, 16);
    await expect(page.getByText('3.1 to 5.1, Pan')).toBeVisible();
  });
  await hand.press('button', 'Draw a shape into the stretch');
  await hand.press('button', 'Draw rise');
  const drawn = await lane(2);
  expect([7.9, 8.01, 10, 11.98, 12.02, 14, 16.1].map((beat) => Math.round(10 * valueAt(drawn, beat)) / 10)).toEqual([
    0, -0.8, 0, 0.8, -0.8, 0, 0,
  ]);
  await hand.press('button', 'Flip in time: moves in the stretch');
  const flipped = await lane(3);
  expect([8.01, 11.98, 12.02].map((beat) => Math.round(10 * valueAt(flipped, beat)) / 10)).toEqual([0.8, -0.8, 0.8]);

  await hand.press('button', 'Copy moves');
  await hand.press('button', 'Back to the start');
  await hand.press('button', 'Paste moves at the playhead');
  const pasted = await lane(4);
  for (const beat of [0.5, 2, 3.5, 6]) expect(valueAt(pasted, beat)).toBeCloseTo(valueAt(flipped, beat + 8), 2);
  await hand.press('button', 'Repeat moves after the stretch');
  const repeated = await lane(5);
  for (const beat of [17, 18.5, 22]) expect(valueAt(repeated, beat)).toBeCloseTo(valueAt(flipped, beat - 8), 2);
  await hand.press('button', 'Clear moves in the stretch');
  const cleared = await lane(6);
  expect([8.5, 11, 15].map((beat) => valueAt(cleared, beat))).toEqual([0, 0, 0]);
  expect(valueAt(cleared, 18.5)).toBeCloseTo(valueAt(repeated, 18.5), 6);
  for (const name of ['Clear moves', 'Repeat moves', 'Paste moves', 'Flip in time', 'Draw rise'])
    await hand.press('button', new RegExp(`^Undo: ${name}`));
  expect((await lane(1)).points).toHaveLength(1);
});

test('J6: a line drawn with a finger becomes moves', async ({ page, pieceId, hasTouch }) => {
  test.skip(!hasTouch, 'Drawing is for a finger or a mouse; shapes are there for the keyboard.');
  const hand = handOn(page, hasTouch);
  await hand.view('Moves');
  await hand.press('button', 'Add a lane by hand');
  await hand.press('button', 'Lane for Channel Pan');
  await hand.press('button', /^Draw with a finger/);
  await touchAlong(
    page,
    page.getByRole('group', { name: /^Lane Pan/ }),
    Array.from(
      { length: 33 },
      (_, i) => [0.25 + (0.5 * i) / 32, 0.5 - 0.3 * Math.sin((2 * Math.PI * i) / 32)] as const,
    ),
  );
  const { points } = (await saved(page, pieceId, (stored) => stored.history.cursor === 2)).piece.lanes[0]!;
  expect(points.length).toBeGreaterThan(6);
  expect(points.length).toBeLessThan(60);
  const highest = points.reduce((best, point) => (point.value > best.value ? point : best));
  expect(highest.beat).toBeCloseTo(24, -1);
  expect(highest.value).toBeGreaterThan(0.5);
});

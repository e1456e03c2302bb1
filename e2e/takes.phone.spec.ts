import { trackAt, laneTrack } from '../src/core/piece/moves/lane';
import { paramOf } from '../src/core/piece/find';
import type { Piece } from '../src/core/piece/piece';
import { beatShown, expect, frames, go, saved, test, touchAlong } from './fixtures';

test('J6: passes round a loop stay apart as takes: one is chosen in the place of the other, then none of them', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Chain');
  await hand.add('Echo', 'Neutral');
  await hand.view('Moves');
  const ruler = page.getByRole('slider', { name: 'Place in the piece' });
  await touchAlong(page, ruler, [
    [0.005, 0.5],
    [0.12, 0.5],
    [0.25, 0.5],
  ]);
  await go(page, 'Piece');
  await hand.press('button', 'Loop this');
  await hand.press('button', 'Let go of the selection');
  await hand.view('Chain');
  await hand.press('switch', 'Record moves');
  await hand.press('button', 'Play');
  const rail = page.getByRole('slider', { name: 'Input' });
  const ride = (from: number, to: number): Promise<void> =>
    touchAlong(
      page,
      rail,
      Array.from({ length: 8 }, (_, i) => [from + ((to - from) * i) / 7, 0.5] as const),
      () => frames(page, 2),
    );
  await ride(0.9, 0.2);
  const first = (await saved(page, pieceId, ({ piece }) => piece.lanes.length === 1)).piece;
  // The loop comes round before the second pass.
  const before = await beatShown(page);
  if (before > 1) await expect.poll(() => beatShown(page)).toBeLessThan(before);
  await ride(0.3, 0.95);
  await hand.press('button', 'Stop');
  const second = (
    await saved(
      page,
      pieceId,
      ({ history }) => history.entries.filter(({ label }) => label.startsWith('Record input')).length === 2,
    )
  ).piece;

  const input = (piece: Piece, beat: number): number =>
    trackAt(laneTrack(piece, piece.lanes[0]!, paramOf(piece, piece.lanes[0]!.target)!), beat);
  const places = first.lanes[0]!.points.map(({ beat }) => beat).filter((beat) => beat > 0.1);
  await hand.view('Moves');
  await hand.press('button', 'Takes of Echo input: 2');
  await hand.press('radio', /^Take 1/);
  const chosen = (
    await saved(page, pieceId, ({ history }) => history.entries.some(({ label }) => label.startsWith('Take 1')))
  ).piece;
  for (const beat of places) expect(input(chosen, beat)).toBeCloseTo(input(first, beat), 1);
  expect(chosen.lanes[0]).not.toEqual(second.lanes[0]);
  await hand.press('radio', /^As before recording/);
  const none = (
    await saved(page, pieceId, ({ history }) =>
      history.entries.some(({ label }) => label.startsWith('Leave all takes')),
    )
  ).piece;
  for (const beat of places) expect(input(none, beat)).toBeCloseTo(1, 3);
});

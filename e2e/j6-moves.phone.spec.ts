import type { Lane } from '../src/core/piece/piece';
import {
  beatShown,
  expect,
  frames,
  fromHead,
  go,
  printAndDownload,
  repeats,
  saved,
  soundNamed,
  test,
  touchAlong,
  typeInto,
} from './fixtures';

/** A lane's value at a beat, worked out here once more: straight lines between points. */
function valueAt(lane: Lane, beat: number): number {
  const { points } = lane;
  const next = points.findIndex((point) => point.beat > beat);
  if (next === 0) return points[0]!.value;
  if (next < 0) return points[points.length - 1]!.value;
  const [a, b] = [points[next - 1]!, points[next]!];
  return a.shape === 'hold' ? a.value : a.value + ((b.value - a.value) * (beat - a.beat)) / (b.beat - a.beat);
}

test('J6 by touch: the input of an echo is ridden, seen as a lane, corrected, undone, kept over a reload and heard in the print', async ({
  page,
  pieceId,
}) => {
  await go(page, 'Chain');
  await page.getByRole('button', { name: 'Add Echo: Neutral' }).tap();
  await typeInto(page, 'Time', '24000 samples');
  await go(page, 'Piece');
  const ruler = page.getByRole('slider', { name: 'Place in the piece' });
  const box = (await ruler.boundingBox())!;
  await page.touchscreen.tap(box.x + (box.width * 8.2) / 64, box.y + 10);
  await go(page, 'Chain');
  await page.getByRole('switch', { name: 'Record moves' }).tap();
  await page.getByRole('button', { name: 'Play', exact: true }).tap();
  // For its first moments a browser does not tell yet what it puts out when, which moves are placed by.
  await expect.poll(() => beatShown(page)).toBeGreaterThan(8);
  const wave = Array.from({ length: 50 }, (_, i) => [0.5 + 0.48 * Math.cos(i / 7), 0.5] as const);
  await touchAlong(page, page.getByRole('slider', { name: 'Input' }), wave, () => frames(page, 4));
  await expect(page.getByText(/Move recorded: \d+ readings, \d+ points/)).toBeVisible();
  await page.getByRole('button', { name: 'Stop', exact: true }).tap();
  await expect(page.getByRole('tab', { name: 'Time, has moves' })).toBeVisible();

  const recorded = (await saved(page, pieceId, (stored) => stored.piece.lanes.length === 1)).piece.lanes[0]!;
  expect(recorded.target).toMatchObject({ channel: 'hum', param: 'input' });
  expect(Math.min(...recorded.points.map((point) => point.value))).toBeLessThan(0.1);
  expect(recorded.points[0]!.beat).toBeGreaterThan(8);

  await go(page, 'Moves');
  await page.getByRole('button', { name: 'More for the moves' }).tap();
  await page.getByRole('button', { name: 'Show less time' }).tap();
  await page.getByRole('button', { name: 'Close' }).tap();
  const lane = page.getByRole('group', { name: /^Lane Echo input/ });
  const lowest = recorded.points.reduce((low, point, i) => (point.value < recorded.points[low]!.value ? i : low), 0);
  const spot = recorded.points[lowest]!;
  const share = (beat: number): number => beat / 64;
  const { height: tall } = (await lane.boundingBox())!;
  const height = (value: number): number => (12 + (1 - value) * (tall - 24)) / tall;
  await test.step('drag a point', async () => {
    await touchAlong(page, lane, [
      [share(spot.beat), height(spot.value)],
      [share(spot.beat), height(spot.value) - 0.2],
      [share(spot.beat), height(0.5)],
    ]);
    await expect(page.getByRole('group', { name: `Point ${lowest + 1} of ${recorded.points.length}` })).toBeVisible();
    const moved = (await saved(page, pieceId, (stored) => stored.piece.lanes[0]!.points[lowest]!.value > 0.4)).piece
      .lanes[0]!.points[lowest]!;
    expect(moved.value).toBeCloseTo(0.5, 1);
    expect(moved.beat).toBeCloseTo(spot.beat, 1);
  });
  await test.step('type its value, bend what follows it, remove it, add another', async () => {
    await typeInto(page, 'Input', '25 %');
    await page.getByRole('button', { name: 'Shape after this point: line. Change' }).tap();
    await page.getByRole('button', { name: 'Shape after this point: hold. Change' }).tap();
    await expect(page.getByRole('button', { name: 'Shape after this point: curve, early. Change' })).toBeVisible();
    await page.getByRole('button', { name: 'Remove this point' }).tap();
    await expect(
      page.getByRole('group', { name: new RegExp(`^Lane Echo input, ${recorded.points.length - 1} points`) }),
    ).toBeVisible();
    await lane.tap({ position: { x: ((await lane.boundingBox())!.width * 2) / 64, y: 60 } });
    await saved(page, pieceId, (stored) => Math.abs(stored.piece.lanes[0]!.points[0]!.beat - 2) < 0.2);
  });
  await test.step('undo all of it, by name; redo from the history, which survives a reload', async () => {
    for (const name of [
      'Add a point',
      'Remove a point',
      'Bend a segment',
      'Bend a segment',
      'Move a point',
      'Move a point',
    ])
      await page.getByRole('button', { name: new RegExp(`^Undo: ${name}`) }).tap();
    expect((await saved(page, pieceId, (stored) => stored.history.cursor === 3)).piece.lanes[0]).toEqual(recorded);
    await page.reload();
    await expect(page.getByRole('group', { name: /^Lane Echo input/ })).toBeVisible();
    await go(page, 'Piece');
    await fromHead(page, 'History');
    await expect(page.getByRole('radio', { name: 'Record input on Humming voice, now' })).toBeVisible();
    await page.getByRole('radio', { name: /^Remove a point .*undone/ }).tap();
    await page.getByRole('button', { name: 'Close' }).tap();
    await saved(page, pieceId, (stored) => stored.piece.lanes[0]!.points.length === recorded.points.length - 1);
    await page.getByRole('button', { name: /^Undo: Remove/ }).tap();
    for (let i = 0; i < 4; i += 1) await page.getByRole('button', { name: /^Undo: (Bend|Move)/ }).tap();
    await saved(page, pieceId, (stored) => stored.history.cursor === 3);
  });

  const printed = await printAndDownload(page, 'Hum, first call', 'Wet only', 'until silent');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.prints.length === 1);
  expect(piece.lanes[0]).toEqual(recorded);
  const dry = (await soundNamed(page, piece, 'Hum, first call')).channels[0]!;
  const ridden = dry.map((x, i) => x * valueAt(recorded, 8 + (i / 48_000) * (92 / 60)));
  const theory = repeats(ridden, 24_000, 0.5, printed.channels[0]!.length);
  const energy = (samples: Float32Array): number => samples.reduce((sum, x) => sum + x * x, 0);
  const away = theory.map((x, i) => x - printed.channels[0]![i]!);
  expect(10 * Math.log10(energy(away) / energy(theory))).toBeLessThan(-25);
});

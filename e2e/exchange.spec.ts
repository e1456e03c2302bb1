import { readFile } from 'node:fs/promises';
import { expect, go, saved, test } from './fixtures';

test('moves go out as MIDI and as a table, and come back as they went', async ({ page, pieceId }) => {
  await go(page, 'Moves');
  await page.getByRole('button', { name: 'Add a lane by hand' }).click();
  await page.getByRole('button', { name: 'Lane for Channel Pan' }).click();
  await page.getByRole('slider', { name: 'Place in the piece' }).focus();
  for (let i = 0; i < 16; i += 1) await page.keyboard.press('Shift+ArrowRight');
  await page.getByRole('button', { name: 'Draw a shape into the stretch' }).click();
  await page.getByRole('button', { name: 'Draw sine' }).click();
  const drawn = (await saved(page, pieceId, (stored) => stored.history.cursor === 2)).piece.lanes[0]!;
  const out = async (label: string): Promise<string> => {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: label, exact: true }).click(),
    ]);
    return (await download.path())!;
  };
  const bring = async (path: string, name: string): Promise<void> => {
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByRole('button', { name: 'Import a MIDI file or a table' }).click(),
    ]);
    await chooser.setFiles({ name, mimeType: 'application/octet-stream', buffer: await readFile(path) });
    await expect(page.getByText('1 lane imported.')).toBeVisible();
  };
  await page.getByRole('button', { name: 'Import and export moves' }).click();
  const [midi, table] = [await out('Save as MIDI, 14 bit'), await out('Save as a table (CSV)')];
  await page.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: 'Let go of the stretch' }).click();
  await page.getByRole('button', { name: 'Remove these moves' }).click();
  await saved(page, pieceId, (stored) => stored.piece.lanes.length === 0);

  await page.getByRole('button', { name: 'Import and export moves' }).click();
  await bring(midi, 'moves.mid');
  const back = (await saved(page, pieceId, (stored) => stored.piece.lanes.length === 1)).piece.lanes[0]!;
  expect(back.points).toHaveLength(drawn.points.length);
  back.points.forEach((point, i) => {
    expect(Math.abs(point.value - drawn.points[i]!.value)).toBeLessThan(2e-4);
    expect(Math.abs(point.beat - drawn.points[i]!.beat)).toBeLessThan(1 / 960);
  });
  await bring(table, 'moves.csv');
  expect((await saved(page, pieceId, (stored) => stored.history.cursor === 5)).piece.lanes[0]!.points).toEqual(
    drawn.points,
  );
});

import { writeWav } from '../src/core/formats/writeWav';
import type { Piece } from '../src/core/piece/piece';
import { expect, saved, test, type Stored } from './fixtures';

const tone = (hz: number): Buffer =>
  Buffer.from(
    writeWav(
      {
        sampleRate: 48_000,
        channels: [Float32Array.from({ length: 24_000 }, (_, i) => 0.3 * Math.sin(i * hz * 0.00013))],
      },
      '16',
    ),
  );

test('a piece is named, duplicated, found again, removed and brought back from its title', async ({
  page,
  pieceId,
  hand,
}) => {
  const title = page.getByRole('heading', { level: 1 });
  const menu = (): Promise<void> => hand.press('button', /: name, open, new$/);
  const mine = `Ebb ${pieceId.slice(0, 6)}`;
  await menu();
  await page.getByRole('textbox', { name: 'Name of the piece' }).fill(mine);
  await hand.press('button', 'Rename');
  await expect(title).toContainText(mine);
  await saved(page, pieceId, ({ piece }) => piece.name === mine);

  await menu();
  await hand.press('button', 'Duplicate');
  await expect(title).toContainText(`${mine} copy`);
  await menu();
  await hand.press('button', `Remove ${mine} copy`);
  // What was open before is open again.
  await expect(title).toHaveText(new RegExp(`^${mine}`));
  await expect(title).not.toContainText('copy');
  await hand.press('button', `Bring ${mine} copy back`);
  await expect(title).toContainText(`${mine} copy`);

  await menu();
  const search = page.getByRole('searchbox', { name: 'Search pieces' });
  if (await search.isVisible()) await search.fill(mine);
  await hand.press('radio', mine);
  await expect(title).not.toContainText('copy');

  await menu();
  await hand.press('button', /^New piece: Live set/);
  await expect(title).toContainText('New piece');
  await expect(page.getByRole('button', { name: 'Track Drums' })).toBeVisible();
  await hand.view('Play');
  await expect(page.getByRole('button', { name: /^Hold Stutter/ })).toBeVisible();
});

test('tracks are added, named, duplicated, put in order and removed; sounds come in many at a time, by drop and by paste', async ({
  page,
  pieceId,
  hand,
}) => {
  const tracks = async (ready: (piece: Piece) => boolean): Promise<string[]> =>
    (await saved(page, pieceId, ({ piece }: Stored) => ready(piece))).piece.tracks.map(({ name }) => name);
  const before = await tracks(() => true);
  const n = before.length;

  await hand.press('button', 'Add sounds, a track or a return');
  await hand.press('button', /^Empty track/);
  await hand.press('button', 'Track Track: name, order, more');
  await page.getByRole('textbox', { name: 'Name of the track' }).fill('Gulls');
  await hand.press('button', 'Rename');
  await hand.press('button', 'Track Gulls: name, order, more');
  await hand.press('button', 'Duplicate the track');
  expect(await tracks((piece) => piece.tracks.length === n + 2)).toEqual([...before, 'Gulls', 'Gulls 2']);
  await hand.press('button', 'Track Gulls 2: name, order, more');
  const handle = page.getByRole('button', { name: `Move Gulls 2, ${n + 2} of ${n + 2}` });
  await handle.focus();
  await page.keyboard.press('Space');
  await expect(page.getByText(`Gulls 2 picked up, position ${n + 2}`)).toBeAttached();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText(`Gulls 2 at position ${n + 1}`)).toBeAttached();
  await page.keyboard.press('Space');
  expect(await tracks((piece) => piece.tracks[n]!.name === 'Gulls 2')).toEqual([...before, 'Gulls 2', 'Gulls']);
  await hand.press('button', 'Remove the track');
  await hand.press('button', 'Bring Gulls 2 back');
  expect(await tracks((piece) => piece.tracks.length === n + 2)).toContain('Gulls 2');

  await hand.press('button', 'Add sounds, a track or a return');
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), hand.press('button', /^Sound files/)]);
  await chooser.setFiles([
    { name: 'One.wav', mimeType: 'audio/wav', buffer: tone(300) },
    { name: 'letter.wav', mimeType: 'audio/wav', buffer: Buffer.from('Dear harbour master') },
    { name: 'Two.wav', mimeType: 'audio/wav', buffer: tone(500) },
  ]);
  expect((await tracks((piece) => piece.tracks.length === n + 4)).slice(-2)).toEqual(['One', 'Two']);
  await expect(page.getByRole('alert')).toContainText('letter.wav: This is not a sound file');

  const bytes = [...tone(700)];
  await page.evaluate(
    ({ bytes: given, lane }) => {
      const files = new DataTransfer();
      files.items.add(new File([Uint8Array.from(given)], 'Dropped.wav', { type: 'audio/wav' }));
      const target = document.querySelector(`[data-testid="lane of ${lane}"]`)!;
      const box = target.getBoundingClientRect();
      const at = { bubbles: true, cancelable: true, clientX: box.left + box.width / 8, clientY: box.top + 10 };
      target.dispatchEvent(new DragEvent('dragover', { ...at, dataTransfer: files }));
      target.dispatchEvent(new DragEvent('drop', { ...at, dataTransfer: files }));
    },
    { bytes, lane: 'hum' },
  );
  const { piece } = await saved(page, pieceId, (stored) =>
    stored.piece.tracks.some(({ clips }) => clips.some(({ name }) => name === 'Dropped')),
  );
  const hum = piece.tracks.find(({ id }) => id === 'hum')!;
  const dropped = hum.clips.find(({ name }) => name === 'Dropped')!;
  expect(dropped.start).toBe(Math.round(piece.lengthBeats / 8));

  await page.evaluate((given) => {
    const files = new DataTransfer();
    files.items.add(new File([Uint8Array.from(given)], 'Pasted.wav', { type: 'audio/wav' }));
    window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: files, bubbles: true, cancelable: true }));
  }, bytes);
  expect((await tracks((stored) => stored.tracks.length === n + 5)).at(-1)).toBe('Pasted');
});

import { readFileSync } from 'node:fs';
import { readWav } from '../src/core/formats/readWav';
import { chooseStretch, expect, farthest, rendered, saved, test } from './fixtures';

test('a piece is written to files: sections become markers, a reload stops nothing, what is downloaded is what is heard', async ({
  page,
  pieceId,
  hasTouch,
  hand,
}) => {
  await chooseStretch(page, hasTouch, 8, 16);
  await hand.press('button', 'Sections of the piece');
  await page.getByRole('textbox', { name: 'Name of the section at bar 3' }).fill('First call');
  await hand.press('button', 'Put the section there');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.sections?.length === 1);
  await hand.view('Shelf');
  await hand.press('button', 'Write files');
  await hand.press('radio', 'Write a file for each track');
  await hand.press('radio', 'Cut at the end');
  await hand.press('radio', 'As 32-bit float WAV');
  await hand.press('button', 'Start writing');
  await expect(page.getByRole('dialog', { name: 'Write files' }).getByText(/^(waiting|writing) …/)).toBeVisible();
  await page.reload();
  const stem = page.getByRole('button', {
    name: /^Download Salt Pier - 02 Humming voice - bars 3 to 5 - [-0-9]+\.wav$/,
  });
  await expect(stem).toBeVisible({ timeout: 90_000 });
  const [download] = await Promise.all([page.waitForEvent('download'), stem.click()]);
  const bytes = readFileSync((await download.path())!);
  const written = readWav(bytes).channels[0]!;
  const alone = { ...piece, tracks: piece.tracks.map((track) => ({ ...track, solo: track.name === 'Humming voice' })) };
  const { left } = await rendered(page, alone, 8, 16);
  expect(written.length).toBe(left.length);
  expect(farthest(written, left)).toBeLessThan(1e-6);
  expect(bytes.includes('First call')).toBe(true);
  await hand.press('button', 'Put these files away');
  await expect(page.getByText('Nothing written yet', { exact: false })).toBeVisible();
});

test('a piece goes out as an archive and comes back as another with the same sound', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Shelf');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    hand.press('button', 'Take this piece as an archive'),
  ]);
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), hand.press('button', 'Bring in an archive')]);
  await chooser.setFiles((await download.path())!);
  await expect(page.getByText('The archive is a piece here now, and open.')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('radio', { name: /from an archive/, checked: true })).toHaveCount(1);
  await saved(page, pieceId);
  const [wrong] = await Promise.all([page.waitForEvent('filechooser'), hand.press('button', 'Bring in an archive')]);
  await wrong.setFiles({ name: 'letter.zip', mimeType: 'application/zip', buffer: Buffer.from('not a zip') });
  await expect(page.getByText(/This is no archive.*Nothing already stored was changed/)).toBeVisible();
});

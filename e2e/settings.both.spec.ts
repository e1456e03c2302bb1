import { expectAccessibleByDayAndNight } from './access';
import { expect, saved, test } from './fixtures';

test('settings are kept over a reload: latency, sample rate of new pieces, click and count-in', async ({
  page,
  pieceId: _,
  hand,
}) => {
  await page.keyboard.press('Control+,');
  const sheet = page.getByRole('dialog', { name: 'Settings' });
  await expect(sheet.getByText(/On the server: \d+ sounds, .* free/)).toBeVisible();
  await hand.press('radio', 'Latency playback');
  await hand.press('radio', 'New pieces at 44100 Hz');
  await sheet.getByRole('button', { name: 'Licences of what ships with it' }).click();
  await expect(sheet.getByRole('button', { name: /^react, / })).toBeVisible();
  await expectAccessibleByDayAndNight(page, 'settings');
  await page.reload();
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  await page.keyboard.press('Control+,');
  await expect(page.getByRole('radio', { name: 'Latency playback' })).toBeChecked();
  await hand.press('button', 'Close');
  // Playing works on the thread that was made for it.
  await hand.press('button', 'Play');
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await hand.press('button', 'Stop');
});

test('every view tells what it is for, in one tap', async ({ page, pieceId: _, hand }) => {
  for (const view of ['Piece', 'Chain', 'Moves', 'Play', 'Shelf'] as const) {
    await hand.view(view);
    await hand.press('button', 'Help for this view');
    const sheet = page.getByRole('dialog', { name: `About ${view}` });
    await expect(sheet.getByRole('listitem')).toHaveCount(5);
    await expectAccessibleByDayAndNight(page, `help of ${view}`);
    await hand.press('button', 'Close');
  }
});

test('the metre is chosen for the piece and from a section on, and bars are counted by it', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.press('button', /^Tempo 92 BPM/);
  await hand.press('radio', 'Metre: 6/8');
  await hand.press('switch', 'Click');
  await hand.press('radio', 'Count-in: 1 bar');
  await hand.press('button', 'Close');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.tempo.unit === 8);
  expect(piece.tempo).toMatchObject({ beatsPerBar: 3, unit: 8 });
  const place = page.getByRole('button', { name: 'Back to the start' });
  const ruler = page.getByRole('slider', { name: 'Place in the piece' });
  for (let beat = 0; beat < 4; beat += 1) await ruler.press('ArrowRight');
  await expect(place).toContainText('2 . 3');
  // A bar is counted before the place moves.
  await hand.press('button', 'Play');
  await expect(place).toContainText('2 . 3');
  await expect(place).not.toContainText('2 . 3');
  await hand.press('button', 'Stop');
});

test('a setting is kept as a preset of one’s own and taken by another effect of its kind', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Chain');
  await hand.add('Echo', 'Neutral');
  await page.getByRole('slider', { name: 'Feedback', exact: true }).press('End');
  await hand.press('button', /^Preset: /);
  await hand.press('button', 'Keep as a preset of your own');
  await page.getByRole('textbox', { name: 'Name of the preset' }).fill('Runaway ferry');
  await hand.press('button', 'Keep the preset');
  await expect(page.getByRole('button', { name: /^Runaway ferry/ })).toBeVisible();
  await hand.press('button', 'Close');
  await page.getByRole('slider', { name: 'Feedback', exact: true }).press('Home');
  await hand.press('button', /^Preset: /);
  await hand.press('button', /^Runaway ferry/);
  const { piece } = await saved(page, pieceId, ({ piece: now }) => {
    const slot = now.tracks.find(({ id }) => id === 'hum')!.chain[0];
    return slot?.preset === null && slot.values.feedback === 1.2;
  });
  expect(piece.tracks.find(({ id }) => id === 'hum')!.chain).toHaveLength(1);
  await hand.press('button', /^Preset: /);
  await hand.press('button', 'Remove preset Runaway ferry');
  await expect(page.getByRole('button', { name: /^Runaway ferry/ })).toHaveCount(0);
});

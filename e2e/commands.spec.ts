import type { Page } from '@playwright/test';
import type { Clip } from '../src/core/piece/piece';
import { expect, saved, test } from './fixtures';

const search = async (page: Page, words: string): Promise<void> => {
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('Control+k');
  const field = page.getByRole('searchbox', { name: 'Search commands, effects and recipes' });
  await expect(field).toBeFocused();
  await field.fill(words);
};

test('by keys alone: an effect and a recipe are found by the trade’s words, a command is run, its key is changed and kept', async ({
  page,
  pieceId,
}) => {
  await search(page, 'slapback');
  await page.getByRole('dialog').getByRole('button', { name: 'Add Echo: Hull slap' }).click();
  await expect(page.getByRole('heading', { name: 'Echo', level: 2 })).toBeVisible();
  await saved(page, pieceId, ({ piece }) => piece.tracks[1]!.chain[0]?.preset === 'hullSlap');

  await search(page, 'riser');
  await page.getByRole('button', { name: 'Make: Riser' }).click();
  await expect(page.getByRole('dialog', { name: /^Riser, 1\.1 to 5\.1/ })).toBeVisible();
  await page.keyboard.press('Escape');

  await search(page, 'mute the channel');
  await page.keyboard.press('Enter');
  await saved(page, pieceId, ({ piece }) => piece.tracks[1]!.mute);

  await page.keyboard.press('?');
  await page.getByRole('switch', { name: 'Change keys' }).click();
  await page.getByRole('button', { name: /^Mute the channel in view: key Shift M/ }).click();
  await page.keyboard.press('x');
  await expect(page.getByRole('button', { name: /^Mute the channel in view: key X/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  await page.keyboard.press('x');
  await saved(page, pieceId, ({ piece }) => !piece.tracks[1]!.mute);
  await page.keyboard.press('Alt+5');
  await expect(page).toHaveURL(/\/shelf$/);
});

test('from the top of the page one Tab and Enter lead to the first clip, however many tracks there are', async ({
  page,
  pieceId: _,
}) => {
  await page.keyboard.press('Tab');
  await expect(page.getByRole('button', { name: 'Skip to the first clip' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Clip Kalimba, ebb' })).toBeFocused();
});

test('a clip is copied, pasted, duplicated, cut and removed by keys, and each is said', async ({ page, pieceId }) => {
  const clips = async (count: number): Promise<readonly Clip[]> =>
    (await saved(page, pieceId, ({ piece }) => piece.tracks[1]!.clips.length === count)).piece.tracks[1]!.clips;
  const before = await clips(3);
  const chosen = (name: string) => expect(page.getByRole('button', { name: `Clip ${name}` })).toBeFocused();
  await page.getByRole('button', { name: 'Clip Hum, first call' }).click();
  await page.keyboard.press('ArrowRight');
  await chosen('Hum, answer');
  await page.keyboard.press('ArrowLeft');
  await chosen('Hum, first call');
  await page.keyboard.press('Shift+ArrowRight');
  await saved(page, pieceId, ({ piece }) => piece.tracks[1]!.clips[0]!.start === before[0]!.start + 1);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+c');
  await expect(page.getByText('Paste puts it at the playhead', { exact: false })).toBeVisible();
  await page.keyboard.press('Home');
  await page.keyboard.press('PageDown');
  await page.keyboard.press('Control+v');
  const pasted = (await clips(4)).find(({ id }) => !before.some((one) => one.id === id))!;
  expect(pasted).toMatchObject({ name: 'Hum, first call', start: 4 });
  await page.keyboard.press('Control+d');
  const doubled = (await clips(5)).at(-1)!;
  const beats = (doubled.lengthSeconds * 92) / 60;
  expect(doubled.start).toBeCloseTo(pasted.start + beats, 3);
  await page.keyboard.press('Delete');
  await clips(4);
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click();
  await clips(5);
  await page.getByRole('button', { name: 'Clip Hum, answer' }).click();
  await page.keyboard.press('Control+x');
  await clips(4);
  await page.keyboard.press('Control+v');
  await clips(5);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('toolbar', { name: 'Selection' })).toBeHidden();
});

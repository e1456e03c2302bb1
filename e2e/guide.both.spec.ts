import { expect, test } from '@playwright/test';
import { keepInWindow } from './fixtures';

/** The demo as it opens for somebody who has never been here: nothing is kept by the browser. */
test('the first steps light up what they need, follow what is done, and can be left and had again', async ({
  page,
}) => {
  await keepInWindow(page);
  await page.goto('/piece/salt-pier');
  const guide = page.getByRole('region', { name: 'First steps' });
  await expect(guide).toContainText('1 of 3');
  const lit = page.locator('[data-lit]');
  await expect(lit).toHaveAccessibleName('Play');
  await lit.click();
  await expect(guide).toContainText('2 of 3');
  await guide.getByRole('button', { name: 'Show me' }).click();
  const feedback = page.getByRole('slider', { name: 'Feedback', exact: true });
  await expect(lit).toHaveAccessibleName('Feedback');
  await feedback.press('ArrowRight');
  await expect(guide).toContainText('3 of 3');
  await expect(lit).toHaveAccessibleName('Record moves');
  await guide.getByRole('button', { name: 'Leave the first steps' }).click();
  await expect(guide).toHaveCount(0);
  await expect(lit).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('button', { name: /^(Play|Stop)$/ })).toBeVisible();
  await expect(guide).toHaveCount(0);
  await page.keyboard.press('Control+k');
  await page.getByLabel('Search commands, effects and recipes').fill('first steps');
  await page.keyboard.press('Enter');
  await expect(guide).toContainText('1 of 3');
});

test('the demo sends its voice into an echo and a space, so that the first tap is heard as what this is for', async ({
  request,
}) => {
  const { piece } = (await (await request.get('/api/pieces/salt-pier')).json()) as {
    piece: { tracks: { id: string; sends: { to: string; level: number }[] }[]; returns: { id: string }[] };
  };
  const voice = piece.tracks.find(({ id }) => id === 'hum')!;
  expect(voice.sends.filter(({ level }) => level > 0).map(({ to }) => to)).toEqual(piece.returns.map(({ id }) => id));
});

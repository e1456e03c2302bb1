import { expect, go, test } from './bench';

test('six Tabs lead from the top to the first clip with forty tracks; arrows go on within a group', async ({
  page,
  pieceId,
}) => {
  const { piece } = await (await page.request.get(`/api/pieces/${pieceId}`)).json();
  const more = Array.from({ length: 35 }, (_, i) => ({
    ...piece.tracks[0],
    id: `more-${i}`,
    name: `Tide ${i + 6}`,
    clips: [],
    chain: [],
  }));
  const id = crypto.randomUUID();
  await page.request.post('/api/pieces', { data: { ...piece, id, tracks: [...piece.tracks, ...more] } });
  await page.goto(`/piece/${id}`);
  await expect(page.getByRole('button', { name: 'Track Tide 40' })).toBeAttached();
  const clip = page.getByRole('button', { name: 'Clip Kalimba, ebb' });
  const isClip = (): Promise<boolean> => clip.evaluate((element) => element === document.activeElement);
  let tabs = 0;
  do {
    await page.keyboard.press('Tab');
    tabs += 1;
  } while (!(await isClip()) && tabs < 20);
  expect(tabs).toBeLessThanOrEqual(6);

  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('button', { name: /^Clip Kalimba/ }).first()).toBeVisible();
  const focused = (): Promise<string | null> =>
    page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? null);
  const head = page.getByRole('button', { name: 'Track Kalimba' });
  await head.click();
  await page.keyboard.press('ArrowDown');
  expect(await focused()).toMatch(/^Track .*: name, order, more$|^Track /);
  await page.keyboard.press('ArrowRight');
  expect(await focused()).toMatch(/^Mute /);
  await page.keyboard.press('ArrowDown');
  expect(await focused()).toMatch(/^Mute /);
  await page.keyboard.press('End');
  expect(await focused()).toBe('Main output');
});

test('when a sheet closes the focus is where it was', async ({ page, pieceId: _ }) => {
  for (const name of ['Salt Pier', 'Add']) {
    const opener = page.getByRole('button', { name: new RegExp(`^${name}`) }).first();
    await opener.focus();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('dialog').last()).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog').last()).toBeHidden();
    await expect(opener).toBeFocused();
  }
  await go(page, 'Chain');
  await page.keyboard.press('?');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('link', { name: 'Chain', exact: true })).toBeFocused();
});

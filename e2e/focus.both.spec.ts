import { expect, go, test } from './fixtures';

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

test('Escape closes the sheet in whose field one types, and nothing that was chosen is let go of', async ({
  page,
  pieceId: _open,
  hasTouch,
}) => {
  test.skip(hasTouch, 'There is no Escape under a thumb.');
  await page.getByRole('button', { name: 'Clip Hum, answer' }).click();
  await page.keyboard.press('Control+k');
  const search = page.getByRole('searchbox', { name: 'Search commands, effects and recipes' });
  await search.fill('riser');
  await expect(search).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByRole('toolbar', { name: 'Selection' })).toContainText('Hum, answer');
});

test('in Chain the arrows go from effect to effect', async ({ page, pieceId, hasTouch }) => {
  const { piece } = await (await page.request.get(`/api/pieces/${pieceId}`)).json();
  const id = crypto.randomUUID();
  const slot = (name: string, effect: string) => ({ id: name, effect, preset: 'neutral', on: true, values: {} });
  const tracks = [{ ...piece.tracks[0], chain: [slot('one', 'echo'), slot('two', 'reverb')] }];
  await page.request.post('/api/pieces', { data: { ...piece, id, tracks, lanes: [], links: [], prints: [] } });
  await page.goto(`/piece/${id}/chain/${piece.tracks[0].id}`);
  await expect(page.getByRole('button', { name: /^Open Echo/ })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: 'Echo', level: 2 })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: 'Reverb', level: 2 })).toBeVisible();
  if (!hasTouch) await expect(page.getByRole('button', { name: /^Open Reverb/ })).toBeFocused();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('heading', { name: 'Echo', level: 2 })).toBeVisible();
});

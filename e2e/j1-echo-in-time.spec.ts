import {
  beatShown,
  expect,
  farthest,
  go,
  printAndDownload,
  repeats,
  saved,
  soundNamed,
  test,
  typeInto,
} from './fixtures';

test('J1 by keyboard: an echo is added, set, heard dry and printed without a pointer', async ({ page, pieceId }) => {
  const press = async (
    name: string | RegExp,
    role: 'button' | 'radio' | 'slider' | 'link' | 'switch',
    key = 'Enter',
  ): Promise<void> => {
    const control = page.getByRole(role, { name, exact: typeof name === 'string' });
    await control.focus();
    await page.keyboard.press(key);
  };
  await page.keyboard.press('Space');
  await expect.poll(() => beatShown(page)).toBeGreaterThan(0);
  await press('Hold to hear the untreated sound', 'button', 'Enter');
  await page.keyboard.press('Space');

  await press('Tempo 92 BPM', 'button');
  await page.getByRole('textbox', { name: 'Tempo in BPM' }).fill('90');
  await page.keyboard.press('Enter');
  await press('Chain', 'link');
  await press('Add Echo: Neutral', 'button');
  const time = page.getByRole('slider', { name: 'Time', exact: true });
  await time.focus();
  await page.keyboard.press('PageDown');
  await expect(time).toHaveAttribute('aria-valuetext', 'eighth · 333 ms');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(time).toHaveAttribute('aria-valuetext', 'dotted eighth · 500 ms');
  await typeInto(page, 'Time', '250 ms');
  await expect(time).toHaveAttribute('aria-valuetext', '250 ms');
  await typeInto(page, 'Time', '12000 samples');
  await expect(time).toHaveAttribute('aria-valuetext', '12000 samples · 250 ms');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(time).toHaveAttribute('aria-valuetext', 'dotted eighth · 500 ms');
  await press('ping-pong', 'radio', 'Space');
  await expect(
    page.getByRole('img', { name: /^Repeats: 500 ms 0 dB left; 1000 ms -6 dB right; 1500 ms -12 dB left/ }),
  ).toBeVisible();

  const printed = await printAndDownload(page, 'Hum, answer', 'Wet only', '2 bars');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.prints.length === 1);
  const dry = (await soundNamed(page, piece, 'Hum, answer')).channels[0]!;
  const all = repeats(dry, 24_000, 0.5, printed.channels[0]!.length);
  const sum = printed.channels[0]!.map((x, i) => x + printed.channels[1]![i]!);
  expect(farthest(sum, all)).toBeLessThan(1e-6);
  const onlyLeft = printed.channels[1]!.subarray(0, 48_000);
  expect(Math.max(...onlyLeft)).toBe(0);
});

test('sides apart, linked again, and a refused value', async ({ page, pieceId }) => {
  await go(page, 'Chain');
  await page.getByRole('button', { name: 'Add Echo: Two ferries' }).click();
  await expect(page.getByRole('slider', { name: 'Time right' })).toHaveAttribute(
    'aria-valuetext',
    'quarter triplet · 435 ms',
  );
  await page.getByRole('button', { name: /^Time, .*Type a value/ }).click();
  await page.getByRole('textbox', { name: 'Time as text' }).fill('soon');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveText(/Try 1\/8d, 3\/16, 2 beats, 250 ms/);
  await page.keyboard.press('Escape');
  await page.getByRole('switch', { name: 'Sides linked' }).click();
  await expect(page.getByRole('slider', { name: 'Time right' })).toBeHidden();
  const { piece } = await saved(page, pieceId, (stored) => stored.history.cursor === 2);
  expect(piece.tracks.find((track) => track.id === 'hum')!.chain[0]!.values).toMatchObject({
    linked: true,
    timeL: '1/8d',
    timeR: '1/4t',
  });
});

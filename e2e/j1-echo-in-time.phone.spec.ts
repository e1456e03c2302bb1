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
  touchAlong,
  typeInto,
} from './fixtures';

test('J1 by touch: from nothing to an echo in time on the humming voice, heard, seen, compared and printed', async ({
  page,
  pieceId,
}) => {
  await page.getByRole('button', { name: 'Play', exact: true }).tap();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await expect.poll(() => beatShown(page)).toBeGreaterThan(1);

  await page.getByRole('button', { name: 'Tempo 92 BPM' }).tap();
  await page.getByRole('textbox', { name: 'Tempo in BPM' }).fill('90');
  await page.getByRole('button', { name: 'Set tempo' }).tap();

  await go(page, 'Chain');
  await page.getByRole('button', { name: 'Add Echo: Neutral' }).tap();
  const time = page.getByRole('slider', { name: 'Time', exact: true });
  await expect(time).toHaveAttribute('aria-valuetext', 'quarter · 667 ms');
  await page.getByRole('button', { name: 'Time: half' }).tap();
  await page.getByRole('radio', { name: 'Time: dotted' }).tap();
  await expect(time).toHaveAttribute('aria-valuetext', 'dotted eighth · 500 ms');
  await expect(page.getByText('dotted eighth · 500 ms · 24000.0 samples')).toBeVisible();
  await expect(
    page.getByRole('img', { name: /^Repeats: 500 ms 0 dB both sides; 1000 ms -6 dB both sides; 1500 ms -12 dB/ }),
  ).toBeVisible();

  await test.step('drag the rail: the picture follows the finger', async () => {
    await touchAlong(page, page.getByRole('slider', { name: 'Feedback' }), [
      [0.42, 0.5],
      [0.5, 0.5],
      [0.7, 0.5],
    ]);
    await expect(page.getByRole('slider', { name: 'Feedback' })).toHaveAttribute('aria-valuetext', /^8\d %$/);
    await expect(page.getByRole('img', { name: /1000 ms -2 dB both sides/ })).toBeVisible();
    await typeInto(page, 'Feedback', '50 %');
  });

  await test.step('drag the first ripple to a quarter, and take it back', async () => {
    const picture = page.getByRole('img', { name: /^Repeats/ });
    const box = (await picture.boundingBox())!;
    const at = (seconds: number): number => (34 + (seconds / 3.85) * (box.width - 46)) / box.width;
    await touchAlong(page, picture, [
      [at(0.5), 0.13],
      [at(0.55), 0.13],
      [at(2 / 3), 0.13],
    ]);
    await expect(time).toHaveAttribute('aria-valuetext', 'quarter · 667 ms');
    await page.getByRole('button', { name: /^Undo: Echo: time/ }).tap();
    await expect(time).toHaveAttribute('aria-valuetext', 'dotted eighth · 500 ms');
  });

  await test.step('compare', async () => {
    await page.getByRole('radio', { name: 'Hear wet' }).tap();
    await expect(page.getByRole('radio', { name: 'Hear wet' })).toBeChecked();
    await page.getByRole('radio', { name: 'Hear mix' }).tap();
    const match = page.getByRole('switch', { name: /Match loudness/ });
    await match.tap();
    await expect(match).toHaveText(/[−+]?\d+\.\d dB/);
    await match.tap();
  });
  await page.getByRole('button', { name: 'Stop', exact: true }).tap();

  const printed = await printAndDownload(page, 'Hum, first call', 'Wet only', 'until silent');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.prints.length === 1);
  const dry = (await soundNamed(page, piece, 'Hum, first call')).channels[0]!;
  expect(farthest(printed.channels[0]!, repeats(dry, 24_000, 0.5, printed.channels[0]!.length))).toBeLessThan(1e-6);
  expect(piece.prints[0]!.startSample).toBe(Math.round((8 * 60 * 48_000) / 90));
});

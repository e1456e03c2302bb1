import { expect, farthest, printAndDownload, saved, soundNamed, test, unfoldStrip } from './fixtures';

test('J4: ways to make a mono voice wide are compared in place, and the one that costs nothing in mono is kept', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Chain');
  await unfoldStrip(page);
  await hand.press('button', 'Ways to make Humming voice wide');
  const mono = async (way: string): Promise<number> =>
    Number(
      /in mono (.*) dB,/
        .exec((await page.getByLabel(new RegExp(`^${way}: width`)).getAttribute('aria-label'))!)![1]!
        .replace('\u2212', '-'),
    );
  await expect(page.getByLabel(/^Dry left, wet right: width/)).toBeVisible({ timeout: 90_000 });
  expect(await mono('Side delay')).toBeLessThan(-1);
  await hand.press('button', 'Play the piece');
  await hand.press('radio', 'Hear Side delay');
  await expect(page.getByRole('radio', { name: 'Hear Side delay' })).toBeChecked();
  const { piece: heard } = await saved(page, pieceId);
  expect(heard.tracks.every((track) => !track.chain.some((slot) => slot.effect === 'sideDelay'))).toBe(true);
  await hand.press('button', 'Stop the piece');
  await hand.press('button', 'Keep Complementary combs');
  await expect(page.getByRole('heading', { name: 'Widener', level: 2 })).toBeVisible();
  const printed = await printAndDownload(page, 'Hum, answer', 'Wet and dry', 'cut at the end');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.prints.length === 1);
  const dry = (await soundNamed(page, piece, 'Hum, answer')).channels[0]!;
  const [left, right] = [printed.channels[0]!, printed.channels[1]!];
  expect(
    farthest(
      left.map((x, i) => 0.5 * (x + right[i]!)),
      dry.subarray(0, left.length),
    ),
  ).toBeLessThan(0.06);
  expect(farthest(left, right)).toBeGreaterThan(0.05);
});

test('settings of a channel are kept, compared blind, and one of them is taken', async ({ page, pieceId, hand }) => {
  await hand.view('Chain');
  await hand.add('Echo', 'Hull slap');
  await hand.chain();
  await unfoldStrip(page);
  await hand.press('button', 'Compare settings of Humming voice');
  await hand.press('button', 'Keep this');
  await saved(page, pieceId, (stored) => stored.piece.tracks.some((track) => track.kept?.length === 1));
  await hand.press('button', 'Close');
  await hand.press('button', 'More for Echo');
  await hand.press('button', 'Remove: Echo');
  await hand.press('button', 'Compare settings of Humming voice');
  await hand.press('switch', 'Compare blind');
  await expect(page.getByRole('radio', { name: 'Hear Number 2' })).toBeVisible();
  await expect(page.getByRole('radio', { name: 'Hear A', exact: true })).toHaveCount(0);
  await hand.press('radio', 'Hear Number 2');
  await hand.press('switch', 'Compare blind');
  await hand.press('button', 'Take A');
  const { piece } = await saved(page, pieceId, (stored) =>
    stored.piece.tracks.some((track) => track.kept?.length === 1 && track.chain.length === 1),
  );
  expect(piece.tracks.find((track) => track.kept)!.chain[0]).toMatchObject({ effect: 'echo', preset: 'hullSlap' });
});

import { expect, farthest, printAndDownload, saved, soundNamed, test, unfoldStrip } from './fixtures';

test('J4: a mono voice is made wide, the loss in mono is told, and the mono-safe way loses nothing', async ({
  page,
  pieceId,
  hasTouch,
  hand,
}) => {
  await hand.view('Chain');
  await hand.add('Side delay', 'Wide plank');
  await hand.chain();
  await unfoldStrip(page);
  const loss = page.getByLabel('Loss in mono').first();
  await expect(loss).toHaveText('0.0 dB');
  await hand.press('button', 'Play');
  // The voice comes in at bar 3; a comb in mono takes some of it.
  await expect
    .poll(async () => Number((await loss.textContent())!.replace('\u2212', '-').replace(' dB', '')), {
      timeout: 30_000,
    })
    .toBeLessThan(-1);
  await hand.press('button', 'Stop');

  if (hasTouch) await hand.press('button', /^Open Side delay/);
  await hand.press('switch', 'Mono-safe');
  const printed = await printAndDownload(page, 'Hum, answer', 'Wet and dry', 'cut at the end');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.prints.length === 1);
  const dry = (await soundNamed(page, piece, 'Hum, answer')).channels[0]!;
  const [left, right] = [printed.channels[0]!, printed.channels[1]!];
  expect(
    farthest(
      left.map((x, i) => 0.5 * (x + right[i]!)),
      dry.subarray(0, left.length),
    ),
  ).toBeLessThan(1e-6);
  expect(farthest(left, right)).toBeGreaterThan(0.05);
});

import { expect, handOn, powerDb, printAndDownload, saved, test, typeInto } from './bench';

test('J16: a row of taps before a long reverb lets it bloom; the same taps serve another reverb', async ({ page, pieceId, hasTouch }) => {
  const hand = handOn(page, hasTouch);
  await hand.view('Chain');
  await hand.add('Reverb', 'Over open water');
  await hand.section('Mix');
  await typeInto(page, 'Mix', '100 %');
  const straight = await printAndDownload(page, 'Hum, answer', 'Wet only', '2 bars');
  await hand.view('Chain');
  await hand.add('Taps', 'Coming tide');
  await hand.section('Mix');
  await typeInto(page, 'Mix', '100 %');
  await hand.strand();
  await hand.press('button', 'More for Taps');
  await hand.press('button', 'Move up: Taps');
  await saved(page, pieceId, (stored) => stored.piece.tracks.some((track) => track.chain.map((slot) => slot.effect).join() === 'taps,reverb'));
  const bloomed = await printAndDownload(page, 'Hum, answer', 'Wet only', '2 bars');
  // How much louder the second second is than the first half second: the taps hold the sound back and bring it up.
  const growth = (side: Float32Array): number => powerDb(side, 48_000, 96_000) - powerDb(side, 4800, 28_800);
  expect(growth(bloomed.channels[0]!)).toBeGreaterThan(growth(straight.channels[0]!) + 3);

  await hand.view('Chain');
  await hand.strand();
  await hand.press('button', 'More for Reverb');
  await hand.press('button', 'Replace: Reverb');
  await page.getByRole('textbox', { name: 'Search effects and purposes' }).last().fill('cistern');
  await hand.press('button', 'Replace by Convolver: Call into the cistern');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.tracks.some((track) => track.chain.map((slot) => slot.effect).join() === 'taps,convolver'));
  const replaced = piece.tracks.flatMap((track) => track.chain).find((slot) => slot.effect === 'convolver')!;
  expect(replaced.values).toMatchObject({ mix: 1, impulse: 'saltCistern' });
  await expect(page.getByRole('heading', { name: 'Convolver', level: 2 })).toBeVisible();
});

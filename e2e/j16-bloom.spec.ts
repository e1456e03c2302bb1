import { expect, powerDb, printAndDownload, rendered, saved, test, typeInto } from './fixtures';

test('J16: a row of taps before a long reverb lets it bloom; the same taps serve another reverb', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Chain');
  await hand.add('Reverb', 'Over open water');
  await hand.section('Mix');
  await typeInto(page, 'Mix', '100 %');
  const straight = await printAndDownload(page, 'Hum, answer', 'Wet only', '2 bars');
  await hand.view('Chain');
  await hand.add('Taps', 'Coming tide');
  await hand.section('Mix');
  await typeInto(page, 'Mix', '100 %');
  await hand.chain();
  await hand.press('button', 'More for Taps');
  await hand.press('button', 'Move up: Taps');
  await saved(page, pieceId, (stored) =>
    stored.piece.tracks.some((track) => track.chain.map((slot) => slot.effect).join() === 'taps,reverb'),
  );
  const bloomed = await printAndDownload(page, 'Hum, answer', 'Wet only', '2 bars');
  // How much louder the second second is than the first half second: the taps hold the sound back and bring it up.
  const growth = (side: Float32Array): number => powerDb(side, 48_000, 96_000) - powerDb(side, 4800, 28_800);
  expect(growth(bloomed.channels[0]!)).toBeGreaterThan(growth(straight.channels[0]!) + 3);

  await hand.view('Chain');
  await hand.chain();
  await hand.press('button', 'More for Reverb');
  await hand.press('button', 'Replace: Reverb');
  await page.getByRole('searchbox', { name: 'Search effects and purposes' }).last().fill('cistern');
  await hand.press('button', 'Replace by Convolver: Call into the cistern');
  const { piece } = await saved(page, pieceId, (stored) =>
    stored.piece.tracks.some((track) => track.chain.map((slot) => slot.effect).join() === 'taps,convolver'),
  );
  const replaced = piece.tracks.flatMap((track) => track.chain).find((slot) => slot.effect === 'convolver')!;
  expect(replaced.values).toMatchObject({ mix: 1, impulse: 'saltCistern' });
  await expect(page.getByRole('heading', { name: 'Convolver', level: 2 })).toBeVisible();

  // Kept as a block, the same bloom goes onto another track.
  const name = `Bloom ${pieceId.slice(0, 8)}`;
  await hand.chain();
  await hand.press('button', 'More for Humming voice, track');
  await page.getByRole('textbox', { name: 'Name of the block' }).fill(name);
  await hand.press('button', 'Save');
  await hand.press('button', 'Channel: Humming voice');
  await hand.press('radio', 'Kalimba');
  await hand.press('button', 'Add an effect');
  await page.getByRole('searchbox', { name: 'Search effects and purposes' }).last().fill(name);
  await hand.press('button', `Add block ${name}`);
  await saved(page, pieceId, (stored) =>
    stored.piece.tracks
      .find((track) => track.name === 'Kalimba')!
      .chain.map((slot) => slot.effect)
      .join()
      .endsWith('taps,convolver'),
  );
});

test('J16: in a braid the part stands beside its bloom; the reverb’s wet sound alone is phased', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Chain');
  await hand.add('Braid', 'Bloom');
  const { piece: before } = await saved(page, pieceId, (stored) =>
    stored.piece.tracks.some((track) => track.chain[0]?.effect === 'braid'),
  );
  await hand.chain();
  await hand.press('button', 'More for Reverb');
  await hand.press('button', 'Treat its wet sound: Reverb');
  await page.getByRole('searchbox', { name: 'Search effects and purposes' }).last().fill('Phaser');
  await hand.press('button', 'Add Phaser: Neutral');
  await expect(page.getByRole('heading', { name: 'Phaser', level: 2 })).toBeVisible();
  await hand.chain();
  await hand.press('button', 'Lay another strand');
  await hand.press('button', 'More for strand Strand 3');
  await page.getByRole('textbox', { name: 'Name of the strand' }).fill('Low water');
  await hand.press('button', 'Rename');
  await hand.press('button', 'Add an effect to Low water');
  await page.getByRole('searchbox', { name: 'Search effects and purposes' }).last().fill('Utility');
  await hand.press('button', /^Add Utility: Neutral/);
  await expect(page.getByRole('heading', { name: 'Utility', level: 2 })).toBeVisible();
  const { piece } = await saved(page, pieceId, (stored) =>
    stored.piece.tracks.some((track) => track.chain[0]?.strands?.[2]?.chain[0]?.effect === 'utility'),
  );
  const braid = piece.tracks.flatMap((track) => track.chain).find((slot) => slot.effect === 'braid')!;
  expect(braid.strands!.map(({ name }) => name)).toEqual(['Dry', 'Bloom', 'Low water']);
  expect(braid.strands![1]!.chain[1]!.wetPath!.map(({ effect }) => effect)).toEqual(['phaser']);
  // The new strand brings the part once more at half: what the braid was, and 6 dB of it.
  const [was, now] = [
    await rendered(page, before, 8, 10),
    await rendered(
      page,
      {
        ...piece,
        tracks: piece.tracks.map((track) => ({
          ...track,
          chain: track.chain.map((slot) => ({ ...slot, strands: slot.strands?.slice(0, 1) })),
        })),
      },
      8,
      10,
    ),
  ];
  expect(powerDb(was.left, 0, was.left.length)).toBeGreaterThan(powerDb(now.left, 0, now.left.length));
});

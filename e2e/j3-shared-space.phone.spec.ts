import { expect, farthest, rendered, saved, test, typeInto, unfoldStrip } from './fixtures';

test('J3: two returns fed by sends, the same sends for all tracks in one step, and what they add is only wet', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Chain');
  await unfoldStrip(page);
  for (const start of ['Space', 'Echo']) {
    await hand.press('button', 'Add a return');
    await hand.press('button', `Add return: ${start}`);
    await hand.press('button', `Send to ${start}`);
  }
  await typeInto(page, 'Send to Space', '-12 dB');
  await hand.press('switch', 'Send to Echo before the fader');
  await hand.press('button', /^Copy the sends of Humming voice/);
  await hand.press('button', 'All tracks');
  await hand.press('button', 'Copy to 4 channels');
  const { piece } = await saved(page, pieceId, (stored) =>
    stored.piece.tracks.every((track) => track.sends.length === 2),
  );
  const [space, echo] = piece.returns;
  for (const track of piece.tracks)
    expect(track.sends).toEqual([
      { to: space!.id, level: expect.closeTo(0.2512, 3), pre: false },
      { to: echo!.id, level: 0.5, pre: true },
    ]);
  for (const made of piece.returns) expect(made.chain[0]!.values).toMatchObject({ balance: 'mix', mix: 1 });

  const quiet = { ...piece, main: { ...piece.main, gain: 0.25 } };
  const all = await rendered(page, quiet, 24, 32);
  const dry = await rendered(
    page,
    { ...quiet, returns: quiet.returns.map((made) => ({ ...made, mute: true })) },
    24,
    32,
  );
  const wet = await rendered(
    page,
    { ...quiet, returns: quiet.returns.map((made) => ({ ...made, solo: true })) },
    24,
    32,
  );
  expect(wet.left.reduce((most, x) => Math.max(most, x), 0)).toBeGreaterThan(0.01);
  expect(
    farthest(
      all.left,
      dry.left.map((x, i) => x + wet.left[i]!),
    ),
  ).toBeLessThan(1e-5);

  await hand.press('button', /^Undo: Copy sends/);
  await saved(page, pieceId, (stored) => stored.piece.tracks.filter((track) => track.sends.length === 2).length === 1);
});

test('a loop of returns is refused in words, and nothing changes', async ({ page, pieceId, hand }) => {
  await hand.view('Chain');
  await unfoldStrip(page);
  for (const start of ['Space', 'Echo']) {
    await hand.press('button', 'Add a return');
    await hand.press('button', `Add return: ${start}`);
  }
  await hand.press('button', /^Channel: Humming voice/);
  await hand.press('radio', 'Space');
  await hand.press('button', 'Send to Echo');
  await hand.press('button', /^Channel: Space/);
  await hand.press('radio', 'Echo');
  await expect(page.getByRole('group', { name: 'Sends of Echo' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Send to Space' })).toHaveCount(0);
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.returns[0]?.sends.length === 1);
  expect(piece.returns[1]!.sends).toEqual([]);
});

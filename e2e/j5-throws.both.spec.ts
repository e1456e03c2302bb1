import { expect, powerDb, rendered, saved, test, unfoldStrip } from './fixtures';

test('J5: hits are picked by rule and by hand, and only they are thrown into the echo, which rings on after them', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Chain');
  await unfoldStrip(page);
  await hand.press('button', 'Add a return');
  await hand.press('button', 'Add return: Echo');
  await hand.view('Moves');
  await hand.press('button', /^Channel: /);
  await hand.press('radio', 'Crates');
  await hand.press('button', 'Throws of Crates');
  await hand.press('button', 'Pick last of 4 bars');
  await hand.press('switch', /^Throw the hit at bar 1, beat 2\.00/);
  await hand.press('radio', 'Shape: open, shut');
  await hand.press('button', 'Throw 5 hits');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.lanes.length === 1);
  const [echo] = piece.returns;
  expect(piece.tracks.find(({ name }) => name === 'Crates')!.sends).toEqual([{ to: echo!.id, level: 0, pre: false }]);

  const alone = { ...piece, returns: [{ ...echo!, solo: true, chain: [] }] };
  const sent = await rendered(page, alone, 0, 64);
  const beat = (60 / 92) * piece.sampleRate;
  const dry = await rendered(
    page,
    { ...piece, tracks: piece.tracks.map((track) => ({ ...track, solo: track.name === 'Crates', sends: [] })) },
    0,
    64,
  );
  const level = (from: number, to: number, of = sent): number =>
    powerDb(of.left, Math.round(from * beat), Math.round(to * beat));
  await test.step('what goes to the echo is the second beat of the piece and the last hits of the phrases, and nothing else', () => {
    const open = piece.lanes[0]!.points.filter(({ value }) => value > 0.9).map((point) => point.beat);
    expect(open).toHaveLength(10);
    expect(open[0]).toBeCloseTo(1 - 1 / 16, 1);
    for (let i = 0; i < open.length; i += 2) {
      const [from, to] = [open[i]! + 0.02, open[i + 1]!];
      expect(Math.abs(level(from, to) - level(from, to, dry))).toBeLessThan(1);
    }
    expect(level(0, 0.8)).toBeLessThan(-150);
    expect(level(2, 14)).toBeLessThan(-150);
  });
  await test.step('the echo is heard in the silence after the throw', async () => {
    const wet = await rendered(page, { ...piece, returns: [{ ...echo!, solo: true }] }, 0, 8);
    expect(powerDb(wet.left, 0, Math.round(0.8 * beat))).toBeLessThan(-150);
    expect(powerDb(wet.left, Math.round(2 * beat), Math.round(4 * beat))).toBeGreaterThan(-60);
  });
  await hand.press('button', /^Undo: Throw 5 hits of Crates into Echo/);
  await saved(page, pieceId, (stored) => stored.piece.lanes.length === 0);
});

import { expect, handOn, powerDb, printAndDownload, saved, test, touchAlong, typeInto } from './fixtures';

test('J15: a sound circles the listener in time with the piece: right ear first, left ear half a round later', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Chain');
  await hand.add('Placer', 'Neutral');
  await typeInto(page, 'Distance', '2 m');
  await hand.section('Path');
  await hand.press('radio', 'circle');
  await typeInto(page, 'Path rate', '2 bars');
  await expect(
    page.getByRole('img', { name: /^Map: the sound is at 0 degrees, 2.0 metres.*It moves along a path/ }),
  ).toBeVisible();
  const printed = await printAndDownload(page, 'Hum, answer', 'Wet only', 'cut at the end');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.prints.length === 1);
  // The clip begins at beat 24, three whole rounds of eight beats: a quarter round later the sound is at the right.
  const beat = (60 / 92) * 48_000;
  expect(piece.prints[0]!.from.fromBeat).toBe(24);
  const difference = (at: number): number => {
    const [from, to] = [Math.round((at - 0.4) * beat), Math.round((at + 0.4) * beat)];
    return powerDb(printed.channels[1]!, from, to) - powerDb(printed.channels[0]!, from, to);
  };
  // The voice is low, where a head shades little.
  expect(difference(2)).toBeGreaterThan(1);
  expect(Math.abs(difference(4))).toBeLessThan(difference(2) / 2);
});

test('J15: a path is drawn on the map with a finger and followed', async ({ page, pieceId, hasTouch }) => {
  test.skip(!hasTouch, 'drawing is for a finger or a mouse; by keyboard the corners are typed');
  const hand = handOn(page, hasTouch);
  await hand.view('Chain');
  await hand.add('Placer', 'Neutral');
  await hand.section('Path');
  await hand.press('radio', 'drawn');
  const map = page.getByRole('img', { name: /^Map/ });
  const round = Array.from(
    { length: 24 },
    (_, i) => [0.5 + 0.2 * Math.sin((i / 24) * 2 * Math.PI), 0.5 - 0.32 * Math.cos((i / 24) * 2 * Math.PI)] as const,
  );
  await touchAlong(page, map, round);
  const { piece } = await saved(page, pieceId, (stored) =>
    stored.piece.tracks.some((track) =>
      track.chain.some(
        (slot) => slot.values.y5 !== undefined && Number(slot.values.y5) < -0.5 && Number(slot.values.x3) > 0.5,
      ),
    ),
  );
  const { values } = piece.tracks.flatMap((track) => track.chain).find((slot) => slot.effect === 'placer')!;
  expect(Number(values.x7)).toBeLessThan(-0.5);
  expect(Number(values.y1)).toBeGreaterThan(0.5);
});

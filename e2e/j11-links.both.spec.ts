import type { Piece } from '../src/core/piece/piece';
import { expect, farthest, powerDb, rendered, saved, test, typeInto } from './fixtures';

const shapeOf = ({ modulators: [first] }: Piece): string | null => (first?.kind === 'lfo' ? first.shape : null);

test('J11: a filter opens and shuts by itself in time, from whatever place it is played, and is written down as moves', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Chain');
  await hand.add('Filter', 'Neutral');
  await hand.section('Links');
  await hand.press('button', 'Link a rail');
  await hand.press('button', 'Link Filter Cutoff');
  await hand.press('button', 'A new LFO');
  await hand.press('radio', 'Square');
  await typeInto(page, 'Depth', '30 %');
  await typeInto(page, 'Rate', '1/2');
  const ready = (stored: { piece: Piece }): boolean =>
    stored.piece.links[0]?.depth === 0.3 && shapeOf(stored.piece) === 'square';
  const { piece } = await saved(page, pieceId, ready);
  expect(piece.modulators[0]).toMatchObject({ kind: 'lfo', rate: '1/2' });

  const beat = (60 / 92) * piece.sampleRate;
  const alone = { ...piece, tracks: piece.tracks.map((track) => ({ ...track, solo: track.id === 'hum' })) };
  const turning = await rendered(page, alone, 8, 12);
  const still = await rendered(page, { ...alone, links: [] }, 8, 12);
  const part = (sound: Float32Array, from: number): number =>
    powerDb(sound, Math.round((from + 0.3) * beat), Math.round((from + 0.9) * beat));
  await test.step('the first beat of each turn is open, the second shut', () => {
    for (const at of [0, 2]) {
      expect(part(turning.left, at) - part(still.left, at)).toBeGreaterThan(-1);
      expect(part(turning.left, at + 1) - part(still.left, at + 1)).toBeLessThan(-8);
    }
  });
  await test.step('written as moves it sounds the same and can be corrected', async () => {
    await hand.press('button', /^Write the links of Filter cutoff as moves/);
    const written = (await saved(page, pieceId, (stored) => stored.piece.links.length === 0)).piece;
    expect(written.lanes[0]!.target).toMatchObject({ channel: 'hum', param: 'cutoff' });
    const moved = await rendered(
      page,
      { ...written, tracks: written.tracks.map((track) => ({ ...track, solo: track.id === 'hum' })) },
      8,
      12,
    );
    for (const at of [0, 1, 2, 3]) expect(Math.abs(part(moved.left, at) - part(turning.left, at))).toBeLessThan(1);
    expect(farthest(moved.left, turning.left)).toBeLessThan(0.1);
    await hand.press('button', /^Undo: Write links/);
    await saved(page, pieceId, ready);
  });
});

test('J11: one macro turns two rails over their own ranges, is ridden, and its ride is a lane of the main output', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Chain');
  await hand.add('Filter', 'Neutral');
  await hand.section('Links');
  const linkTo = async (rail: string, source: string): Promise<void> => {
    await hand.press('button', 'Link a rail');
    await hand.press('button', `Link Filter ${rail}`);
    await hand.press('button', source);
  };
  await linkTo('Cutoff', 'A macro');
  await typeInto(page, 'Depth', '-40 %');
  await linkTo('Resonance', 'Macro 1');
  await expect(page.getByRole('group', { name: 'Macro 1 turns Filter resonance' })).toBeVisible();
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.links.length === 2);
  expect(piece.modulators).toHaveLength(1);
  expect(piece.links.map(({ depth }) => depth)).toEqual([-0.4, 0.2]);

  await hand.press('switch', 'Record moves');
  await hand.press('button', 'Play');
  await page
    .getByRole('button', { name: /^Macro 1, .*Type a value/ })
    .first()
    .click();
  const field = page.getByRole('textbox', { name: 'Macro 1 as text' });
  await field.fill('100 %');
  await field.press('Enter');
  await hand.press('button', 'Stop');
  const ridden = (await saved(page, pieceId, (stored) => stored.piece.lanes.length === 1)).piece;
  expect(ridden.lanes[0]!.target).toEqual({ kind: 'macro', macro: piece.modulators[0]!.id });

  const alone = { ...ridden, tracks: ridden.tracks.map((track) => ({ ...track, solo: track.id === 'hum' })) };
  const [open, shut] = [await rendered(page, { ...alone, links: [] }, 8, 10), await rendered(page, alone, 8, 10)];
  const all = (sound: Float32Array): number => powerDb(sound, 0, sound.length);
  expect(all(shut.left) - all(open.left)).toBeLessThan(-6);
});

import { expect, saved, test, typeInto } from './fixtures';
import { macrosOf } from '../src/core/piece/find';
import type { Piece } from '../src/core/piece/piece';

/** Where the first macro of a piece is, or NaN before there is one. */
const levelOf = (piece: Piece): number => macrosOf(piece)[0]?.level ?? NaN;

test('J11: a control of a controller is mapped to a macro, moves it without a jump, and its ride is recorded', async ({
  page,
  pieceId,
  hand,
}) => {
  await hand.view('Chain');
  await hand.add('Filter', 'Neutral');
  await hand.section('Links');
  await hand.press('button', 'Link a rail');
  await hand.press('button', 'Link Filter Cutoff');
  await hand.press('button', 'A macro');
  await typeInto(page, 'Curve', '40 %');
  await hand.press('switch', 'A range of its own for Filter cutoff');
  await typeInto(page, 'Not below', '400 Hz');
  await typeInto(page, 'Macro 1', '50 %');
  const { piece } = await saved(page, pieceId, (stored) => levelOf(stored.piece) === 0.5);
  expect(piece.links[0]).toMatchObject({
    curve: 0.4,
    range: { low: expect.closeTo(Math.log(400 / 20) / Math.log(20_000 / 20), 1), high: 1 },
  });

  await hand.press('button', 'Rename Macro 1');
  await page.getByRole('textbox', { name: 'Name of what turns' }).fill('Fog');
  await hand.press('button', 'Rename');
  await saved(page, pieceId, (stored) => stored.piece.modulators[0]?.name === 'Fog');

  const fader = page.getByRole('slider', { name: 'Fader 1' });
  const faderTo = async (value: number): Promise<void> => typeInto(page, 'Fader 1', `${value}`);
  await test.step('the control that moves next is the one', async () => {
    await hand.press('button', 'Let a control move Fog');
    await expect(page.getByText('Move the control that shall move it, of your controller or below.')).toBeVisible();
    await faderTo(10);
    await expect(page.getByText('control 20, channel 1 · takes hold at 50 %')).toBeVisible();
    const mapped = (await saved(page, pieceId, (stored) => stored.piece.controls?.length === 1)).piece;
    expect(mapped.controls![0]).toMatchObject({
      number: 20,
      midiChannel: 0,
      target: { kind: 'macro', macro: mapped.modulators[0]!.id },
    });
    expect(levelOf(mapped)).toBe(0.5);
  });
  await test.step('it takes hold when it passes where the macro stands', async () => {
    await faderTo(30);
    await faderTo(100);
    await expect(page.getByText('control 20, channel 1', { exact: true })).toBeVisible();
    const { piece: moved } = await saved(page, pieceId, (stored) => levelOf(stored.piece) > 0.7);
    expect(levelOf(moved)).toBeCloseTo(100 / 127, 3);
  });
  await test.step('armed and playing, its ride is a lane', async () => {
    await hand.press('button', 'Close');
    await hand.press('switch', 'Record moves');
    await hand.press('button', 'Play');
    await hand.press('button', 'Let a control move Fog');
    await hand.press('button', 'Map nothing');
    await fader.focus();
    for (let i = 0; i < 20; i += 1) await page.keyboard.press('ArrowLeft');
    // A ride is saved while it goes on, so the lane is there before its last point.
    const { piece: ridden } = await saved(page, pieceId, ({ piece: { lanes } }) =>
      lanes.some(({ points }) => points.some(({ value }) => value < 0.7)),
    );
    expect(ridden.lanes.map(({ target }) => target)).toEqual([ridden.controls![0]!.target]);
  });
});

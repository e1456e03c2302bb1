import { beatsToSamples } from '../src/core/music/tempo';
import type { Clip, Piece } from '../src/core/piece/piece';
import { expect, farthest, rendered, saved, test, touchAlong, typeInto } from './fixtures';

test('a clip is split, joined, trimmed, reversed, faded, moved and repeated, and what is heard is what was done', async ({
  page,
  pieceId,
  hasTouch,
  hand,
}) => {
  const hum = ({ piece }: { readonly piece: Piece }): readonly Clip[] =>
    [...piece.tracks.find(({ id }) => id === 'hum')!.clips].sort((a, b) => a.start - b.start);
  const when = async (ready: (clips: readonly Clip[]) => boolean): Promise<Piece> =>
    (await saved(page, pieceId, (stored) => ready(hum(stored)))).piece;
  const alone = (piece: Piece): Piece => ({
    ...piece,
    tracks: piece.tracks.map((track) => ({ ...track, solo: track.id === 'hum' })),
  });
  const clip = page.getByRole('button', { name: 'Clip Hum, first call' });
  const before = await when(() => true);
  const [first] = hum({ piece: before });
  await hand.press('button', 'Clip Hum, first call');
  await test.step('the playhead goes to bar 3, beat 3', async () => {
    const ruler = page.getByRole('slider', { name: 'Place in the piece' });
    if (hasTouch) {
      const box = (await ruler.boundingBox())!;
      await page.touchscreen.tap(box.x + (box.width * 10) / 64, box.y + 10);
      await hand.press('button', 'Clip Hum, first call');
    } else {
      await ruler.focus();
      for (let i = 0; i < 10; i += 1) await page.keyboard.press('ArrowRight');
    }
  });
  await test.step('split, the two sound as the one did; joined, it is what it was', async () => {
    await hand.press('button', 'Split at the playhead');
    const split = await when((clips) => clips.length === 4);
    expect(hum({ piece: split })[1]!.start).toBeCloseTo(10, 0);
    expect(
      farthest((await rendered(page, alone(split), 8, 14)).left, (await rendered(page, alone(before), 8, 14)).left),
    ).toBeLessThan(1e-6);
    await hand.press('button', 'Join with the next');
    const joined = await when((clips) => clips.length === 3);
    expect(hum({ piece: joined })[0]!.lengthSeconds).toBeCloseTo(first!.lengthSeconds, 6);
  });
  await test.step('trimmed at the playhead, reversed and faded', async () => {
    await hand.press('button', 'Trim the start to the playhead');
    const trimmed = await when((clips) => clips[0]!.start > 9);
    expect(hum({ piece: trimmed })[0]!.offsetSeconds).toBeCloseTo(
      (hum({ piece: trimmed })[0]!.start - 8) * (60 / 92),
      4,
    );
    await hand.press('switch', 'Reversed');
    await hand.press('switch', 'Level, fades and slip');
    await typeInto(page, 'Fade in', '300 ms');
    await hand.press('radio', 'Fade in: equal power');
    const faded = await when(([one]) => one!.fadeInShape === 'power');
    const [one] = hum({ piece: faded });
    expect(one).toMatchObject({ reversed: true, fadeInSeconds: 0.3 });
    const [there, mirrored] = [await rendered(page, alone(trimmed), 8, 20), await rendered(page, alone(faded), 8, 20)];
    const rate = faded.sampleRate;
    const from = beatsToSamples(one!.start, faded.tempo, rate) - beatsToSamples(8, faded.tempo, rate);
    const length = Math.round(one!.lengthSeconds * rate);
    let most = 0;
    // Past the fade, and short of the edges' own.
    for (let i = Math.round(0.32 * rate); i < length - 200; i += 1)
      most = Math.max(most, Math.abs(mirrored.left[from + i]! - there.left[from + length - 1 - i]!));
    expect(most).toBeLessThan(1e-4);
  });
  await test.step('moved by hand and by grid, then repeated, then all undone', async () => {
    const start = hum({ piece: await when(() => true) })[0]!.start;
    if (hasTouch) {
      await hand.press('button', /^Points fall on/);
      await hand.press('radio', 'Points fall on 1/4');
      await hand.press('button', 'Close');
      await clip.scrollIntoViewIfNeeded();
      const beats = (await page.getByRole('slider', { name: 'Place in the piece' }).boundingBox())!.width / 64;
      const box = (await clip.boundingBox())!;
      const share = (2 * beats) / box.width;
      // A lens says and shows larger what the thumb covers.
      await touchAlong(
        page,
        clip,
        [
          [0.5, 0.5],
          [0.5 + share / 2, 0.5],
          [0.5 + share, 0.5],
        ],
        async () => expect(page.getByText(/^Begins at \d/)).toBeVisible(),
      );
      await expect(page.getByText('farther off: slower')).toBeHidden();
      await when(([one]) => one!.start === Math.round(start + 2));
      await hand.press('button', 'Nudges by a beat. Change');
      await hand.press('button', 'Nudges by 1/16. Change');
      await hand.press('button', '10 ms earlier');
      await when(([one]) => Math.abs((Math.round(start + 2) - one!.start) * (60 / 92) - 0.01) < 1e-6);
      await hand.press('button', /^Undo: Move/);
    } else {
      await hand.press('button', 'A beat later');
      await when(([one]) => Math.abs(one!.start - start - 1) < 1e-6);
    }
    await hand.press('button', 'Repeat the clip four times');
    await when((clips) => clips.length === 7);
    for (const name of [
      /^Undo: Repeat/,
      /^Undo: Move/,
      /^Undo: Shape of the fade in/,
      /^Undo: Fade in/,
      /^Undo: Reverse/,
      /^Undo: Trim/,
      /^Undo: Join/,
      /^Undo: Split/,
    ])
      await hand.press('button', name);
    expect(hum({ piece: await when((clips) => clips.length === 3 && clips[0]!.start === 8) })).toEqual(
      hum({ piece: before }),
    );
  });
});

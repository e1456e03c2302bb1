import type { Clip } from '../src/core/piece/piece';
import { expect, go, saved, test } from './fixtures';

test('a stretch of the ruler is chosen, copied, pasted, repeated and cleared by keys, of clips and of moves', async ({
  page,
  pieceId,
}) => {
  const ruler = page.getByRole('slider', { name: 'Place in the piece' });
  const keys = async (...pressed: readonly string[]): Promise<void> => {
    for (const key of pressed) await page.keyboard.press(key);
  };
  const hum = async (count: number): Promise<readonly Clip[]> => {
    const of = (clips: readonly Clip[]): Clip[] => [...clips].sort((a, b) => a.start - b.start);
    const track = ({ piece }: Awaited<ReturnType<typeof saved>>) => piece.tracks.find(({ id }) => id === 'hum')!;
    return of(track(await saved(page, pieceId, (stored) => track(stored).clips.length === count)).clips);
  };
  const before = await hum(3);
  await ruler.focus();
  await test.step('Piece: the second half of bar 3 and all of bar 4', async () => {
    await keys('Home', 'PageDown', 'PageDown', 'ArrowRight', 'ArrowRight', 'Shift+PageDown', 'Shift+PageDown');
    await expect(page.getByRole('toolbar', { name: 'Selection' })).toContainText('3.3 to 5.1, Humming voice');
    await keys('Control+c', 'End', 'PageUp', 'Control+v');
    const [, , , pasted] = await hum(4);
    expect(pasted).toMatchObject({ start: 60, sound: before[0]!.sound });
    expect(pasted!.offsetSeconds).toBeCloseTo((2 * 60) / 92, 4);
    await keys('Control+d');
    expect((await hum(5))[1]!.start).toBe(16);
    await expect(page.getByRole('toolbar', { name: 'Selection' })).toContainText('5.1 to 6.3');
    await keys('Delete');
    await expect(page.getByText('The stretch is cleared.')).toBeVisible();
    const [first, second] = await hum(4);
    expect([first!.start, second!.start]).toEqual([8, 24]);
    await keys('Control+z', 'Control+z', 'Control+z');
    expect(await hum(3)).toEqual(before);
  });
  await test.step('Moves: the same keys work on the lane in view', async () => {
    await keys('Escape');
    await go(page, 'Moves');
    await page.getByRole('button', { name: /^Begin a lane for Level/ }).press('Enter');
    const value = page.getByRole('button', { name: /^Level, .*Type a value/ });
    await value.press('Enter');
    await page.getByRole('textbox', { name: 'Level as text' }).fill('-20 dB');
    await page.keyboard.press('Enter');
    const points = async (ready: (count: number) => boolean): Promise<readonly { beat: number; value: number }[]> =>
      (await saved(page, pieceId, ({ piece }) => ready(piece.lanes[0]?.points.length ?? 0))).piece.lanes[0]!.points;
    await saved(page, pieceId, ({ piece }) => (piece.lanes[0]?.points[0]?.value ?? 1) < 0.11);
    const [only] = await points((count) => count === 1);
    await ruler.focus();
    await keys('Home', 'PageDown', 'Shift+PageDown', 'Delete');
    const cleared = await points((count) => count > 1);
    expect(cleared.some(({ beat, value: level }) => beat >= 4 && beat <= 8 && level > only!.value)).toBe(true);
    await keys('Control+c', 'Control+d');
    await points((count) => count > cleared.length);
    await expect(page.getByText('3.1 to 4.1, Level')).toBeVisible();
    await keys('Control+z', 'Control+z');
    expect(await points((count) => count === 1)).toEqual([only]);
    await keys('Control+a');
    await expect(page.getByText('1.1 to 17.1, Level')).toBeVisible();
  });
});

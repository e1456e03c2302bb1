import { beatShown, expect, farthest, isDown, powerDb, rendered, saved, stone, test } from './fixtures';
import { Fingers } from './fingers';

test('a stutter and a sweep are played together, recorded as they sounded, and the sweep comes back by itself', async ({
  page,
  pieceId,
  hasTouch,
  hand,
}) => {
  await hand.view('Play');
  const field = page.getByRole('slider', { name: 'Field Low water: Cutoff across, Resonance up' });
  await expect(field).toBeVisible();
  await hand.press('switch', 'Record moves');
  await hand.press('button', 'Play');
  await expect.poll(() => beatShown(page)).toBeGreaterThan(1);
  const before = await field.getAttribute('aria-valuetext');
  if (hasTouch) {
    const fingers = await Fingers.on(page);
    const first = await fingers.press(stone(page, 'Stutter'));
    const second = await fingers.press(field, 0.5, 0.5);
    await isDown(stone(page, 'Stutter'), true);
    for (let i = 0; i < 8; i += 1) await fingers.move(second, -12, -6);
    await expect(field).toHaveAttribute('aria-valuenow', /^([0-3]\d|\d)$/);
    await fingers.lift(second);
    await fingers.lift(first);
  } else {
    await page.keyboard.down('1');
    await isDown(stone(page, 'Stutter'), true);
    await page.keyboard.down('ArrowLeft');
    await expect(field).toHaveAttribute('aria-valuenow', /^([0-3]\d|\d)$/);
    await page.keyboard.up('ArrowLeft');
    await page.keyboard.up('1');
  }
  await isDown(stone(page, 'Stutter'), false);
  await expect(field).toHaveAttribute('aria-valuenow', /^(49|50|51)$/);
  await expect(field).toHaveAttribute('aria-valuetext', before!);
  await hand.press('button', 'Stop');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.lanes.length === 4);
  const params = piece.lanes.map(({ target }) => (target.kind === 'effect' ? target.param : target.kind));
  expect(params.sort()).toEqual(['cutoff', 'held', 'mix', 'resonance']);
  const held = piece.lanes.find(({ target }) => target.kind === 'effect' && target.param === 'held')!;
  const on = held.points.find(({ value }) => value === 1)!;
  const off = held.points.find(({ value, beat }) => value === 0 && beat > on.beat)!;
  const played = await rendered(page, piece, 0, off.beat);
  const without = await rendered(page, { ...piece, lanes: [] }, 0, off.beat);
  const apart = played.left.map((x, i) => x - without.left[i]!);
  const first = Math.min(...piece.lanes.map(({ points }) => points.find(({ beat }) => beat > 0.1)!.beat));
  const start = Math.floor((first * 60 * piece.sampleRate) / piece.tempo.bpm) - 64;
  expect(farthest(played.left.subarray(0, start), without.left.subarray(0, start))).toBe(0);
  expect(powerDb(apart, start, apart.length)).toBeGreaterThan(-60);
});

test('eight holds are held by eight fingers or keys at once, and all of them are let go of together', async ({
  page,
  pieceId: _open,
  hasTouch,
  hand,
}) => {
  await hand.view('Play');
  for (const name of ['Slow motion', 'Scrub', 'Reorder', 'Chop']) {
    await hand.press('button', 'Add a hold');
    await hand.press('button', new RegExp(`^Add ${name}\\.`));
    await expect(stone(page, name)).toBeVisible();
  }
  await hand.press('button', 'Play');
  await expect.poll(() => beatShown(page)).toBeGreaterThan(0);
  const names = ['Stutter', 'Tape stop', 'Backwards', 'Cloud', 'Slow motion', 'Scrub', 'Reorder', 'Chop'];
  const fingers = await Fingers.on(page);
  if (hasTouch) for (const name of names) await fingers.press(stone(page, name));
  else for (const key of ['1', '2', '3', '4', 'q', 'w', 'e', 'r']) await page.keyboard.down(key);
  for (const name of names) await isDown(stone(page, name), true);
  // The engine tells where each reads: within a bar of what passed, never twice in the same place.
  for (const name of names) {
    const head = stone(page, name).getByTestId('hold picture').locator('path').last();
    await expect(head, name).toHaveAttribute('d', /^M(\d|[1-6]\d|7[0-2])\.\d /);
    const before = await head.getAttribute('d');
    await expect.poll(() => head.getAttribute('d'), { message: name }).not.toBe(before);
  }
  if (hasTouch) await fingers.press(page.getByRole('button', { name: 'Let go of all' }));
  else await page.keyboard.press('Escape');
  for (const name of names) await isDown(stone(page, name), false);
  await hand.press('button', 'Stop');
});

test('locked for a stage nothing but Play reacts, until the lock is held for three seconds', async ({
  page,
  pieceId: _open,
  hand,
}) => {
  await hand.view('Play');
  await hand.press('button', 'Stage lock: only Play reacts');
  await expect(page.getByRole('navigation')).toBeHidden();
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeHidden();
  await expect(page.getByRole('button', { name: /^Figures of/ })).toBeHidden();
  await page.keyboard.press('m');
  const lock = page.getByRole('button', { name: 'Unlock: hold for three seconds' });
  const fingers = await Fingers.on(page);
  const finger = await fingers.press(lock);
  await expect(lock).toContainText('Keep holding');
  await fingers.lift(finger);
  await expect(lock).toContainText('Hold to unlock');
  await lock.focus();
  await page.keyboard.down('Enter');
  await expect(page.getByRole('navigation')).toBeVisible();
  await page.keyboard.up('Enter');
  await expect(page.getByRole('switch', { name: 'Record moves' })).toHaveAttribute('aria-checked', 'false');
});

test('pads throw into a return made on the spot, mute by a tap, and another key can play them', async ({
  page,
  pieceId,
  hasTouch,
  hand,
}) => {
  await hand.view('Play');
  await hand.press('button', 'Add a return');
  await hand.press('button', 'Add return: Echo');
  const ring = page.getByRole('button', { name: 'Throw Kalimba into Echo' });
  await expect(ring).toBeVisible();
  await hand.press('button', 'Play');
  const fingers = await Fingers.on(page);
  if (hasTouch) {
    const finger = await fingers.press(ring);
    await isDown(ring, true);
    await fingers.lift(finger);
  } else {
    await hand.press('button', 'Keys');
    await hand.press('button', /^Pad 1: key A/);
    await page.keyboard.press('x');
    await expect(page.getByRole('button', { name: /^Pad 1: key X/ })).toBeVisible();
    await hand.press('button', 'Close');
    await page.keyboard.down('x');
    await isDown(ring, true);
    await page.keyboard.up('x');
  }
  await isDown(ring, false);
  await hand.press('button', 'Pads: Throws');
  await hand.press('radio', 'Mutes');
  await hand.press('button', 'Close');
  const mute = page.getByRole('button', { name: 'Mute Kalimba' });
  await hand.press('button', 'Mute Kalimba');
  await isDown(mute, true);
  await hand.press('button', 'Let go of all');
  await isDown(mute, false);
  await hand.press('button', 'Stop');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.returns.length === 1);
  expect(piece.tracks[0]!.sends).toEqual([expect.objectContaining({ level: 0 })]);
  expect(piece.tracks[0]!.mute).toBe(false);
});

test('the pads and faders of the built-in controller play it alone, and its notes are recorded', async ({
  page,
  pieceId,
  hasTouch,
  hand,
}) => {
  await hand.view('Play');
  await hand.press('switch', 'Record moves');
  await hand.press('button', 'Play');
  await expect.poll(() => beatShown(page)).toBeGreaterThan(0);
  await hand.press('button', /^Controller: /);
  const stutter = page.getByRole('button', { name: /^Hold Stutter/, includeHidden: true });
  const pad = page.getByRole('button', { name: 'Pad 1 of the controller' });
  const before = await beatShown(page);
  const fingers = await Fingers.on(page);
  await pad.scrollIntoViewIfNeeded();
  const finger = hasTouch ? await fingers.press(pad) : 0;
  if (!hasTouch) {
    await pad.focus();
    await page.keyboard.down('Enter');
  }
  await isDown(stutter, true);
  await isDown(pad, true);
  if (hasTouch) await fingers.lift(finger);
  else await page.keyboard.up('Enter');
  await isDown(stutter, false);
  await hand.press('button', 'Close');
  await hand.press('button', 'Stop');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.lanes.length === 1);
  const [lane] = piece.lanes;
  expect(lane!.target).toMatchObject({ kind: 'effect', effect: 'deck-rattle', param: 'held' });
  expect(lane!.points.find(({ value }) => value === 1)!.beat).toBeGreaterThanOrEqual(before);
});

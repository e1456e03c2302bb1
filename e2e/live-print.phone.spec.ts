import type { APIRequestContext, Locator, Page } from '@playwright/test';
import { effectOf } from '../src/core/effects/catalogue';
import type { Audio } from '../src/core/formats/audio';
import { readWav } from '../src/core/formats/readWav';
import { newSlot } from '../src/core/piece/edits/chain';
import type { Piece } from '../src/core/piece/piece';
import {
  beatShown,
  copyOfDemo,
  expect,
  farthest,
  handOn,
  isDown,
  stone,
  test as base,
  touchAlong,
  type Stored,
} from './fixtures';
import { Fingers } from './fingers';
import { captureOutput, capturedOutput, captureReady, waitForFrames } from './outputCapture';

const TIMES = 4;
const BPM = 92;
/** Beats after which hands are taken off: two minutes. */
const PLAYED_BEATS = 184;
const PLAYED_FRAMES = Math.ceil((PLAYED_BEATS * 60 * 48_000) / BPM);
const WRITTEN_BEATS = 92;
const WRITTEN_FRAMES = Math.floor((WRITTEN_BEATS * 60 * 48_000) / BPM);

/** Salt Pier so often that it goes on while hands are slow, with its returns, and a braid whose strands take turns on the voice. */
function longer(piece: Piece): Piece {
  const { lengthBeats } = piece;
  const pattern = effectOf('braid').presets.find(({ name }) => name === 'Five bells')!;
  return {
    ...piece,
    lengthBeats: TIMES * lengthBeats,
    tracks: piece.tracks.map((track) => ({
      ...track,
      chain: track.id === 'hum' ? [newSlot('bells', 'braid', pattern.id)] : track.chain,
      clips: Array.from({ length: TIMES }, (_, time) =>
        track.clips.map((clip) => ({ ...clip, id: `${clip.id}-${time}`, start: clip.start + time * lengthBeats })),
      ).flat(),
    })),
  };
}

const test = base.extend<{ longPiece: string }>({
  longPiece: async ({ page, request }, provide) => {
    const id = await copyOfDemo(request, longer);
    await captureOutput(page);
    await page.goto(`/piece/${id}`);
    await expect(page.getByRole('heading', { name: 'Salt Pier' })).toBeVisible();
    // A sound that comes while it plays is not in what was heard before.
    await page.waitForLoadState('networkidle');
    await expect(page.getByText('loading …')).toHaveCount(0);
    await provide(id);
  },
});

/** Hands of a player: each round takes about three bars. */
class Player {
  private round = 0;

  constructor(
    private readonly page: Page,
    private readonly fingers: Fingers,
  ) {}

  private async later(beats: number): Promise<void> {
    const from = await beatShown(this.page);
    const until = Math.min(PLAYED_BEATS, from + beats);
    await expect.poll(() => beatShown(this.page), { intervals: [30] }).toBeGreaterThanOrEqual(until);
  }

  /** A hold in one hand, whose presets are stepped; the field or another hold in the other; then a pad. */
  async play(): Promise<void> {
    const { page, fingers, round } = this;
    const stones = ['Stutter', 'Tape stop', 'Backwards', 'Cloud'];
    const first = stone(page, stones[round % 4]!);
    const one = await fingers.press(first);
    await isDown(first, true);
    if (round % 2 === 0) await this.sweep();
    else await this.second(stone(page, stones[(round + 1) % 4]!));
    await this.stepPreset(first, one);
    await this.later(1);
    await fingers.lift(one);
    await isDown(first, false);
    await this.pads();
    this.round += 1;
  }

  /** A swipe aside on a stone that is held. */
  private async stepPreset(held: Locator, finger: number): Promise<void> {
    const before = (await held.getAttribute('aria-label'))!;
    await this.fingers.move(finger, 30, 0);
    await this.fingers.move(finger, 30, 0);
    await expect(held).not.toHaveAttribute('aria-label', before);
  }

  private async sweep(): Promise<void> {
    const { page, fingers } = this;
    const finger = await fingers.press(page.getByRole('slider', { name: /^Field Low water/ }), 0.8, 0.6);
    for (let i = 0; i < 12; i += 1) await fingers.move(finger, i < 8 ? -14 : 9, i % 2 === 0 ? -5 : 3);
    await this.later(1);
    await fingers.lift(finger);
  }

  private async second(other: Locator): Promise<void> {
    const finger = await this.fingers.press(other);
    await isDown(other, true);
    await this.later(1);
    await this.fingers.lift(finger);
    await isDown(other, false);
  }

  /** Throws in the first half, strands of the pattern in the second. */
  private async pads(): Promise<void> {
    const { page, fingers } = this;
    const pads = page
      .getByRole('group', { name: /^(Throws|Strands)$/ })
      .getByRole('button', { name: /^(Throw|Take) / });
    const pad = pads.nth(this.round % (await pads.count()));
    const finger = await fingers.press(pad);
    await isDown(pad, true);
    await this.later(1);
    await fingers.lift(finger);
    await isDown(pad, false);
  }
}

/** The piece's main output, as far as it was played, printed by the page. */
async function printed(page: Page, request: APIRequestContext, id: string): Promise<{ piece: Piece; sound: Audio }> {
  const hand = handOn(page, true);
  await hand.view('Piece');
  const ruler = page.getByRole('slider', { name: 'Place in the piece' });
  await touchAlong(page, ruler, [
    [0.0003, 0.5],
    [0.5, 0.5],
    [0.75, 0.5],
  ]);
  await hand.press('button', 'Print');
  await hand.press('radio', 'Print everything');
  await hand.press('radio', 'Wet and dry');
  await hand.press('radio', 'Rings: cut at the end');
  await hand.press('button', 'Start the print');
  const read = async (): Promise<Stored> => (await (await request.get(`/api/pieces/${id}`)).json()) as Stored;
  await expect.poll(async () => (await read()).piece.prints.length, { timeout: 400_000 }).toBe(1);
  const { piece } = await read();
  return { piece, sound: readWav(await (await request.get(`/api/sounds/${piece.prints[0]!.sound}`)).body()) };
}

/** Its first minute as a file of the server's making. */
async function exported(request: APIRequestContext, id: string): Promise<Audio> {
  const order = {
    piece: id,
    what: 'mix',
    fromBeat: 0,
    toBeat: WRITTEN_BEATS,
    tail: 'none',
    format: 'wav32f',
    lufs: null,
    prints: [],
  };
  const started = (await (await request.post('/api/exports', { data: order })).json()) as { id: string };
  interface Listed {
    readonly id: string;
    readonly state: string;
    readonly files: readonly { readonly name: string }[];
  }
  let found: Listed | undefined;
  const state = async (): Promise<string | undefined> => {
    const list = (await (await request.get(`/api/exports?piece=${id}`)).json()) as Listed[];
    found = list.find((one) => one.id === started.id);
    return found?.state;
  };
  await expect.poll(state, { timeout: 180_000 }).toBe('done');
  const path = `/api/exports/${started.id}/files/${encodeURIComponent(found!.files[0]!.name)}`;
  return readWav(await (await request.get(path)).body());
}

const PART_FRAMES = 6000;
const MAX_LISTED = 12;

/**
 * Stretches of an eighth of a second in which two recordings differ, the first of them, as text: where each begins, by
 * how much they differ, and which lanes have points within the two beats before.
 */
function differences(a: Float32Array, b: Float32Array, piece: Piece): string[] {
  const found: string[] = [];
  for (let from = 0; from < a.length && found.length < MAX_LISTED; from += PART_FRAMES) {
    const apart = farthest(a.subarray(from, from + PART_FRAMES), b.subarray(from, from + PART_FRAMES));
    if (apart === 0) continue;
    const first = from + a.subarray(from, from + PART_FRAMES).findIndex((x, i) => x !== b[from + i]);
    const beat = (first * BPM) / 60 / 48_000;
    const moving = piece.lanes
      .filter(({ points }) => points.some((point) => point.beat <= beat && point.beat > beat - 2))
      .map(({ target }) => JSON.stringify(target));
    found.push(`sample ${first}, beat ${beat.toFixed(4)}: ${apart}; moved before it: ${moving.join(' ')}`);
  }
  return found;
}

const firstLoud = (samples: Float32Array): number => samples.findIndex((x) => Math.abs(x) > 1e-4);

test.describe('live is what is recorded and printed', () => {
  test.use({ bypassCSP: true });

  test('two minutes played by hand, recorded as moves, print as they were heard, and the server writes the first alike', async ({
    page,
    request,
    longPiece,
  }) => {
    // Two minutes are played, and rendered twice by a machine that other tests use as well.
    test.setTimeout(900_000);
    const hand = handOn(page, true);
    await captureReady(page);
    await hand.view('Play');
    await hand.press('switch', 'Record moves');
    await hand.press('button', 'Play');
    const player = new Player(page, await Fingers.on(page));
    while ((await beatShown(page)) < PLAYED_BEATS / 2) await player.play();
    await hand.press('button', /^Pads: /);
    await hand.press('radio', 'Strands');
    await hand.press('button', /^Close/);
    while ((await beatShown(page)) < PLAYED_BEATS) await player.play();
    await hand.press('button', 'Let go of all');
    // What is compared ends before the end of playing does.
    await waitForFrames(page, PLAYED_FRAMES + 48_000);
    await hand.press('button', 'Stop');
    const played = await capturedOutput(page);

    const { piece, sound } = await printed(page, request, longPiece);
    expect(piece.prints[0]!.from.fromBeat).toBe(0);
    const params = new Set(piece.lanes.map(({ target }) => (target.kind === 'effect' ? target.param : target.kind)));
    for (const moved of ['held', 'cutoff', 'send', 'taken', 'slice', 'density']) expect(params).toContain(moved);
    const [left, right] = sound.channels as [Float32Array, Float32Array];
    const lag = firstLoud(played.left) - firstLoud(left);
    const until = (samples: Float32Array): Float32Array => samples.subarray(0, PLAYED_FRAMES);
    expect(differences(until(played.left.subarray(lag)), until(left), piece)).toEqual([]);
    expect(differences(until(played.right.subarray(lag)), until(right), piece)).toEqual([]);

    const written = await exported(request, longPiece);
    written.channels.forEach((side, s) => {
      const print = [left, right][s]!.subarray(0, WRITTEN_FRAMES);
      expect(farthest(side.subarray(0, WRITTEN_FRAMES), print)).toBeLessThan(1e-6);
    });
  });
});

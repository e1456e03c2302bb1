import type { SoundData } from '../src/core/dsp/soundData';
import type { Page } from '@playwright/test';
import { Engine } from '../src/core/engine/engine';
import { compilePlan } from '../src/core/engine/compilePlan';
import { clipOrder, planPrint } from '../src/core/engine/print';
import { render } from '../src/core/engine/render';
import type { Piece } from '../src/core/piece/piece';
import { newSlot } from '../src/core/piece/edits/chain';
import { readWav } from '../src/core/formats/readWav';
import { expect, farthest, printAndDownload, saved, test } from './fixtures';
import { framesCaptured, captureReady, captureOutput, capturedOutput, waitForFrames } from './outputCapture';

/** Four effects, moves, pan: what differs between runtimes would show. */
const busy = (piece: Piece): Piece => ({
  ...piece,
  tracks: piece.tracks.map((track, i) => ({
    ...track,
    chain: i < 4 ? [newSlot(`e${i}`, 'echo', ['callAcross', 'wornReel', 'radioMast', 'fogBank'][i]!)] : [],
  })),
  lanes: [
    {
      id: 'ride',
      target: { kind: 'effect', channel: 'hum', effect: 'e1', param: 'feedback' },
      unit: 'own',
      on: true,
      points: [
        { beat: 8, value: 0.2, shape: 'curve', bend: 0.4 },
        { beat: 16, value: 0.9, shape: 'line', bend: 0 },
      ],
    },
  ],
});

async function soundsOf(page: Page, piece: Piece): Promise<Map<string, SoundData>> {
  const sounds = new Map<string, SoundData>();
  for (const hash of Object.keys(piece.sounds))
    sounds.set(hash, readWav(await (await page.request.get(`/api/sounds/${hash}`)).body()).channels);
  return sounds;
}

test.describe('one engine everywhere', () => {
  test.use({ bypassCSP: true });

  test('what the worklet plays and what the worker prints is what Node renders, within 1e-6', async ({
    page,
    pieceId,
  }) => {
    const before = await saved(page, pieceId);
    const piece = busy(before.piece);
    const put = await page.request.put(`/api/pieces/${pieceId}`, {
      headers: { 'If-Match': `"${before.revision}"` },
      data: { saveId: 'busy', piece, history: { from: 0, entries: [], cursor: 0 } },
    });
    expect(put.status()).toBe(200);
    await captureOutput(page);
    await page.reload();
    const sounds = await soundsOf(page, piece);
    await captureReady(page);
    await expect(page.getByText('loading …')).toHaveCount(0);
    await page.getByRole('button', { name: 'Play', exact: true }).click();
    await waitForFrames(page, (await framesCaptured(page)) + 48_000 * 13);
    await page.getByRole('button', { name: 'Stop', exact: true }).click();
    const played = await capturedOutput(page);

    const engine = new Engine(48_000);
    for (const [hash, data] of sounds) engine.addSound(hash, data);
    engine.setPlan(compilePlan(piece));
    engine.play(0);
    const length = 48_000 * 12;
    const left = new Float32Array(length);
    const right = new Float32Array(length);
    engine.process(left, right, length);
    const first = (samples: Float32Array): number => samples.findIndex((x) => Math.abs(x) > 1e-4);
    const lag = first(played.left) - first(left);
    expect(farthest(played.left.subarray(lag, lag + length), left)).toBeLessThan(1e-6);
    expect(farthest(played.right.subarray(lag, lag + length), right)).toBeLessThan(1e-6);

    const printed = await printAndDownload(page, 'Hum, first call', 'Wet only', '2 bars');
    const here = render({ ...planPrint(piece, clipOrder(piece, 'clip-3', 'wet', 2)!), sounds })!;
    expect(farthest(printed.channels[0]!, here.left)).toBeLessThan(1e-6);
    expect(farthest(printed.channels[1]!, here.right)).toBeLessThan(1e-6);
  });
});

import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { writeWav } from '../src/core/formats/writeWav';
import { expect, go, saved, test } from './fixtures';
import type { Page } from '@playwright/test';

const fixture = (name: string): Buffer => readFileSync(join(__dirname, '../server/fixtures', name));

async function add(page: Page, name: string, buffer: Buffer): Promise<void> {
  await page.getByRole('button', { name: 'Add sounds, a track or a return' }).click();
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: /^Sound files/ }).click(),
  ]);
  await chooser.setFiles({ name, mimeType: 'application/octet-stream', buffer });
}

test('a file of every kind becomes a clip on a track of its own and plays', async ({ page, pieceId }) => {
  const wav = Buffer.from(
    writeWav(
      { sampleRate: 44_100, channels: [Float32Array.from({ length: 22_050 }, (_, i) => 0.3 * Math.sin(i / 10))] },
      '24',
    ),
  );
  const files: readonly (readonly [string, Buffer])[] = [
    ['Oar stroke.wav', wav],
    ...['aiff', 'flac', 'mp3', 'ogg', 'opus'].map((kind) => [`Buoy ${kind}.${kind}`, fixture(`tone.${kind}`)] as const),
  ];
  for (const [name, bytes] of files) {
    await add(page, name, bytes);
    await expect(page.getByText(`${name.replace(/\.\w+$/, '')} was added.`)).toBeVisible();
  }
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.tracks.length === 11);
  expect(piece.tracks.slice(5).map((track) => [track.name, track.clips.length])).toEqual(
    files.map(([name]) => [name.replace(/\.\w+$/, ''), 1]),
  );
  expect(piece.sounds[piece.tracks[5]!.clips[0]!.sound]).toMatchObject({
    frames: 22_050,
    sampleRate: 44_100,
    channels: 1,
  });
  await expect(page.getByRole('button', { name: 'Clip Buoy opus' })).toBeVisible();
  await page.getByRole('button', { name: /^Undo: Add track Buoy opus/ }).click();
  await expect(page.getByRole('button', { name: 'Clip Buoy opus' })).toHaveCount(0);
});

test('a file that cannot be used says why and changes nothing', async ({ page, pieceId }) => {
  const before = await saved(page, pieceId);
  await add(page, 'letter.wav', Buffer.from('Dear harbour master'));
  await expect(
    page.getByText(/letter\.wav: This is not a sound file that can be read, whatever its name says/),
  ).toBeVisible();
  await add(
    page,
    'wide.wav',
    Buffer.from(
      writeWav(
        { sampleRate: 48_000, channels: Array.from({ length: 32 }, () => new Float32Array(480).fill(0.1)) },
        '16',
      ),
    ),
  );
  await expect(page.getByText(/wide\.wav: This file has 32 channels; mono and stereo are read/)).toBeVisible();
  expect((await saved(page, pieceId)).piece).toEqual(before.piece);
  await go(page, 'Shelf');
  await expect(page.getByRole('button', { name: 'Hear Kalimba, ebb' })).toBeVisible();
});

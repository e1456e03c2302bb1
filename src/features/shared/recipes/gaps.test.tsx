import { renderHook } from '@testing-library/react';
import type { LoadedSound } from '../../../audio/soundLibrary';
import type { Piece } from '../../../core/piece/piece';
import { clipOf, hashOf, RATE, scene, soundOf } from '../../../core/piece/testing';
import { useOpenPiece } from '../../../data/openPiece';
import { quietStudio } from '../../testing';
import { keepLiked, likedOf } from './liked';
import { useGaps } from './useGaps';

jest.mock(
  '../../studio/StudioProvider',
  () => jest.requireActual<typeof import('../../testing')>('../../testing').quietProvider,
);

/** Peaks of a sound that is heard between these seconds, 240 samples each. */
const peaks = (seconds: number, from: number, to: number): Float32Array =>
  Float32Array.from({ length: (seconds * RATE) / 240 }, (_, i) => {
    const at = (i * 240) / RATE;
    return at >= from && at < to ? 0.5 : 0;
  });

/** The gaps of two tracks, as `track: start-end` in beats; two beats a second. */
function gaps(change: (piece: Piece) => Piece = (piece) => piece, heard?: Float32Array): string[] {
  const { piece } = scene(
    [soundOf(8, () => 0)],
    [{ clips: [clipOf('a', 0, 0, 8)] }, { clips: [clipOf('b', 0, 24, 4)] }],
    { lengthBeats: 40 },
  );
  useOpenPiece.setState({ piece: change(piece) });
  quietStudio.studio.sounds = new Map<never, never>(
    (heard ? [[hashOf(0), { hash: hashOf(0), channels: [], peaks: heard } satisfies LoadedSound]] : []) as never,
  );
  return renderHook(() => useGaps()).result.current.map(({ track, start, end }) => `${track}: ${start}-${end}`);
}

test('until sounds have come clips count as a whole: gaps of all first, then those of each track', () => {
  expect(gaps()).toEqual(['null: 16-24', 'null: 32-40', 't0: 16-40', 't1: 0-24', 't1: 32-40']);
});

test('what is silent within a sound is a gap', () => {
  expect(gaps(undefined, peaks(8, 0, 4))).toContain('t0: 8-40');
});

test('a clip that is reversed is silent at its other end', () => {
  const reversed = (piece: Piece): Piece => ({
    ...piece,
    tracks: piece.tracks.map((track) => ({
      ...track,
      clips: track.clips.map((clip) => ({ ...clip, reversed: true })),
    })),
  });
  expect(gaps(reversed, peaks(8, 0, 4))).toContain('t0: 0-8');
});

test('what is muted does not sound', () => {
  const muted = (piece: Piece): Piece => ({
    ...piece,
    tracks: piece.tracks.map((track, i) => ({ ...track, mute: i === 0 })),
  });
  expect(gaps(muted)).toEqual(['null: 0-24', 'null: 32-40', 't0: 0-40', 't1: 0-24', 't1: 32-40']);
});

test('gaps of less than a bar are none', () => {
  const close = (piece: Piece): Piece => ({
    ...piece,
    lengthBeats: 18,
    tracks: piece.tracks.slice(0, 1),
  });
  expect(gaps(close)).toEqual([]);
});

test('liked variations of a recipe are kept, each once, the oldest gone when there are too many', () => {
  localStorage.clear();
  const riser = { id: 'riser', params: {} };
  expect(likedOf(riser)).toEqual([]);
  for (let n = 0; n < 8; n += 1) keepLiked(riser, { length: n });
  expect(keepLiked(riser, { length: 5 })).toEqual([2, 3, 4, 6, 7, 5].map((length) => ({ length })));
  expect(likedOf(riser)).toHaveLength(6);
  expect(likedOf({ id: 'bed', params: {} })).toEqual([]);
  localStorage.setItem('zephiro.liked', '{"riser":"broken"}');
  expect(likedOf(riser)).toEqual([]);
});

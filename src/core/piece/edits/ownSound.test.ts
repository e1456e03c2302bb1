import * as fc from 'fast-check';
import { applyEdit } from '../edit';
import { findSlot } from '../find';
import { emptyPiece, newTrack } from '../piece';
import { hashOf } from '../testing';
import { newSlot, setEffectSound } from './chain';
import { addPrint } from './prints';

const piece = {
  ...emptyPiece('p', 'P'),
  tracks: [newTrack('t', 'T', { chain: [newSlot('c', 'convolver', 'neutral', { source: 'own', length: 900 })] })],
};

test('all of an impulse of one’s own is used, up to what the rail allows', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 2_000_000 }),
      fc.constantFrom(44_100, 48_000, 96_000),
      (frames, sampleRate) => {
        const info = { name: 'hall', frames, sampleRate, channels: 2 as const };
        const after = applyEdit(piece, setEffectSound, { channel: 't', slot: 'c', sound: hashOf(1), info }).piece;
        const used = Number(findSlot(after, 't', 'c')!.values.length);
        expect(used).toBeGreaterThanOrEqual(Math.min(8000, (1000 * frames) / sampleRate) - 1e-9);
        expect(used).toBeLessThanOrEqual(8000);
      },
    ),
  );
});

test('a print that rings beyond the end of the piece does not lengthen it', () => {
  const sound = { name: 'print', frames: 48_000 * 60, sampleRate: 48_000, channels: 2 as const };
  const print = {
    id: 'x',
    name: 'Print',
    sound: hashOf(2),
    startSample: 48_000 * 30,
    sampleRate: 48_000,
    madeAt: '',
    from: {
      channel: 't',
      channelName: 'T',
      clip: null,
      fromBeat: 50,
      toBeat: 64,
      part: 'mix' as const,
      tail: 'until silent',
      bpm: 100,
    },
  };
  const place = { clip: 'pc', track: 'pt', instead: false };
  const after = applyEdit(piece, addPrint, { print, sound, place }).piece;
  expect([after.lengthBeats, after.tracks.at(-1)!.clips.length]).toEqual([64, 1]);
});

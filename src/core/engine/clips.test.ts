import { clipOf, RATE, scene, soundOf } from '../piece/testing';
import fc from 'fast-check';
import { between } from '../testing';
import { applyEdit } from '../piece/edit';
import { crossfadeClip, joinClip, repeatClip, setClip, slipClip, splitClip, trimClip } from '../piece/edits/clipShape';
import type { Clip, Piece } from '../piece/piece';
import { fadeGain } from './fade';
import { compilePlan } from './compilePlan';
import { render } from './render';

const SECONDS = 4;
/** Every sample is another one, so that one that is out of place is seen. */
const wave = soundOf(SECONDS, (i) => 0.9 * Math.sin(i * 1.7 + i * i * 1e-7));
const whole = scene([wave], [{ clips: [clipOf('c', 0, 2, SECONDS)] }]);
/** The tests' tempo is 120: a beat is half a second, and the clip begins at second 1. */
const FROM = RATE;

function heard(piece: Piece, seconds = 8): Float32Array {
  return render({
    plan: compilePlan(piece),
    sounds: whole.sounds,
    fromSample: 0,
    toSample: seconds * RATE,
    tail: { kind: 'seconds', seconds: 0 },
  })!.left;
}

const clipIn = (piece: Piece, id = 'c'): Clip => piece.tracks[0]!.clips.find((clip) => clip.id === id)!;
const plain = heard(whole.piece);
/** Largest difference between two stretches. */
const away = (a: Float32Array, b: Float32Array, from: number, to: number): number => {
  let most = 0;
  for (let i = from; i < to; i += 1) most = Math.max(most, Math.abs(a[i]! - b[i]!));
  return most;
};

test('trimmed, what is left sounds where it did, to the bit, and its edges come and go within two milliseconds', () => {
  const first = applyEdit(whole.piece, trimClip, { clip: 'c', side: 'start', beat: 3 }).piece;
  const both = applyEdit(first, trimClip, { clip: 'c', side: 'end', beat: 6 }).piece;
  expect(clipIn(both)).toMatchObject({ start: 3, offsetSeconds: 0.5, lengthSeconds: 1.5 });
  const out = heard(both);
  const [from, to, edge] = [1.5 * RATE, 3 * RATE, Math.round(0.002 * RATE)];
  expect(away(out, plain, from + edge, to - edge)).toBe(0);
  expect(out.subarray(0, from).every((x) => x === 0) && out.subarray(to).every((x) => x === 0)).toBe(true);
  for (let i = 0; i < edge; i += 1) expect(out[from + i]).toBeCloseTo((plain[from + i]! * i) / edge, 6);
});

test('a clip split anywhere, forward or reversed, sounds as it did; joined again it is what it was', () => {
  fc.assert(
    fc.property(between(2.1, 9.9), fc.boolean(), (beat, reversed) => {
      const before = reversed
        ? applyEdit(whole.piece, setClip, { clip: 'c', change: { reversed } }).piece
        : whole.piece;
      const split = applyEdit(before, splitClip, { clip: 'c', beat, id: 'd' }).piece;
      expect(split.tracks[0]!.clips).toHaveLength(2);
      expect(away(heard(split), heard(before), 0, 6 * RATE)).toBe(0);
      const joined = applyEdit(split, joinClip, { clip: 'c' }).piece;
      expect(joined.tracks[0]!.clips).toHaveLength(1);
      expect(clipIn(joined)).toMatchObject({
        offsetSeconds: expect.closeTo(0, 9),
        lengthSeconds: expect.closeTo(SECONDS, 9),
      });
    }),
    { numRuns: 12 },
  );
});

test('trimmed by any amounts a clip stays within its sound and the start of the piece', () => {
  const trims = fc.array(fc.record({ side: fc.constantFrom('start' as const, 'end' as const), beat: between(0, 20) }), {
    maxLength: 6,
  });
  fc.assert(
    fc.property(trims, fc.boolean(), (list, reversed) => {
      const begun = applyEdit(whole.piece, setClip, {
        clip: 'c',
        change: { reversed, fadeInSeconds: 1, fadeOutSeconds: 1 },
      }).piece;
      const clip = clipIn(
        list.reduce((piece, trim) => applyEdit(piece, trimClip, { clip: 'c', ...trim }).piece, begun),
      );
      expect(clip.offsetSeconds).toBeGreaterThanOrEqual(0);
      expect(clip.offsetSeconds + clip.lengthSeconds).toBeLessThanOrEqual(SECONDS + 1e-9);
      expect(clip.start).toBeGreaterThanOrEqual(0);
      expect(clip.fadeInSeconds + clip.fadeOutSeconds).toBeLessThanOrEqual(clip.lengthSeconds + 1e-9);
    }),
  );
});

test('reversed, it is its own mirror in the same place, trimmed too', () => {
  const reversed = applyEdit(whole.piece, setClip, { clip: 'c', change: { reversed: true } }).piece;
  const out = heard(reversed);
  const n = SECONDS * RATE;
  for (let i = 0; i < n; i += 997) expect(out[FROM + i]).toBe(plain[FROM + n - 1 - i]);
  const trimmed = applyEdit(reversed, trimClip, { clip: 'c', side: 'end', beat: 6 }).piece;
  expect(clipIn(trimmed)).toMatchObject({ offsetSeconds: 2, lengthSeconds: 2 });
  expect(away(heard(trimmed), out, 0, 3 * RATE - 200)).toBe(0);
});

test('slipped, another part of the sound lies in the same place; muted, nothing does', () => {
  const short = applyEdit(whole.piece, trimClip, { clip: 'c', side: 'end', beat: 4 }).piece;
  const slipped = applyEdit(short, slipClip, { clip: 'c', offsetSeconds: 2 }).piece;
  const out = heard(slipped);
  for (let i = 200; i < RATE - 200; i += 101) expect(out[FROM + i]).toBe(plain[FROM + 2 * RATE + i]);
  expect(clipIn(applyEdit(short, slipClip, { clip: 'c', offsetSeconds: 99 }).piece).offsetSeconds).toBe(3);
  expect(heard(applyEdit(short, setClip, { clip: 'c', change: { mute: true } }).piece).every((x) => x === 0)).toBe(
    true,
  );
});

test('fades follow their shapes: straight, a quarter of a sine, or soft', () => {
  for (const [shape, gain] of [
    ['line', (x: number) => x],
    ['power', (x: number) => Math.sin((x * Math.PI) / 2)],
    ['soft', (x: number) => x * x * (3 - 2 * x)],
  ] as const) {
    const out = heard(
      applyEdit(whole.piece, setClip, {
        clip: 'c',
        change: { fadeInSeconds: 1, fadeInShape: shape, fadeOutSeconds: 0.5, fadeOutShape: shape },
      }).piece,
    );
    for (const share of [0.1, 0.35, 0.5, 0.8]) {
      const i = Math.round(share * RATE);
      expect(out[FROM + i]).toBeCloseTo(plain[FROM + i]! * gain(share), 5);
      const j = FROM + SECONDS * RATE - Math.round(share * 0.5 * RATE);
      expect(out[j]).toBeCloseTo(plain[j]! * gain(share), 4);
    }
  }
  for (let i = 0; i <= 100; i += 1) expect(fadeGain(1, i / 100) ** 2 + fadeGain(1, 1 - i / 100) ** 2).toBeCloseTo(1, 4);
});

test('crossfaded, two clips share the whole of where they overlap at equal power', () => {
  const two = {
    ...whole.piece,
    tracks: [
      {
        ...whole.piece.tracks[0]!,
        clips: [clipOf('c', 0, 2, SECONDS, { gain: 0.5 }), clipOf('d', 0, 8, SECONDS, { gain: 0.5 })],
      },
    ],
  };
  const crossed = applyEdit(two, crossfadeClip, { clip: 'c' }).piece;
  expect([clipIn(crossed).fadeOutSeconds, clipIn(crossed, 'd').fadeInSeconds]).toEqual([1, 1]);
  const out = heard(crossed, 9);
  const i = 4.25 * RATE;
  expect(out[i]).toBeCloseTo(0.5 * (plain[i]! * Math.cos(Math.PI / 8) + wave[0.25 * RATE]! * Math.sin(Math.PI / 8)), 4);
});

test('repeated past the end of the piece, it makes the piece go on to the end of its bar', () => {
  expect(applyEdit(whole.piece, repeatClip, { clip: 'c', every: 32, ids: ['r1', 'r2'] }).piece.lengthBeats).toBe(76);
});

test('repeated, it comes again at every so many beats', () => {
  const short = applyEdit(whole.piece, trimClip, { clip: 'c', side: 'end', beat: 4 }).piece;
  const out = heard(applyEdit(short, repeatClip, { clip: 'c', every: 3, ids: ['r1', 'r2'] }).piece);
  for (const n of [1, 2]) expect(away(out.subarray(FROM + n * 1.5 * RATE), out.subarray(FROM), 0, RATE)).toBe(0);
});

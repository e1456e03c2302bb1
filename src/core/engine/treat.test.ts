import { clipOf, hashOf, RATE, scene, soundOf } from '../piece/testing';
import * as fc from 'fast-check';
import { between } from '../testing';
import { treatSteps } from './treatSteps';
import { applyEdit } from '../piece/edit';
import { pieceSchema, type Clip, type Piece, type TreatStep } from '../piece/piece';
import { newSlot } from '../piece/edits/chain';
import { trimClip } from '../piece/edits/clipShape';
import { treatClips } from '../piece/edits/treat';

const MADE = hashOf(7);
const stretch = (times: number): TreatStep => ({
  kind: 'stretch',
  id: `s${times}`,
  on: true,
  times,
  semitones: 0,
  keepPitch: true,
  formants: 'keep',
  formantSemitones: 0,
});
const begin = (): Piece =>
  scene([soundOf(10, () => 0.1)], [{ clips: [clipOf('a', 0, 4, 2, { offsetSeconds: 3 })] }], { lengthBeats: 64 }).piece;
const soundOfSeconds = (seconds: number) => ({
  [MADE]: { name: 'made', frames: Math.round(seconds * RATE), sampleRate: RATE, channels: 2 as const },
});
const clip = (piece: Piece): Clip => piece.tracks[0]!.clips[0]!;
const treated = (piece: Piece, steps: TreatStep[], body: number, whole = body): Piece =>
  applyEdit(piece, treatClips, {
    steps,
    made: [{ clip: 'a', sound: steps.length > 0 ? MADE : hashOf(0), bodySeconds: body }],
    sounds: steps.length > 0 ? soundOfSeconds(whole) : {},
  }).piece;

test('a treated clip plays all that was made, tail and all; taking the steps off gives the very clip back', () => {
  const before = begin();
  const longer = treated(before, [stretch(2)], 4, 5.5);
  expect(clip(longer)).toMatchObject({
    sound: MADE,
    offsetSeconds: 0,
    lengthSeconds: 5.5,
    treated: { sound: hashOf(0), offsetSeconds: 3, lengthSeconds: 2, bodySeconds: 4 },
  });
  expect(clip(treated(longer, [], 2))).toEqual(clip(before));
});

test('what was trimmed after it was treated stays trimmed, at its share, when the steps change', () => {
  const trimmed = applyEdit(treated(begin(), [stretch(2)], 4), trimClip, { clip: 'a', side: 'start', beat: 6 }).piece;
  expect(clip(trimmed)).toMatchObject({ offsetSeconds: 1, lengthSeconds: 3 });
  const shorter = treated(trimmed, [stretch(0.5)], 1);
  expect(clip(shorter).offsetSeconds).toBeCloseTo(0.25, 6);
  expect(clip(shorter).lengthSeconds).toBeCloseTo(0.75, 6);
  const back = clip(treated(shorter, [], 2));
  expect([back.offsetSeconds, back.lengthSeconds]).toEqual([expect.closeTo(3.5, 6), expect.closeTo(1.5, 6)]);
});

test('with all of its sound treated a clip plays what it did, and its edges can be drawn out', () => {
  // Two of ten seconds, from the third on, at beat 4; treated to twice the length.
  const wide = (piece: Piece) =>
    applyEdit(piece, treatClips, {
      steps: [stretch(2)],
      made: [{ clip: 'a', sound: MADE, bodySeconds: 20, part: { offsetSeconds: 0, lengthSeconds: 10 } }],
      sounds: soundOfSeconds(21),
    }).piece;
  const first = wide(begin());
  expect(clip(first)).toMatchObject({
    start: 4,
    offsetSeconds: 6,
    lengthSeconds: 4,
    treated: { offsetSeconds: 0, lengthSeconds: 10, bodySeconds: 20 },
  });
  // From the part alone, tail and all, to the whole: what rang on gives way to what goes on.
  expect(clip(wide(treated(begin(), [stretch(2)], 4, 5.5)))).toMatchObject({ offsetSeconds: 6, lengthSeconds: 4 });
  const drawn = applyEdit(applyEdit(first, trimClip, { clip: 'a', side: 'end', beat: 16 }).piece, trimClip, {
    clip: 'a',
    side: 'start',
    beat: 2,
  }).piece;
  expect(clip(drawn)).toMatchObject({ start: 2, offsetSeconds: 5, lengthSeconds: 7 });
  // The steps taken off, it is the source again, drawn out as far.
  expect(clip(treated(drawn, [], 10))).toMatchObject({ sound: hashOf(0), offsetSeconds: 2.5, lengthSeconds: 3.5 });
});

test('whatever is done in whatever order, the clip stays within its sound, and the piece is valid', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ times: between(0.25, 4), tail: between(0, 3), trim: between(4, 12), off: fc.boolean() }), {
        minLength: 1,
        maxLength: 6,
      }),
      (acts) => {
        let piece = begin();
        for (const { times, tail, trim, off } of acts) {
          piece = off ? treated(piece, [], 2) : treated(piece, [stretch(times)], 2 * times, 2 * times + tail);
          piece = applyEdit(piece, trimClip, { clip: 'a', side: 'end', beat: trim }).piece;
          const now = clip(piece);
          const sound = piece.sounds[now.sound]!;
          expect(now.offsetSeconds + now.lengthSeconds).toBeLessThanOrEqual(sound.frames / sound.sampleRate + 1e-6);
          expect(pieceSchema.safeParse(piece).success).toBe(true);
        }
      },
    ),
    { numRuns: 60 },
  );
});

test('steps are done in their order, those that are off are passed over, and the tail is not part of the body', () => {
  const click = soundOf(1, (i) => (i === 100 ? 1 : 0));
  const echo: TreatStep = {
    kind: 'chain',
    id: 'e',
    on: true,
    name: 'Echo',
    rings: true,
    chain: [newSlot('x', 'echo', 'neutral', { timeL: 500, feedback: 0.5, balance: 'levels', dry: 1, wet: 1 })],
  };
  const run = (steps: TreatStep[]) =>
    treatSteps({ channels: [click], steps, sampleRate: RATE, bpm: 120, sounds: new Map() });
  const rung = run([echo]);
  expect([rung.bodyFrames, rung.channels[0]!.length > 2 * RATE]).toEqual([RATE, true]);
  expect(rung.channels[0]![100 + RATE / 2]).toBeCloseTo(1, 2);
  expect(run([{ ...echo, rings: false }]).channels[0]!.length).toBe(RATE);
  expect(run([{ ...echo, on: false }]).channels).toEqual([click]);
  // Echo, then half as long as on tape: the repeat comes after half the time. The other way round it keeps its time.
  const tape: TreatStep = { ...stretch(0.5), keepPitch: false } as TreatStep;
  const peakAt = (samples: Float32Array, from: number): number =>
    samples.reduce((best, x, i) => (i > from && Math.abs(x) > Math.abs(samples[best]!) ? i : best), from + 1);
  expect(peakAt(run([echo, tape]).channels[0]!, 8000)).toBeCloseTo(50 + RATE / 4, -1);
  expect(peakAt(run([tape, echo]).channels[0]!, 8000)).toBeCloseTo(50 + RATE / 2, -1);
});

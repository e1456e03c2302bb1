import { pieceSchema } from '../piece/piece';
import { peakOf } from '../analysis/levels';
import { loudness } from '../analysis/loudness';
import { compilePlan } from '../engine/compilePlan';
import { render } from '../engine/render';
import { beatsToSamples } from '../music/tempo';
import { makeSaltPier } from './saltPier';
import { chroma, heardParts, type Stereo } from './testing';

const RATE = 48_000;
const make = (): ReturnType<typeof makeSaltPier> => {
  let count = 0;
  return makeSaltPier(() => String((count += 1)).padStart(64, '0'));
};
const demo = make();
const at = (beat: number): number => beatsToSamples(beat, demo.piece.tempo, RATE);

const heard = (tracks: readonly string[] | null, fromBeat = 0, toBeat = 64): Stereo =>
  heardParts(demo, tracks, fromBeat, toBeat);

/** Dm Bb F C, Dm Gm Bb A, as pitch classes. */
const CHORDS = [
  [2, 5, 9],
  [10, 2, 5],
  [5, 9, 0],
  [0, 4, 7],
  [2, 5, 9],
  [7, 10, 2],
  [10, 2, 5],
  [9, 1, 4],
];

test('the same sounds come out every time', () => {
  expect(make().sounds.every((sound, i) => sound.bytes.every((byte, k) => byte === demo.sounds[i]!.bytes[k]))).toBe(
    true,
  );
});

test('in key: the kalimba’s and the bass’s strongest pitches belong to the chord of their bars', () => {
  const pluck = heard(['kalimba']).left;
  const bass = heard(['foghorn']).left;
  for (const chord of [0, 1, 2, 4, 5, 6]) {
    const energy = chroma(pluck, at(chord * 8), at(chord * 8 + 8), 57, 84);
    const inside = CHORDS[chord]!.reduce((sum, pitch) => sum + energy[pitch]!, 0);
    expect(inside / energy.reduce((a, b) => a + b, 0)).toBeGreaterThan(0.75);
    const low = chroma(bass, at(chord * 8), at(chord * 8 + 3), 33, 44);
    expect(low.indexOf(Math.max(...low))).toBe(CHORDS[chord]![0]);
  }
});

test('in time: crates strike on the sixteenths of 92 BPM', () => {
  const { left } = heard(['crates']);
  const frame = 240;
  const energy = Array.from({ length: Math.floor(left.length / frame) }, (_, i) =>
    left.subarray(i * frame, (i + 1) * frame).reduce((sum, x) => sum + x * x, 0),
  );
  const onsets = energy.flatMap((value, i) => (i > 0 && value > 0.05 && value > 6 * energy[i - 1]! ? [i * frame] : []));
  expect(onsets.length).toBeGreaterThan(60);
  const away = onsets.map((sample) => {
    const sixteenth = (sample / RATE) * (92 / 60) * 4;
    return (Math.abs(sixteenth - Math.round(sixteenth)) / 4) * (60 / 92);
  });
  expect(Math.max(...away)).toBeLessThan(0.012);
});

test('balanced: no part drowns another, the whole is neither faint nor held by the limiter', () => {
  const parts = demo.piece.tracks.map((track) => {
    const { left, right } = heard([track.id]);
    return loudness([left, right], RATE).integrated;
  });
  const [pluck, voice, wood, bass, shore] = parts as [number, number, number, number, number];
  for (const part of [pluck, voice, wood, bass]) expect(Math.abs(part - voice)).toBeLessThan(7);
  expect(shore).toBeLessThan(voice - 3);
  const { left, right } = heard(null);
  expect(loudness([left, right], RATE).integrated).toBeGreaterThan(-23);
  expect(Math.max(peakOf(left), peakOf(right))).toBeLessThan(0.95);
});

test('with gaps: the voice leaves at least half of the bars, and the last two beats hold only the shore', () => {
  const voice = heard(['hum']).left;
  const sounding = Array.from(
    { length: 16 },
    (_, bar) => peakOf(voice.subarray(at(bar * 4), at(bar * 4 + 4))) > 0.02,
  ).filter(Boolean).length;
  expect(sounding).toBeLessThanOrEqual(9);
  expect(peakOf(heard(['kalimba', 'hum', 'crates', 'foghorn'], 62, 64).left)).toBeLessThan(0.01);
});

test('the demo is a valid piece', () => {
  let count = 0;
  const { piece } = makeSaltPier(() => String((count += 1)).padStart(64, '0'));
  expect(pieceSchema.safeParse(piece).error).toBeUndefined();
});

test('the holds and the field on the main output are asleep: to the bit it sounds as without them', () => {
  const sounds = new Map(demo.sounds.map((sound) => [sound.hash, sound.channels]));
  const played = (piece: typeof demo.piece): Float32Array =>
    render({
      plan: compilePlan(piece),
      sounds,
      fromSample: at(8),
      toSample: at(24),
      tail: { kind: 'seconds', seconds: 0 },
    })!.left;
  expect(demo.piece.main.chain).toHaveLength(5);
  expect(demo.piece.fields).toHaveLength(1);
  const asleep = played(demo.piece);
  const without = played({ ...demo.piece, main: { ...demo.piece.main, chain: [] }, fields: [] });
  expect(asleep.reduce((most, x, i) => Math.max(most, Math.abs(x - without[i]!)), 0)).toBe(0);
});

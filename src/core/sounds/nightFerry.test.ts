import { loudness } from '../analysis/loudness';
import { peakOf } from '../analysis/levels';
import { findOnsets } from '../analysis/onsets';
import { beatsToSamples } from '../music/tempo';
import { pieceSchema } from '../piece/piece';
import { makeNightFerry, nightFerryStrokes } from './nightFerry';
import { chroma, heardParts } from './testing';

const RATE = 48_000;
const BPM = 118;
let count = 0;
const demo = makeNightFerry(() => String((count += 1)).padStart(64, '0'));
const at = (beat: number): number => beatsToSamples(beat, demo.piece.tempo, RATE);

/** Em9, Em9, C maj7, C maj9, G maj9, D9 over F sharp, Am7 and B7 as pitch classes, the bass first: a bar each. */
const CHORDS = [
  [4, 7, 11, 2, 6],
  [4, 7, 11, 2, 6],
  [0, 4, 7, 11],
  [0, 4, 7, 11, 2],
  [7, 11, 2, 6, 9],
  [6, 9, 2, 4],
  [9, 0, 4, 7],
  [11, 3, 6, 9],
];

test('it is a valid piece of forty-eight bars of six eighths, with a section where each part of it begins', () => {
  expect(pieceSchema.safeParse(demo.piece).error).toBeUndefined();
  const { tempo, lengthBeats, sections } = demo.piece;
  expect([tempo, lengthBeats / tempo.beatsPerBar]).toEqual([{ bpm: BPM, beatsPerBar: 3, unit: 8 }, 48]);
  expect(sections!.map(({ name, beat }) => `${name} ${beat / 3 + 1}`)).toEqual([
    'Cast off 1',
    'Crossing 9',
    'Open water 25',
    'Lights ahead 33',
    'Alongside 41',
  ]);
});

test('in key: in every bar the left hand is its chord, under it its bass', () => {
  const { left: hand } = heardParts(demo, ['left-hand'], 0, 24);
  const { left: bass } = heardParts(demo, ['bass'], 72, 96);
  CHORDS.forEach((chord, bar) => {
    const energy = chroma(hand, at(3 * bar), at(3 * bar + 2.5), 45, 76);
    const inside = chord.reduce((sum, pitch) => sum + energy[pitch]!, 0);
    expect([bar, inside / energy.reduce((a, b) => a + b, 0) > 0.85]).toEqual([bar, true]);
    const low = chroma(bass, at(3 * bar), at(3 * bar + 2.5), 33, 47);
    expect([bar, low.indexOf(Math.max(...low))]).toEqual([bar, chord[0]]);
  });
});

test('in time: what the drums strike is where they are written, within 10 ms', () => {
  const { left } = heardParts(demo, ['drums'], 24, 48);
  const written = [...new Set(nightFerryStrokes().map(({ beat }) => beat))].map((beat) => (beat * 60) / BPM);
  const found = findOnsets(left, RATE);
  expect(found.length).toBeGreaterThan(30);
  for (const { seconds } of found)
    expect(Math.min(...written.map((one) => Math.abs(one - seconds)))).toBeLessThan(0.01);
});

test('balanced: no part drowns another, and nothing is held by the limiter', () => {
  const parts = demo.piece.tracks.map(({ id }) => {
    const { left, right } = heardParts(demo, [id], 96, 120);
    return loudness([left, right], RATE).integrated;
  });
  expect(Math.max(...parts) - Math.min(...parts)).toBeLessThan(6);
  const { left, right } = heardParts(demo, null, 96, 120);
  expect(loudness([left, right], RATE).integrated).toBeGreaterThan(-18);
  expect(Math.max(peakOf(left), peakOf(right))).toBeLessThan(0.93);
});

test('it has a shape: quiet at first, full in the crossing and at the lights, thin on open water, and it ends', () => {
  const levelOf = (from: number, to: number): number => {
    const { left, right } = heardParts(demo, null, 3 * from, 3 * to);
    return loudness([left, right], RATE).integrated;
  };
  const crossing = levelOf(16, 24);
  expect(levelOf(0, 4)).toBeLessThan(crossing - 4);
  expect(levelOf(24, 32)).toBeLessThan(crossing);
  expect(levelOf(32, 40)).toBeCloseTo(crossing, 0);
  expect(peakOf(heardParts(demo, ['drums'], 72, 96).left)).toBe(0);
  const { left: end } = heardParts(demo, null, 143.9, 144);
  expect(peakOf(end)).toBeLessThan(0.1);
});

test('it is made to be played: holds, a field, and a throw of every track into both returns, all asleep', () => {
  const { main, fields, returns, tracks } = demo.piece;
  expect(main.chain.map(({ effect }) => effect)).toEqual([
    'stutter',
    'tapeStop',
    'backwards',
    'cloud',
    'reorder',
    'chop',
    'filter',
  ]);
  expect([fields!.length, returns.length]).toEqual([1, 2]);
  for (const { sends } of tracks)
    expect(sends.map(({ to, level }) => [to, level])).toEqual(returns.map(({ id }) => [id, 0]));
  const plain = { ...demo, piece: { ...demo.piece, main: { ...main, chain: [] }, fields: [] } };
  const asleep = heardParts(demo, null, 24, 30).left;
  const without = heardParts(plain, null, 24, 30).left;
  expect(asleep.reduce((most, x, i) => Math.max(most, Math.abs(x - without[i]!)), 0)).toBe(0);
});

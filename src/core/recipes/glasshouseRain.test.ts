import { truePeakOf } from '../analysis/levels';
import { loudness } from '../analysis/loudness';
import { compilePlan } from '../engine/compilePlan';
import { render } from '../engine/render';
import { pieceSchema } from '../piece/piece';
import { chroma } from '../sounds/testing';
import { makeGlasshouseRain } from './glasshouseRain';

let made = 0;
const demo = makeGlasshouseRain(() => String((made += 1)).padStart(64, '0'));
const { piece } = demo;
const sounds = new Map(demo.sounds.map(({ hash, channels }) => [hash, channels]));
const RATE = piece.sampleRate;
const SECONDS = 180;

const heard = (tracks: readonly string[] | null, from: number, to: number) =>
  render({
    plan: compilePlan({
      ...piece,
      // Tracks that are muted would be computed all the same.
      tracks: piece.tracks.filter(({ name }) => tracks === null || tracks.includes(name)),
    }),
    sounds,
    fromSample: from * RATE,
    toSample: to * RATE,
    tail: { kind: 'seconds', seconds: 0 },
  })!;

test('it is three minutes at 60 BPM, valid, in five sections, with what recipes made as ordinary tracks and moves', () => {
  expect(pieceSchema.parse(piece)).toEqual(piece);
  expect([piece.tempo.bpm, piece.lengthBeats, piece.sections!.length]).toEqual([60, SECONDS, 5]);
  const names = piece.tracks.map(({ name }) => name);
  for (const name of ['Bed of Gardener', 'Bed of Gardener 2', 'Bed of Gardener 3', 'Seedling tines, swells'])
    expect(names).toContain(name);
  expect(names.filter((name) => name.startsWith('Loop of'))).toHaveLength(1);
  expect(piece.lanes.length).toBeGreaterThan(0);
  expect(piece.tracks.find(({ name }) => name === 'Seedling tines, swells')!.clips.length).toBeGreaterThan(2);
});

test('it never falls silent, and stays quiet enough to have room', () => {
  const { left, right } = heard(null, 0, SECONDS);
  expect(loudness([left, right], RATE).integrated).toBeGreaterThan(-24);
  expect(loudness([left, right], RATE).integrated).toBeLessThan(-16);
  expect(20 * Math.log10(Math.max(truePeakOf(left), truePeakOf(right)))).toBeLessThan(-1);
  for (let at = 0; at < SECONDS; at += 10) {
    const part = [left, right].map((side) => side.subarray(at * RATE, (at + 10) * RATE));
    const { integrated } = loudness(part, RATE);
    expect([at, integrated > -28 && integrated < -14]).toEqual([at, true]);
  }
});

test('it rains hardest in "Hard rain", and the tines go round', () => {
  const power = (from: number, to: number): number => {
    const { left, right } = heard(['Rain on glass'], from, to);
    return loudness([left, right], RATE).integrated;
  };
  expect(power(112, 122)).toBeGreaterThan(power(10, 20) + 3);
  const sides = Array.from({ length: 8 }, (_, i) => {
    const { left, right } = heard(['Seedling tines'], 2 * i, 2 * i + 2);
    const rms = (x: Float32Array): number => Math.sqrt(x.reduce((sum, y) => sum + y * y, 0) / x.length);
    return 20 * Math.log10(rms(left) / rms(right));
  });
  expect(Math.max(...sides) - Math.min(...sides)).toBeGreaterThan(2.5);
});

test('the pipes stand on the chord of their section', () => {
  // D in the first, B flat in the second, F over A in the third.
  const { left } = heard(['Heating pipes'], 0, 84);
  const strongest = (from: number): number => {
    const found = chroma(left, from * RATE, (from + 4) * RATE, 33, 60);
    return found.indexOf(Math.max(...found));
  };
  expect(strongest(4)).toBe(2);
  expect(strongest(40)).toBe(10);
});

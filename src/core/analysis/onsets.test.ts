import { makeRandom } from '../dsp/random';
import { findOnsets } from './onsets';

const RATE = 48_000;

/** Hits of noise or tone that decay, at given seconds and levels, over a floor of hiss. */
function hits(list: readonly { at: number; level: number; hz?: number }[], seconds: number, hiss = 0.0003): Float32Array {
  const random = makeRandom(9);
  const out = Float32Array.from({ length: seconds * RATE }, () => hiss * (random() * 2 - 1));
  for (const { at, level, hz } of list) {
    const from = Math.round(at * RATE);
    for (let i = 0; i < 0.25 * RATE && from + i < out.length; i += 1) {
      const source = hz ? Math.cos((2 * Math.PI * hz * i) / RATE) : random() * 2 - 1;
      out[from + i] = out[from + i]! + level * Math.exp((-18 * i) / RATE) * source;
    }
  }
  return out;
}

test('hits are found within 5 ms of where they were put, loud and quiet, with their strength', () => {
  const list = [{ at: 0.2, level: 0.8 }, { at: 0.55, level: 0.2 }, { at: 0.71, level: 0.6 }, { at: 1.5, level: 0.4 }, { at: 2.31, level: 0.8 }];
  const found = findOnsets(hits(list, 3), RATE);
  expect(found).toHaveLength(list.length);
  found.forEach(({ seconds, strength }, i) => {
    expect(Math.abs(seconds - list[i]!.at)).toBeLessThan(0.005);
    expect(Math.abs(strength - list[i]!.level / 0.8)).toBeLessThan(0.15);
  });
});

test('a low hit and a bright one are told apart', () => {
  const found = findOnsets(hits([{ at: 0.3, level: 0.7, hz: 90 }, { at: 0.9, level: 0.5 }, { at: 1.5, level: 0.7, hz: 90 }], 2), RATE);
  expect(found.map(({ centroidHz }) => (centroidHz > 2000 ? 'bright' : 'low'))).toEqual(['low', 'bright', 'low']);
});

test('a tone that stands, and silence, have no hits after their beginning', () => {
  expect(findOnsets(new Float32Array(RATE), RATE)).toEqual([]);
  const tone = Float32Array.from({ length: 2 * RATE }, (_, i) => 0.5 * Math.sin((2 * Math.PI * 220 * i) / RATE));
  expect(findOnsets(tone, RATE).filter(({ seconds }) => seconds > 0.05 && seconds < 1.9)).toEqual([]);
});

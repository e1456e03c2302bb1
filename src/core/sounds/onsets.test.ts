import { makeRandom } from '../dsp/random';
import { makeSaltPier, saltPierOnsets } from './saltPier';
import { findOnsets } from '../analysis/onsets';

const RATE = 48_000;

/** Hits of noise or tone that decay, at given seconds and levels, over a floor of hiss. */
function hits(
  list: readonly { at: number; level: number; hz?: number }[],
  seconds: number,
  hiss = 0.0003,
): Float32Array {
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
  const list = [
    { at: 0.2, level: 0.8 },
    { at: 0.55, level: 0.2 },
    { at: 0.71, level: 0.6 },
    { at: 1.5, level: 0.4 },
    { at: 2.31, level: 0.8 },
  ];
  const found = findOnsets(hits(list, 3), RATE);
  expect(found).toHaveLength(list.length);
  found.forEach(({ seconds, strength }, i) => {
    expect(Math.abs(seconds - list[i]!.at)).toBeLessThan(0.005);
    expect(Math.abs(strength - Math.pow(list[i]!.level / 0.8, 0.6))).toBeLessThan(0.15);
  });
});

test('a low hit and a bright one are told apart', () => {
  const found = findOnsets(
    hits(
      [
        { at: 0.3, level: 0.7, hz: 90 },
        { at: 0.9, level: 0.5 },
        { at: 1.5, level: 0.7, hz: 90 },
      ],
      2,
    ),
    RATE,
  );
  expect(found.map(({ centroidHz }) => (centroidHz > 2000 ? 'bright' : 'low'))).toEqual(['low', 'bright', 'low']);
});

test('a tone that stands, and silence, have no hits after their beginning', () => {
  expect(findOnsets(new Float32Array(RATE), RATE)).toEqual([]);
  const tone = Float32Array.from({ length: 2 * RATE }, (_, i) => 0.5 * Math.sin((2 * Math.PI * 220 * i) / RATE));
  expect(findOnsets(tone, RATE).filter(({ seconds }) => seconds > 0.05 && seconds < 1.9)).toEqual([]);
});

/** Share of what should be found and was, and of what was found and should be, as one figure: their harmonic mean. */
function fMeasure(truth: readonly number[], found: readonly number[], within: number): number {
  const left = [...found];
  let hit = 0;
  for (const at of truth) {
    const near = left.reduce(
      (best, seconds, i) =>
        Math.abs(seconds - at) <= within && (best < 0 || Math.abs(seconds - at) < Math.abs(left[best]! - at))
          ? i
          : best,
      -1,
    );
    if (near < 0) continue;
    left.splice(near, 1);
    hit += 1;
  }
  return (2 * hit) / (truth.length + found.length);
}

describe('against the scores of the demo, of which all is synthesised', () => {
  let count = 0;
  const { piece, sounds } = makeSaltPier(() => String((count += 1)).padStart(64, '0'));
  const truth = saltPierOnsets();
  const named = sounds.flatMap(({ hash, channels }) =>
    truth.has(piece.sounds[hash]!.name) ? [[piece.sounds[hash]!.name, channels] as const] : [],
  );

  test.each(named)('%s', (name, channels) => {
    const [left, right = left] = channels;
    const found = findOnsets(
      left!.map((x, i) => 0.5 * (x + right![i]!)),
      RATE,
    ).map(({ seconds }) => seconds);
    expect(fMeasure(truth.get(name)!, found, 0.025)).toBeGreaterThanOrEqual(name.startsWith('Hum') ? 0.85 : 0.95);
  });

  test('every part that is plucked, struck or sung was looked at', () => expect(named).toHaveLength(truth.size));
});

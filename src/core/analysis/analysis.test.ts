import { kHighPass, kShelf } from './kWeighting';
import { peakRow, rmsOf } from './levels';
import { loudness } from './loudness';
import { mergeTaps, tapList } from './tapList';

const RATE = 48_000;
const tone = (hz: number, dbfs: number, seconds: number, rate = RATE): Float32Array =>
  Float32Array.from(
    { length: Math.round(seconds * rate) },
    (_, i) => Math.pow(10, dbfs / 20) * Math.sin((2 * Math.PI * hz * i) / rate),
  );
const join = (...parts: Float32Array[]): Float32Array => Float32Array.from(parts.flatMap((part) => Array.from(part)));

describe('loudness by BS.1770', () => {
  test('the weighting has the coefficients that the standard prints for 48 kHz', () => {
    const shelf = kShelf(RATE);
    expect([shelf.b0, shelf.b1, shelf.b2, shelf.a1, shelf.a2].map((x) => x.toFixed(8))).toEqual([
      '1.53512486',
      '-2.69169619',
      '1.19839281',
      '-1.69065929',
      '0.73248077',
    ]);
    expect(kHighPass(RATE).a1).toBeCloseTo(-1.99004745, 7);
    expect(kHighPass(RATE).a2).toBeCloseTo(0.99007225, 7);
  });

  test.each([44_100, 48_000, 96_000])(
    'a stereo tone of 1 kHz at -23 dBFS is -23 LUFS at %d Hz (EBU Tech 3341, case 1)',
    (rate) => {
      const side = tone(1000, -23, 10, rate);
      expect(loudness([side, side], rate).integrated).toBeCloseTo(-23, 1);
    },
  );

  test('one channel of 997 Hz at full scale is -3.01 LUFS', () => {
    expect(loudness([tone(997, 0, 5)], RATE).integrated).toBeCloseTo(-3.01, 1);
  });

  test('quiet stretches are gated away (EBU Tech 3341, case 3)', () => {
    const side = join(tone(1000, -36, 10), tone(1000, -23, 30), tone(1000, -36, 10));
    expect(Math.abs(loudness([side, side], RATE).integrated + 23)).toBeLessThan(0.1);
  });

  test('silence has none', () => {
    expect(loudness([new Float32Array(RATE)], RATE).integrated).toBe(-Infinity);
  });
});

test('peaks and RMS', () => {
  expect(rmsOf(tone(1000, 0, 1))).toBeCloseTo(Math.SQRT1_2, 4);
  expect(Array.from(peakRow([Float32Array.of(0.1, -0.5, 0.2), Float32Array.of(0, 0.25, -0.75)], 2))).toEqual([
    0.5, 0.75,
  ]);
});

describe('tap list', () => {
  test('finds each arrival with its place, side and brightness', () => {
    const left = new Float64Array(RATE);
    const right = new Float64Array(RATE);
    left[4800] = 0.5;
    right[9600] = -0.25;
    for (let i = 0; i < 12; i += 1) left[24_000 + i] = 0.1;
    const taps = tapList(left, right, RATE, 0.002);
    expect(taps.map((tap) => Math.round(tap.seconds * 1e4))).toEqual([1000, 2000, 5001]);
    expect([taps[0]!.left, taps[0]!.right, taps[1]!.right]).toEqual([0.5, 0, 0.25]);
    expect(taps[2]!.brightnessHz).toBeLessThan(taps[0]!.brightnessHz / 2);
  });

  test('near ones are put together at their common centre', () => {
    const tap = (
      seconds: number,
      left: number,
    ): { seconds: number; left: number; right: number; brightnessHz: number } => ({
      seconds,
      left,
      right: 0,
      brightnessHz: 1000,
    });
    const [first, ...rest] = mergeTaps([tap(0.1, 3), tap(0.11, 4)], 0.02);
    expect(rest).toEqual([]);
    expect(first!.left).toBe(5);
    expect(first!.seconds).toBeCloseTo(0.1064, 6);
  });
});

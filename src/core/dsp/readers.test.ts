import * as fc from 'fast-check';
import { between } from '../testing';
import FFT from 'fft.js';
import { Diffuser } from './diffuser';
import { FastTransform } from './fastTransform';
import { makeRandom } from './random';
import { SincRings } from './sincRings';

const SIZE = 4096;
const run = (of: (i: number) => number, length = SIZE): Float64Array => Float64Array.from({ length }, (_, i) => of(i));

describe('rings that are read between their samples', () => {
  const rings = [true, false].map((withKernel) => new SincRings(SIZE, withKernel));
  const random = makeRandom(3);
  const [left, right] = [run(() => random() - 0.5), run(() => random() - 0.5)];
  for (const ring of rings) ring.write(0, left, right, SIZE);

  test('the kernel and its TypeScript reference agree, anywhere, at any speed, over the seam', () => {
    const [fast, plain] = rings as [SincRings, SincRings];
    fc.assert(
      fc.property(
        between(-9000, 9000),
        between(-4, 4),
        between(-0.01, 0.01),
        fc.integer({ min: 0, max: 40 }),
        fc.integer({ min: 41, max: 128 }),
        (start, speed, growth, from, to) => {
          for (const ring of [fast, plain]) {
            ring.outLeft.fill(7);
            ring.outRight.fill(7);
            ring.read(start, speed, growth, from, to);
          }
          for (let i = 0; i < 128; i += 1) {
            const away = Math.max(
              Math.abs(fast.outLeft[i]! - plain.outLeft[i]!),
              Math.abs(fast.outRight[i]! - plain.outRight[i]!),
            );
            if (away > 2e-6 || ((i < from || i >= to) && fast.outLeft[i] !== 7)) return false;
          }
          return true;
        },
      ),
    );
  });

  test('at integer positions and speeds samples are copied, in the kernel and in TypeScript', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -9000, max: 9000 }),
        fc.integer({ min: -3, max: 3 }),
        fc.integer({ min: 0, max: 40 }),
        fc.constantFrom(...rings),
        (start, speed, from, ring) => {
          ring.read(start, speed, 0, from, 128);
          const place = (i: number): number => (((start + (i - from) * speed) % SIZE) + SIZE) % SIZE;
          for (let i = from; i < 128; i += 1)
            if (ring.outLeft[i] !== Math.fround(left[place(i)]!) || ring.outRight[i] !== Math.fround(right[place(i)]!))
              return false;
          return true;
        },
      ),
    );
  });

  test.each([
    [0.01, -100],
    [0.2, -70],
    [0.3, -55],
  ])('a tone of %d of the rate is read as it is between the samples, %d dB', (share, floor) => {
    const tone = (place: number): number => Math.sin(2 * Math.PI * share * place);
    const ring = new SincRings(SIZE);
    ring.write(
      0,
      run(tone),
      run((i) => -tone(i)),
      SIZE,
    );
    let most = 0;
    for (let n = 0; n < 20; n += 1) {
      const start = 100 + 150 * n + n / 7;
      ring.read(start, 0.83, 0, 0, 128);
      for (let i = 0; i < 128; i += 1) {
        // The nearest of 2048 phases is at most a 4096th of a sample off; a tone moves by its angle in that time.
        const off = (2 * Math.PI * share) / 4096 + 10 ** (floor / 20);
        most = Math.max(
          most,
          Math.abs(ring.outLeft[i]! - tone(start + 0.83 * i)) / off,
          Math.abs(ring.outLeft[i]! + ring.outRight[i]!),
        );
      }
    }
    expect(most).toBeLessThan(1);
  });

  test('what is laid adds up, and what is fresh takes the place of what was there, over the seam too', () => {
    const ring = new SincRings(1024);
    const ones = run(() => 1, 600);
    ring.write(
      0,
      run(() => 5, 1024),
      run(() => 5, 1024),
      1024,
    );
    ring.overlapAdd(800, ones, ones, 400, 300, 0.5);
    expect([799, 800, 899, 900, 1023, 1024, 1199, 1200].map((place) => ring.monoAt(place))).toEqual([
      10, 11, 11, 1, 1, 1, 1, 10,
    ]);
    // Read across the seam it is the same even level; the sixteen points sum to one.
    ring.read(1010, 1.3, 0, 0, 16);
    for (let i = 0; i < 16; i += 1) expect(ring.outLeft[i]).toBeCloseTo(0.5, 5);
  });
});

test.each([16, 512, 2048, 4096])('a transform of %d agrees with another library’s, there and back', (size) => {
  const random = makeRandom(size);
  const values = Array.from({ length: 2 * size }, () => random() - 0.5);
  const fft = new FFT(size);
  const spectrum = fft.createComplexArray();
  fft.transform(spectrum, values);
  for (const withKernel of [true, false]) {
    const transform = new FastTransform(size, withKernel);
    for (let i = 0; i < size; i += 1) {
      transform.re[i] = values[2 * i]!;
      transform.im[i] = values[2 * i + 1]!;
    }
    transform.forward();
    const off = (wanted: readonly number[], scale: number): number => {
      let most = 0;
      for (let i = 0; i < size; i += 1)
        most = Math.max(
          most,
          Math.abs(scale * transform.re[i]! - wanted[2 * i]!),
          Math.abs(scale * transform.im[i]! - wanted[2 * i + 1]!),
        );
      return most;
    };
    expect(off(spectrum, 1)).toBeLessThan(2e-6 * size ** 0.5 * 4);
    transform.inverse();
    expect(off(values, 1 / size)).toBeLessThan(2e-6);
  }
});

test('the diffuser’s kernel and its TypeScript reference agree, in runs of any length, with gains that turn', () => {
  const [fast, plain] = [
    new Diffuser(48_000, { memory: new WebAssembly.Memory({ initial: 8 }), at: 65_552 }),
    new Diffuser(48_000),
  ];
  const random = makeRandom(8);
  let [blend, most, loudest] = [0, 0, 0];
  for (let run = 0; run < 400; run += 1) {
    const n = 1 + Math.floor(64 * random());
    const io = Float64Array.from({ length: 64 }, () => (run < 300 ? random() - 0.5 : 0));
    const other = io.slice();
    const next = random();
    const difference = 0.5 * random();
    fast.process(io, n, blend, next, difference);
    plain.process(other, n, blend, next, difference);
    blend = next;
    io.forEach((x, i) => {
      most = Math.max(most, Math.abs(x - other[i]!));
      loudest = Math.max(loudest, Math.abs(x));
    });
    if (run === 200) for (const one of [fast, plain]) one.skipBlock();
  }
  expect(loudest).toBeGreaterThan(0.3);
  expect(most).toBeLessThan(1e-12);
});

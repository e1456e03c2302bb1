import { sinTurns, tanhRational } from './approx';
import { DelayLine } from './delayLine';
import { Diffuser } from './diffuser';
import { DRIVE_KINDS, saturate, shapedAt } from './saturate';
import { PeakGuard } from './peakGuard';
import { resample } from './resample';

const N = 64;

/** Feeds a sine through a line and gives the largest error against the sine at its exact delay. */
function worstError(cyclesPerSample: number, delayAt: (i: number) => number, moving: boolean): number {
  const line = new DelayLine(2000, N);
  const wave = (i: number): number => Math.sin(2 * Math.PI * cyclesPerSample * i);
  const block = new Float64Array(N);
  const delays = new Float64Array(N);
  const out = new Float64Array(N);
  let worst = 0;
  for (let at = 0; at < 8000; at += N) {
    for (let i = 0; i < N; i += 1) {
      block[i] = wave(at + i);
      delays[i] = delayAt(at + i);
    }
    if (moving) line.readMoving(delays, N, out);
    else line.readFixed(delays[0]!, N, out);
    line.write(block, N);
    for (let i = 0; i < N; i += 1)
      if (at > 2000) worst = Math.max(worst, Math.abs(out[i]! - wave(at + i - delays[i]!)));
  }
  return worst;
}

describe('fractional delay', () => {
  test.each([100, 100.5, 333.3, 1234.567])(
    'a delay of %d samples is true within -75 dB up to 0.3 of the sample rate',
    (delay) => {
      for (const frequency of [0.01, 0.1, 0.2, 0.3])
        expect(worstError(frequency, () => delay, false)).toBeLessThan(1.8e-4);
    },
  );

  test('whole delays are exact to single precision', () => {
    expect(worstError(0.1, () => 777, false)).toBeLessThan(1e-7);
  });

  test('a moving delay is true within -75 dB', () => {
    expect(worstError(0.1, (i) => 500 + 200 * Math.sin(i / 700), true)).toBeLessThan(1.8e-4);
  });
});

test('sine and tanh without the platform’s own are as near as they say', () => {
  let sine = 0;
  let tanh = 0;
  for (let x = -7; x < 7; x += 0.00137) {
    sine = Math.max(sine, Math.abs(sinTurns(x) - Math.sin(2 * Math.PI * x)));
    tanh = Math.max(tanh, Math.abs(tanhRational(x) - Math.tanh(x)));
  }
  expect(sine).toBeLessThan(4e-6);
  expect(tanh).toBeLessThan(1.1e-4);
});

test.each(DRIVE_KINDS.map((kind, i) => [kind, i] as const))(
  '%s shapes the same at a drive that stands as sample by sample',
  (_kind, index) => {
    const input = Float64Array.from({ length: 64 }, (_, i) => (i - 32) / 12);
    for (const drive of [1.122, 2, 12]) {
      const out = new Float64Array(64);
      saturate(input, out, 64, index, drive, drive);
      input.forEach((x, i) => expect(out[i]).toBeCloseTo(shapedAt(x, index, drive), 12));
    }
  },
);

test('the diffuser has unit gain at every frequency', () => {
  const diffuser = new Diffuser(48_000);
  const response: number[] = [];
  const io = new Float64Array(N);
  // Its first run is let in gently.
  diffuser.process(io, N, 1, 1, 0);
  for (let at = 0; at < 48_000; at += N) {
    io.fill(0);
    if (at === 0) io[0] = 1;
    diffuser.process(io, N, 1, 1, 0);
    response.push(...io);
  }
  for (const hz of [50, 440, 3000, 15_000]) {
    let re = 0;
    let im = 0;
    response.forEach((x, i) => {
      re += x * Math.cos((2 * Math.PI * hz * i) / 48_000);
      im += x * Math.sin((2 * Math.PI * hz * i) / 48_000);
    });
    expect(Math.hypot(re, im)).toBeCloseTo(1, 3);
  }
});

test('saturation leaves every bit alone without drive and never expands', () => {
  const x = Float64Array.from({ length: N }, (_, i) => (i - 32) / 20);
  const out = new Float64Array(N);
  for (let kind = 0; kind < 4; kind += 1) {
    saturate(x, out, N, kind, 1, 1);
    expect(Array.from(out)).toEqual(Array.from(x));
    saturate(x, out, N, kind, 4, 4);
    out.forEach((y, i) => expect(Math.abs(y)).toBeLessThanOrEqual(Math.abs(x[i]!) + 1e-12));
  }
});

test('the guard holds a runaway exactly at its ceiling and changes no bit below it', () => {
  const guard = new PeakGuard(1, 0.1, 48_000);
  const quiet = Float64Array.from({ length: N }, (_, i) => Math.sin(i) * 0.9);
  const left = Float64Array.from(quiet);
  guard.process(left, Float64Array.from(quiet), N);
  expect(left).toEqual(quiet);
  const loud = Float64Array.from({ length: N }, (_, i) => Math.sin(i) * 40);
  guard.process(loud, Float64Array.from(loud), N);
  expect(Math.max(...loud.map(Math.abs))).toBeLessThanOrEqual(1 + 1e-12);
  expect(guard.takeLowest()).toBeLessThan(0.03);
});

describe('resampling', () => {
  test.each([
    [44_100, 48_000],
    [96_000, 48_000],
    [48_000, 44_100],
  ])('%d to %d Hz keeps a sine within -80 dB', (from, to) => {
    const input = Float32Array.from({ length: from / 4 }, (_, i) => Math.sin((2 * Math.PI * 1000 * i) / from));
    const out = resample(input, from, to);
    expect(out.length).toBe(to / 4);
    let worst = 0;
    for (let i = 500; i < out.length - 500; i += 1)
      worst = Math.max(worst, Math.abs(out[i]! - Math.sin((2 * Math.PI * 1000 * i) / to)));
    expect(worst).toBeLessThan(1e-4);
  });

  test('what lies above the lower Nyquist frequency does not fold back', () => {
    const input = Float32Array.from({ length: 24_000 }, (_, i) => Math.sin((2 * Math.PI * 30_000 * i) / 96_000));
    expect(Math.max(...resample(input, 96_000, 48_000).slice(500, -500).map(Math.abs))).toBeLessThan(1e-4);
  });
});

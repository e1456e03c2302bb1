import { STEP_FRAMES } from '../dsp/blocks';
import { effectOf } from '../effects/catalogue';
import { worst, type Accuracy } from './measure';
import { toneHz } from './repeats';
import { ODD_TEMPI, runTimed, type TimedRun, type Values, type Wave } from './runTimed';

interface Held extends TimedRun {
  /** Samples at which `held` is switched on and off. */
  readonly from: number;
  readonly to?: number;
}

/** The left side of a neutral hold with some values named, while it is held. */
function runHeld({ from, to = Infinity, ...run }: Held): Float64Array {
  const held = effectOf(run.effect).paramIds.indexOf('held');
  return runTimed(run, (processor, row, at) => {
    const on = from < at + STEP_FRAMES && to >= at + STEP_FRAMES;
    const changes = on !== row[held]! >= 0.5;
    row[held] = on ? 1 : 0;
    processor.setSwitchOffset!(changes ? Math.max(0, (on ? from : to) - at) : 0);
  });
}

const SLOPE = 1e-6;
const FROM = 60_017;
/** A test signal that encodes the position of every sample, most precisely near the start of the hold. */
const ramp: Wave = (i) => (i - FROM) * SLOPE;
const placeOf = (x: number): number => x / SLOPE + FROM;
const noise: Wave = (i) => 0.4 * Math.sin(i * i * 0.0007);
const tone =
  (hz: number): Wave =>
  (i, rate) =>
    0.4 * Math.sin((2 * Math.PI * hz * i) / rate);

/** Deviation of a hold's read positions from the expected ones, without crossfades. */
function placesOff(
  effect: string,
  values: Values,
  note: number,
  wanted: (n: number, turn: number, frames: number) => number,
): number {
  return worst(
    ODD_TEMPI.flatMap(({ sampleRate, bpm }) => {
      const frames = (note * 60 * sampleRate) / bpm;
      const out = runHeld({
        effect,
        values,
        input: ramp,
        sampleRate,
        bpm,
        seconds: (FROM + 4 * frames) / sampleRate,
        from: FROM,
      });
      const off: number[] = [];
      for (let i = FROM + 2; i < FROM + 3.9 * frames; i += 53) {
        const turn = Math.floor((i - FROM) / frames);
        const n = i - FROM - turn * frames;
        if (n > 0.002 * sampleRate && n < frames - 2) off.push(placeOf(out[i]!) - wanted(n, turn, frames));
      }
      return off;
    }),
  );
}

/** Samples by which a hold is heard before its line, or after the fades of a neutral one. */
function linesOff(effect: string, values: Values): number {
  return worst(
    ODD_TEMPI.flatMap(({ sampleRate, bpm }) => {
      const line = (k: number): number => Math.round((k * 0.25 * 60 * sampleRate) / bpm);
      const next = (sample: number): number => {
        let k = 0;
        while (line(k) < sample) k += 1;
        return line(k);
      };
      const [from, to] = [FROM, FROM + Math.round(0.7 * sampleRate)];
      const grid = { startsOn: '1/16', endsOn: '1/16', heard: 'whileHeld' };
      const seconds = to / sampleRate + 0.5;
      const out = runHeld({ effect, values: { ...values, ...grid }, input: noise, sampleRate, bpm, seconds, from, to });
      const first = out.findIndex((x) => x !== 0);
      let last = out.length - 1;
      while (out[last] === 0) last -= 1;
      const late = last - next(to) - 0.001 * sampleRate;
      return [
        first - next(from) > 2 ? first - next(from) : Math.min(0, first - next(from)),
        Math.max(0, late),
        Math.min(0, last + 2 - next(to)),
      ];
    }),
  );
}

function bentCents(direction: string, share: number): number {
  return worst(
    ODD_TEMPI.map(({ sampleRate, bpm }) => {
      const hz = 997;
      const frames = 2 * sampleRate;
      const values = { direction, time: 2000, depth: 0.6 };
      const out = runHeld({
        effect: 'tapeStop',
        values,
        input: tone(hz),
        sampleRate,
        bpm,
        seconds: FROM / sampleRate + 2,
        from: FROM,
      });
      const middle = FROM + frames / 2;
      // Symmetric about the middle, where the mean of a linear speed is that in the middle.
      const around = Math.round(0.02 * sampleRate);
      const turns =
        (phaseAt(out, middle + around, hz * share, sampleRate) -
          phaseAt(out, middle - around, hz * share, sampleRate)) /
        (2 * Math.PI);
      const expected = (2 * around * hz * share) / sampleRate;
      const measured = expected + (turns - expected - Math.round(turns - expected));
      return 1200 * Math.log2(measured / expected);
    }),
  );
}

/** Phase of a tone near a frequency round a sample, by a short window. */
function phaseAt(out: Float64Array, middle: number, hz: number, sampleRate: number): number {
  const half = Math.round((2.5 * sampleRate) / hz);
  let [re, im] = [0, 0];
  for (let i = -half; i <= half; i += 1) {
    const window = 0.5 + 0.5 * Math.cos((Math.PI * i) / (half + 1));
    const angle = (2 * Math.PI * hz * i) / sampleRate;
    re += window * out[middle + i]! * Math.cos(angle);
    im -= window * out[middle + i]! * Math.sin(angle);
  }
  return Math.atan2(im, re);
}

const SLOW_SPEEDS = [0, 0.13, 0.5, 1, 1.7, 2];

function slowTones(measure: (out: Float64Array, from: number, to: number, hz: number, rate: number) => number): number {
  return worst(
    ODD_TEMPI.flatMap(({ sampleRate, bpm }) =>
      SLOW_SPEEDS.map((speed) => {
        const from = Math.round(1.5 * sampleRate);
        const values = { speed, catchEvery: 1000 };
        const out = runHeld({ effect: 'slowMotion', values, input: tone(440), sampleRate, bpm, seconds: 4, from });
        return measure(out, Math.round(2.5 * sampleRate), Math.round(3.9 * sampleRate), 440, sampleRate);
      }),
    ),
  );
}

const peakIn = (out: Float64Array, from: number, to: number): number =>
  out.subarray(from, to).reduce((most, x) => Math.max(most, Math.abs(x)), 0);

function rippleDb(out: Float64Array, from: number, to: number, hz: number, rate: number): number {
  const turn = Math.ceil(rate / hz);
  const peaks: number[] = [];
  for (let at = from; at + 2 * turn < to; at += turn) peaks.push(peakIn(out, at, at + 2 * turn));
  return 20 * Math.log10(Math.max(...peaks) / Math.min(...peaks));
}

const rms = (out: Float64Array, from: number, to: number): number =>
  Math.sqrt(out.subarray(from, to).reduce((sum, x) => sum + x * x, 0) / (to - from));

const PARTLY_NOISE: Wave = (i) => 0.2 * Math.sin(i * 0.05) + 0.15 * Math.sin(i * 0.11) + 0.1 * Math.sin(i * i * 0.0007);

function cloudRuns(read: (out: Float64Array, from: number, source: number) => number): number {
  return worst(
    [2, 9, 40, 120].flatMap((density) =>
      [0, 1].map((feedback) => {
        const sampleRate = 48_000;
        const values = { density, feedback, size: 90, scatter: 300, spread: 0 };
        const from = Math.round(1.5 * sampleRate);
        const out = runHeld({ effect: 'cloud', values, input: PARTLY_NOISE, sampleRate, bpm: 97.1, seconds: 6, from });
        return read(out, from + sampleRate, rms(out, sampleRate / 2, from));
      }),
    ),
  );
}

function orderErrors(): number {
  const window = 400;
  const order = (values: Values): string => {
    const sampleRate = 48_000;
    const out = runHeld({
      effect: 'reorder',
      values: { window, slice: 50, order: 'thrown', ...values },
      input: ramp,
      sampleRate,
      bpm: 101.3,
      seconds: 3,
      from: FROM,
    });
    return Array.from({ length: 24 }, (_, k) =>
      Math.floor((placeOf(out[FROM + k * 2400 + 1200]!) - FROM) / 2400),
    ).join();
  };
  const rolls = Array.from({ length: 12 }, (_, roll) => order({ roll }));
  const again = rolls.filter((one, roll) => one !== order({ roll })).length;
  return again + (12 - new Set(rolls).size);
}

const HELD_ALL_THROUGH: Readonly<Record<string, Values>> = {
  stutter: { slice: 100 },
  backwards: { length: 100 },
  'tape stop': { direction: 'bend', time: 8000 },
  reorder: { window: 200, slice: 50, order: 'drawn' },
  cloud: { scatter: 100 },
  'slow motion': {},
  chop: {},
};
const IDS: Readonly<Record<string, string>> = { 'tape stop': 'tapeStop', 'slow motion': 'slowMotion' };
const nameOf = (name: string): string => name[0]!.toUpperCase() + name.slice(1);

/** What holds promise, at several rates and tempi that fit nothing. */
export const holdPromises: readonly Accuracy[] = [
  ...Object.entries(HELD_ALL_THROUGH).map(([name, values]) => ({
    effect: nameOf(name),
    promise: 'starts and ends on the sample of its line',
    unit: 'samples',
    limit: 2.5,
    measure: () => linesOff(IDS[name] ?? name, values),
  })),
  {
    effect: 'Stutter',
    promise: 'turn n begins n slices from the start',
    unit: 'samples',
    limit: 0.01,
    measure: () => placesOff('stutter', { slice: '1/32' }, 0.125, (n, _turn, frames) => FROM - frames + n),
  },
  {
    effect: 'Backwards',
    promise: 'sample n of a slice is sample N - n of the source',
    unit: 'samples',
    limit: 0.01,
    measure: () => placesOff('backwards', { length: '1/32' }, 0.125, (n, turn, frames) => FROM + turn * frames - n),
  },
  {
    effect: 'Tape stop',
    promise: 'pitch in the middle of a stop, a start and a bend',
    unit: 'cents',
    limit: 5,
    measure: () => worst([bentCents('stop', 0.5), bentCents('start', 0.5), bentCents('bend', 0.4)]),
  },
  {
    effect: 'Slow motion',
    promise: 'pitch at any speed',
    unit: 'cents',
    limit: 5,
    measure: () => slowTones((out, from, to, hz, rate) => 1200 * Math.log2(toneHz(out, hz, from, to, rate) / hz)),
  },
  { effect: 'Slow motion', promise: 'ripple of a sine', unit: 'dB', limit: 1, measure: () => slowTones(rippleDb) },
  {
    effect: 'Reorder',
    promise: 'one roll is one order, another roll another',
    unit: 'rolls',
    limit: 0.5,
    measure: orderErrors,
  },
  {
    effect: 'Cloud',
    promise: 'as loud as its source at any density and feedback',
    unit: 'dB',
    limit: 3,
    measure: () => cloudRuns((out, from, source) => 20 * Math.log10(rms(out, from, out.length) / source)),
  },
  {
    effect: 'Cloud',
    promise: 'peak over the guard',
    unit: 'full scale',
    limit: 1e-9,
    measure: () => cloudRuns((out, from) => Math.max(0, peakIn(out, from, out.length) - 1)),
  },
  {
    effect: 'Scrub',
    promise: 'level while the head stands',
    unit: 'full scale',
    limit: 1e-9,
    measure: () =>
      worst(
        ODD_TEMPI.map(({ sampleRate, bpm }) => {
          const out = runHeld({
            effect: 'scrub',
            values: { place: 0.4 },
            input: noise,
            sampleRate,
            bpm,
            seconds: 4,
            from: FROM,
          });
          return peakIn(out, FROM + Math.round(0.05 * sampleRate), out.length);
        }),
      ),
  },
];

import { STEP_FRAMES } from '../dsp/blocks';
import { ODD_TEMPI, runTimed, type TimedRun } from './runTimed';
import { effectOf } from '../effects/catalogue';
import { READ_LATENCY } from '../effects/hold/history';

/** How far back a hold reads at the end of each step, from the step after the one in which it starts. */
function lags(run: Pick<TimedRun, 'effect' | 'values' | 'sampleRate' | 'bpm'>, steps: number): number[] {
  const held = effectOf(run.effect).paramIds.indexOf('held');
  const found: number[] = [];
  const from = 1000;
  const seconds = ((from + steps + 1) * STEP_FRAMES) / run.sampleRate;
  runTimed({ ...run, seconds, input: (i) => Math.sin(0.05 * i) }, (processor, row, at) => {
    // Told before each step: what the last one has left.
    const step = at / STEP_FRAMES;
    if (step > from) found.push(processor.lagFrames!);
    row[held] = step >= from ? 1 : 0;
    processor.setSwitchOffset!(0);
  });
  return found;
}

const STEPS = 800;
const free = { startsOn: 'free', endsOn: 'free' };

test.each(ODD_TEMPI)('at $sampleRate Hz a hold tells how far back it reads, to the sample', ({ sampleRate, bpm }) => {
  const time = { sampleRate, bpm };
  const passed = (step: number): number => (step + 1) * STEP_FRAMES;
  const slice = (30 / bpm) * sampleRate;
  const stutter = lags({ ...time, effect: 'stutter', values: { ...free, slice: '1/8' } }, STEPS);
  // The turn in which it is reads the slice before the start; near its seams it may be in the next.
  stutter.forEach((lag, step) => {
    const turn = Math.floor(passed(step) / slice);
    const inTurn = passed(step) - turn * slice;
    if (inTurn > 0.002 * sampleRate && inTurn < slice - 1) expect(lag).toBeCloseTo((turn + 1) * slice, 3);
  });
  const backwards = lags({ ...time, effect: 'backwards', values: { ...free, mode: 'on' } }, STEPS);
  backwards.forEach((lag, step) => expect(lag).toBeCloseTo(2 * passed(step), 3));
  const chop = lags({ ...time, effect: 'chop', values: free }, 50);
  expect(new Set(chop)).toEqual(new Set([0]));
  // A tape falls behind by what its speed lacks: half of the time at an even fall, once it has stopped.
  const tape = lags({ ...time, effect: 'tapeStop', values: { ...free, time: 400, curve: 0, wow: 0 } }, STEPS);
  const stopped = Math.ceil((0.42 * sampleRate) / STEP_FRAMES);
  const frames = 0.4 * sampleRate;
  expect(tape[stopped]! - (passed(stopped) - frames) - READ_LATENCY).toBeGreaterThan(0.49 * frames);
  expect(tape[stopped]! - (passed(stopped) - frames) - READ_LATENCY).toBeLessThan(0.51 * frames);
});

test('nothing held, nothing is read back', () => {
  const { sampleRate, bpm } = ODD_TEMPI[0]!;
  runTimed(
    { effect: 'cloud', values: free, sampleRate, bpm, seconds: 0.2, input: () => 0.5 },
    (processor) => void expect(processor.lagFrames).toBe(0),
  );
});

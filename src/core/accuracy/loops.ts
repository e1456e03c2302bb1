import { STEP_FRAMES, makeStereoBlock } from '../dsp/blocks';
import { presetValues } from '../piece/edits/chain';
import { effectOf } from '../effects/catalogue';
import { implementationOf } from '../effects/implementations';
import { PLAIN_CONTEXT, type ParamValue } from '../params/param';
import { toEngineNumber } from '../params/resolve';
import { worst, type Accuracy } from './measure';
import { readDecay, type DecayCase, type DecayReading } from './stability';

type Named = Readonly<Record<string, ParamValue>>;

const readingOf = (effect: string, preset: string, named: Named, how: Partial<DecayCase> = {}): DecayReading =>
  readDecay({
    effect: effectOf(effect),
    values: { ...presetValues(effect, preset), ...named },
    sampleRate: 48_000,
    bpm: 92,
    input: 'noise',
    hz: 220,
    ...how,
  });

/** Growth over ten seconds of the worst of some settings, in dB; silence counts as -200. */
const growth = (readings: readonly DecayReading[]): number =>
  Math.max(...readings.map(({ growthDb }) => Math.max(-200, growthDb)));
const offset = (readings: readonly DecayReading[]): number =>
  Math.max(...readings.map(({ offsetDb }) => Math.max(-200, offsetDb)));

const ECHO_LOOPS: readonly Named[] = [
  { timeL: 6.8, feedback: 0.88, filter: 'low', cutoff: 6500, resonance: 0.15 },
  { timeL: 31.7, feedback: 0.99, filter: 'low', cutoff: 900, resonance: 1 },
  { timeL: 11.3, feedback: 0.97, filter: 'high', cutoff: 2100, resonance: 0.8 },
  { timeL: 23, feedback: 0.99, filter: 'band', cutoff: 700, resonance: 0.6, drive: 24, driveKind: 'tube' },
  { timeL: 9.1, feedback: 0.99, rateReduction: 2500, filter: 'low', cutoff: 3000, resonance: 0.5 },
  { timeL: 40, feedback: 0.98, diffusion: 1, bitDepth: 6, rateReduction: 5100 },
];

const clouds = (): DecayReading[] => [
  readingOf('grains', 'neutral', { feedback: 0.8, mix: 1 }),
  readingOf('grains', 'neutral', { feedback: 0.95, mix: 1 }, { sampleRate: 44_100, bpm: 133.3 }),
  readingOf('grains', 'neutral', { feedback: 0.9, time: 40, scatter: 5, density: 120, size: 400 }, { input: 'sine' }),
  readingOf('grains', 'climbing', {}, { input: 'offset' }),
];

export const loopPromises: readonly Accuracy[] = [
  {
    effect: 'Echo, loop',
    promise: 'filters, drive, coarse rates and smears at 88-99 % never grow',
    unit: 'dB in 10 s',
    limit: 0,
    measure: () => growth(ECHO_LOOPS.map((named) => readingOf('echo', 'neutral', named))),
  },
  {
    effect: 'Echo, loop',
    promise: 'the brass pipe dies away',
    unit: 'dB in 10 s',
    limit: 0,
    measure: () =>
      growth([readingOf('echo', 'brassPipe', {}), readingOf('echo', 'brassPipe', {}, { sampleRate: 44_100 })]),
  },
  {
    effect: 'Echo, loop',
    promise: 'from 100 % on it is bounded, and a guard says so',
    unit: 'gain of the guard',
    limit: 1,
    measure: () => worst([guardAt(1.2), guardAt(1.05)]),
  },
  {
    effect: 'Grains',
    promise: 'a cloud with feedback of 80-95 % never grows',
    unit: 'dB in 10 s',
    limit: 0,
    measure: () => growth(clouds()),
  },
  {
    effect: 'Grains',
    promise: 'a cloud with feedback has no offset',
    unit: 'dB',
    limit: -60,
    measure: () => offset(clouds()),
  },
];

/** Lowest gain of an echo's guard in six seconds at a feedback: below 1 when it acts. */
function guardAt(feedback: number): number {
  const effect = effectOf('echo');
  const processor = implementationOf(effect.id).createProcessor(48_000);
  const values = { ...presetValues('echo', 'neutral'), timeL: 100, feedback };
  const row = Float64Array.from(effect.paramIds, (id) =>
    toEngineNumber(effect.params[id]!, values[id as keyof typeof values]!, PLAIN_CONTEXT),
  );
  processor.reset(0, row);
  const [input, wet] = [makeStereoBlock(), makeStereoBlock()];
  for (let at = 0; at < 6 * 48_000; at += STEP_FRAMES) {
    for (let i = 0; i < STEP_FRAMES; i += 1)
      input.left[i] = input.right[i] = at < 24_000 ? 0.8 * Math.sin((at + i) * 0.05) : 0;
    processor.process(input, wet, row);
  }
  return processor.takeGuardGain();
}

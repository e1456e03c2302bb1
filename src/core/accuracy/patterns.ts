import { STEP_NOTES, stepBeats } from '../effects/braid/pattern';
import { worst, type Accuracy } from './measure';
import { ODD_TEMPI, runTimed } from './runTimed';

const LEVEL = 0.5;
const SECONDS = 4;
const NOTES = ['1/16t', '1/8', '1/8d', '1/4'] as const;

/**
 * Samples between the lines of a pattern of two strands, of which only the first is audible, and the first samples at
 * which it opens or shuts.
 */
const lineErrors = (): number[] =>
  ODD_TEMPI.flatMap(({ sampleRate, bpm }) =>
    NOTES.flatMap((step) => {
      const values = { plays: 'pattern', step, crossfade: 1, level1: 1, level2: 0 };
      const out = runTimed({ effect: 'braid', values, input: () => LEVEL, sampleRate, bpm, seconds: SECONDS });
      const length = stepBeats(STEP_NOTES.indexOf(step), 4);
      const line = (k: number): number => Math.round((k * length * 60 * sampleRate) / bpm);
      const errors: number[] = [];
      for (let k = 1; line(k + 1) < out.length; k += 1) {
        const before = k % 2 === 1 ? LEVEL : 0;
        const middle = Math.round((line(k - 1) + line(k)) / 2);
        const change = out.findIndex((x, i) => i > middle && Math.abs(x - before) > 1e-9);
        errors.push(change - line(k));
      }
      return errors;
    }),
  );

export const patternPromises: readonly Accuracy[] = [
  {
    effect: 'Braid',
    promise: 'strands of a pattern open and shut on the samples of their lines, four notes at four odd tempi and rates',
    unit: 'samples',
    limit: 1,
    measure: () => worst(lineErrors()),
  },
];

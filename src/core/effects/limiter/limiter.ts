import type { ParamValues, ValueContext } from '../../params/param';
import { resolveNumber } from '../../params/resolve';
import { defineEffect, type Preset } from '../define';
import type { CurvePicture } from '../pictures';
import { respond } from '../respond';
import { limiterParams } from './params';
import { LimiterProcessor } from './processor';

const create = (sampleRate: number): LimiterProcessor => new LimiterProcessor(sampleRate);
const RATE = 24_000;
const STEP_SECONDS = 0.05;
const IN_DB = Array.from({ length: 37 }, (_, i) => -30 + i);

/** A tone that grows a decibel at a time, and what comes out of each. */
function picture(values: ParamValues, context: ValueContext): CurvePicture {
  const perStep = Math.round(STEP_SECONDS * RATE);
  const tone = (index: number): number => Math.pow(10, IN_DB[Math.min(IN_DB.length - 1, Math.floor(index / perStep))]! / 20) * Math.sin((2 * Math.PI * 500 * index) / RATE);
  const { left } = respond({ create, params: limiterParams, values, context, sampleRate: RATE, seconds: STEP_SECONDS * IN_DB.length, input: (i) => [tone(i), tone(i)] });
  const outDb = IN_DB.map((_, i) => 20 * Math.log10(left.subarray(i * perStep + (perStep >> 1), (i + 1) * perStep).reduce((most, x) => Math.max(most, Math.abs(x)), 1e-6)));
  return { kind: 'curve', inDb: IN_DB, outDb, ceilingDb: resolveNumber(limiterParams.ceiling, values.ceiling ?? limiterParams.ceiling.initial, context) };
}

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'Only catches what would clip.', values: { ceiling: 0 } },
  { id: 'quayWall', name: 'Quay wall', purpose: 'Catches the odd peak of a piece before it is written.', values: { ceiling: -1, release: 160 } },
  { id: 'highTide', name: 'High tide', purpose: 'Lifts a whole piece against the ceiling.', values: { gain: 6, ceiling: -1, release: 220, lookAhead: 4 } },
  { id: 'holdReturn', name: 'Hold the return', purpose: 'Keeps an echo or reverb that is ridden hard from leaping out.', values: { ceiling: -9, release: 300, lookAhead: 3 } },
  { id: 'brace', name: 'Brace', purpose: 'Short and firm, for drums and crates.', values: { gain: 4, ceiling: -3, release: 40, lookAhead: 1 } },
  { id: 'stream', name: 'Under the bridge', purpose: 'A level that streaming services pass unchanged.', values: { gain: 2, ceiling: -2, release: 250 } },
  { id: 'flat', name: 'Flat calm', purpose: 'Very firm and slow: everything at one level, for beds.', values: { gain: 15, ceiling: -10, release: 800, lookAhead: 8 } },
];

export const limiter = defineEffect({
  id: 'limiter', name: 'Limiter', family: 'tone', purpose: 'A ceiling that no peak goes above, also between the samples.',
  params: limiterParams, presets, headline: ['ceiling', 'gain'], createProcessor: create, picture,
});

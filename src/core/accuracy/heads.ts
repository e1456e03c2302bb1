import { responseAt } from '../analysis/spectrum';
import { sphereGain } from '../effects/placer/sphere';
import { impulse, runWet } from '../effects/testing';
import { worst, type Accuracy } from './measure';

const FREQUENCIES = Array.from({ length: 60 }, (_, i) => 100 * Math.pow(100, i / 59));
const DISTANCE = 2;

/** Deviation of both ears from a sphere's, up to 10 kHz, for a source all round at a height, in dB. */
function headError(height: number, sampleRate: number): number {
  const [flat, errors] = [DISTANCE, [] as number[]];
  const raised = flat / Math.hypot(flat, height);
  for (let degrees = 0; degrees < 360; degrees += 15) {
    const values = { direction: degrees, distance: flat, height, airDamping: 0, reflections: 0, distanceLevel: 0 };
    const out = runWet('placer', values, { sampleRate, seconds: 0.04, input: impulse });
    const lateral = Math.asin(Math.sin((degrees * Math.PI) / 180) * raised);
    for (const [side, samples] of [
      [-1, out.left],
      [1, out.right],
    ] as const) {
      const found = responseAt(samples, FREQUENCIES, sampleRate);
      FREQUENCIES.forEach((hz, i) => {
        errors.push(found[i]! - 20 * Math.log10(sphereGain(Math.PI / 2 - side * lateral, hz)));
      });
    }
  }
  return worst(errors);
}

export const headPromises: readonly Accuracy[] = [
  ...[44_100, 48_000, 96_000].map((rate): Accuracy => ({
    effect: 'Placer',
    promise: `both ears against the rigid sphere's solution, every 15 degrees up to 10 kHz, at ${rate / 1000} kHz`,
    unit: 'dB',
    limit: 1.5,
    measure: () => headError(0, rate),
  })),
  {
    effect: 'Placer',
    promise: 'the same for a source 1.5 m above',
    unit: 'dB',
    limit: 1.5,
    measure: () => headError(1.5, 48_000),
  },
];

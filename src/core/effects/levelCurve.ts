import { respond, type Sounding } from './respond';

const RATE = 24_000;
const STEP_SECONDS = 0.05;

/** A tone that grows a decibel at a time, and the level that comes out of each. */
export function levelCurve(
  sounding: Pick<Sounding, 'create' | 'params' | 'values' | 'context'>,
  fromDb: number,
  toDb: number,
): { inDb: number[]; outDb: number[] } {
  const inDb = Array.from({ length: toDb - fromDb + 1 }, (_, i) => fromDb + i);
  const perStep = Math.round(STEP_SECONDS * RATE);
  const tone = (index: number): number =>
    Math.pow(10, inDb[Math.min(inDb.length - 1, Math.floor(index / perStep))]! / 20) *
    Math.sin((2 * Math.PI * 500 * index) / RATE);
  const { left } = respond({
    ...sounding,
    sampleRate: RATE,
    seconds: STEP_SECONDS * inDb.length,
    input: (i) => [tone(i), tone(i)],
  });
  const outDb = inDb.map(
    (_, i) =>
      20 *
      Math.log10(
        left
          .subarray(i * perStep + (perStep >> 1), (i + 1) * perStep)
          .reduce((most, x) => Math.max(most, Math.abs(x)), 1e-6),
      ),
  );
  return { inDb, outDb };
}

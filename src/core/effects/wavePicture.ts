import type { WavePicture } from './pictures';
import { respond, type Sounding } from './respond';

const RATE = 48_000;
const POINTS = 384;

interface Test {
  readonly hz: number;
  readonly level: number;
  /** Time to settle, in whole periods of the tone. */
  readonly settleTurns?: number;
  readonly turns?: number;
  /** Latency in samples, removed from the picture. */
  readonly late?: number;
}

/** A tone at the input and at the left output. */
export function wavePicture(
  sounding: Pick<Sounding, 'create' | 'params' | 'values' | 'context'>,
  { hz, level, settleTurns = 60, turns = 2.5, late = 0 }: Test,
): WavePicture {
  const tone = (i: number): number => level * Math.sin((2 * Math.PI * hz * i) / RATE);
  const from = Math.round((settleTurns * RATE) / hz);
  const length = Math.round((turns * RATE) / hz);
  const { left } = respond({
    ...sounding,
    sampleRate: RATE,
    seconds: (from + length + late + 64) / RATE,
    input: (i) => [tone(i), tone(i)],
  });
  const places = Array.from({ length: POINTS }, (_, i) => from + Math.floor((i * length) / POINTS));
  const tidy = (x: number): number => Math.round(x * 1e4) / 1e4;
  return {
    kind: 'wave',
    spanSeconds: length / RATE,
    before: places.map((i) => tidy(tone(i))),
    after: places.map((i) => tidy(left[i + late]!)),
    test: `a tone of ${Math.round(hz)} Hz`,
  };
}

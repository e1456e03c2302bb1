import { powerSpectrum } from '../analysis/spectrum';
import type { Handle, Partial, PartialsPicture } from './pictures';
import { respond, type Sounding } from './respond';

const RATE = 48_000;
/** Power of two: tones that are on its bins show as one line each. */
const FRAMES = 8192;
const MOST = 48;
/** Minimum level that is drawn. */
const FLOOR_DB = -72;

/** A tone at a frequency as the nearest that fits the picture's stretch. */
const fitting = (hz: number): number => (Math.round((hz * FRAMES) / RATE) * RATE) / FRAMES;

interface Test {
  readonly words: string;
  readonly tones: readonly { readonly hz: number; readonly level: number }[];
  /** Time to settle, in seconds. */
  readonly settleSeconds?: number;
}

/** Spectrum of some steady tones: those at the input, and those at the left output. */
export function partialsPicture(
  sounding: Pick<Sounding, 'create' | 'params' | 'values' | 'context'>,
  { words, tones, settleSeconds = 0.3 }: Test,
  handles: readonly Handle[] = [],
): PartialsPicture {
  const sent = tones.map(({ hz, level }) => ({ hz: fitting(hz), level }));
  const input = (i: number): readonly [number, number] => {
    const x = sent.reduce((sum, { hz, level }) => sum + level * Math.sin((2 * Math.PI * hz * i) / RATE), 0);
    return [x, x];
  };
  const skip = Math.ceil(settleSeconds * RATE);
  const { left } = respond({ ...sounding, sampleRate: RATE, seconds: (skip + FRAMES) / RATE, input });
  const before = sent.map(({ hz, level }) => ({ hz, db: 20 * Math.log10(level) }));
  return { kind: 'partials', before, after: peaksOf(left.subarray(skip, skip + FRAMES)), test: words, handles };
}

/** The loudest tones of a range of samples, with a window whose main lobe is a few bins wide. */
function peaksOf(samples: Float64Array): Partial[] {
  const power = powerSpectrum(samples.map((x, i) => x * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / FRAMES))));
  const db = power.map((x) => 10 * Math.log10(Math.max(1e-20, x)) - 20 * Math.log10(FRAMES / 4));
  const found: Partial[] = [];
  for (let k = 2; k < db.length - 2; k += 1) {
    if (db[k]! > FLOOR_DB && db[k]! > db[k - 1]! && db[k]! >= db[k + 1]!)
      found.push({ hz: Math.round((100 * k * RATE) / FRAMES) / 100, db: Math.round(10 * db[k]!) / 10 });
  }
  return found
    .sort((a, b) => b.db - a.db)
    .slice(0, MOST)
    .sort((a, b) => a.hz - b.hz);
}

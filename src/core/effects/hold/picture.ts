import { noteSeconds, parseNote } from '../../music/noteValue';
import type { MotionPicture } from '../pictures';
import { respond, type Sounding } from '../respond';

const PICTURE_RATE = 8000;
const POINTS = 240;
/** What is heard before the hold, and during it, in quarter notes. */
const BEFORE_BEATS = 1;
const HELD_BEATS = 3;
const QUARTER = parseNote('1/4')!;

/**
 * The level of a row of strokes, each quarter louder than the one before, of which all but the first quarter is held.
 */
export function holdPicture({
  create,
  params,
  values,
  context,
}: Pick<Sounding, 'create' | 'params' | 'values' | 'context'>): MotionPicture {
  const beat = noteSeconds(QUARTER, context.tempo);
  const spanSeconds = (BEFORE_BEATS + HELD_BEATS) * beat;
  const stroke = (index: number): readonly [number, number] => {
    const at = index / PICTURE_RATE / beat;
    const level = (0.3 + 0.7 * ((at % 4) / 4)) * Math.exp(-3 * ((2 * at) % 1));
    return [level, level];
  };
  const heldFrom = BEFORE_BEATS * beat * PICTURE_RATE;
  const { left, right } = respond({
    create,
    params,
    values: { ...values, startsOn: 'free', endsOn: 'free', held: false },
    valuesAt: (index) => ({ held: index >= heldFrom }),
    context,
    sampleRate: PICTURE_RATE,
    seconds: spanSeconds,
    input: stroke,
  });
  const points = (side: Float64Array): number[] =>
    Array.from({ length: POINTS }, (_, i) => {
      const at = Math.min(side.length - 1, Math.round((i / (POINTS - 1)) * spanSeconds * PICTURE_RATE));
      return Math.round(1000 * Math.abs(side[at]!)) / 1000;
    });
  return { kind: 'motion', spanSeconds, left: points(left), right: points(right) };
}

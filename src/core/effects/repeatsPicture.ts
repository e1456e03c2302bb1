import { mergeTaps, tapList } from '../analysis/tapList';
import type { Handle, RepeatsPicture } from './pictures';
import { respond, type Sounding } from './respond';

export const PICTURE_RATE = 24_000;
const MAX_TAPS = 48;

/**
 * The arrivals in an effect's response to one impulse, or to another input, over `seconds`.
 * @param apart arrivals nearer than this are one
 */
export function repeatsPicture(
  sounding: Pick<Sounding, 'create' | 'params' | 'values' | 'context' | 'input'>,
  seconds: number,
  apart: number,
  handles: readonly Handle[] = [],
): RepeatsPicture {
  const { left, right } = respond({ ...sounding, sampleRate: PICTURE_RATE, seconds });
  const frame = Math.max(2 / PICTURE_RATE, Math.min(0.004, apart / 2));
  const taps = mergeTaps(tapList(left, right, PICTURE_RATE, frame, -44), apart).slice(0, MAX_TAPS);
  return {
    kind: 'repeats',
    taps,
    firstSeconds: taps.find((tap) => tap.seconds > 0.0005)?.seconds ?? seconds / 2,
    feedback: 0,
    spanSeconds: seconds,
    handles,
  };
}

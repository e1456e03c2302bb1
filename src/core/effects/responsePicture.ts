import { logFrequencies, responseAt } from '../analysis/spectrum';
import type { Handle, ResponsePicture } from './pictures';
import { respond, type Sounding } from './respond';

const HZ = logFrequencies(20, 20_000, 160);
const PICTURE_RATE = 48_000;
const SECONDS = 0.34;
/** Level of the test impulse: low enough for drive to be linear; divided out again. */
const QUIET = 1e-3;

/** Magnitude response of an effect, from its impulse response. */
export function responsePicture(
  sounding: Pick<Sounding, 'create' | 'params' | 'values' | 'context' | 'atSeconds'>,
  handles: readonly Handle[],
): ResponsePicture {
  const answer = respond({
    ...sounding,
    sampleRate: PICTURE_RATE,
    seconds: SECONDS,
    input: (index) => (index === 0 ? [QUIET, QUIET] : [0, 0]),
  });
  const curve = (side: Float64Array): number[] =>
    responseAt(
      side.map((x) => x / QUIET),
      HZ,
      PICTURE_RATE,
    ).map((db) => Math.round(db * 100) / 100);
  const left = curve(answer.left);
  const right = curve(answer.right);
  return {
    kind: 'response',
    hz: HZ,
    left,
    right: left.every((db, i) => Math.abs(db - right[i]!) < 0.05) ? null : right,
    handles,
  };
}

import type { ImagePicture } from './pictures';
import { respond, type Sounding } from './respond';

const RATE = 24_000;
const SECONDS = 0.1;
/** Frequency of the test tone: above the bass that effects treat separately. */
const TONE_HZ = 1500;
const SETTLED = 0.6;

/** Levels at both outputs of a tone at the left, in the middle and at the right. */
export function imagePicture(sounding: Pick<Sounding, 'create' | 'params' | 'values' | 'context'>): ImagePicture {
  const heard = (left: number, right: number): readonly [number, number] => {
    const tone = (index: number): number => 0.1 * Math.sin((2 * Math.PI * TONE_HZ * index) / RATE);
    const answer = respond({
      ...sounding,
      sampleRate: RATE,
      seconds: SECONDS,
      input: (index) => [left * tone(index), right * tone(index)],
    });
    const level = (side: Float64Array): number =>
      Math.hypot(...side.subarray(Math.round(side.length * SETTLED))) /
      Math.sqrt(side.length * (1 - SETTLED)) /
      (0.1 * Math.SQRT1_2);
    return [level(answer.left), level(answer.right)];
  };
  return { kind: 'image', left: heard(1, 0), middle: heard(Math.SQRT1_2, Math.SQRT1_2), right: heard(0, 1) };
}

import * as z from 'zod';
import { loudness } from './loudness';

export const soundFiguresSchema = z.object({
  /** Integrated, by BS.1770; null for silence. */
  lufs: z.number().nullable(),
  /** Share of the power that is in the side: 0 mono, 0.5 uncorrelated channels, 1 inverted ones. */
  width: z.number(),
  /** Loss in mono, in dB. */
  monoLossDb: z.number(),
});
export type SoundFigures = z.infer<typeof soundFiguresSchema>;

/** The figures by which settings are compared. @param left,right equally long */
export function soundFigures(left: Float32Array, right: Float32Array, sampleRate: number): SoundFigures {
  const { integrated } = loudness([left, right], sampleRate);
  let mid = 0;
  let side = 0;
  for (let i = 0; i < left.length; i += 1) {
    mid += (left[i]! + right[i]!) ** 2;
    side += (left[i]! - right[i]!) ** 2;
  }
  const share = mid + side > 0 ? mid / (mid + side) : 1;
  return {
    lufs: Number.isFinite(integrated) ? integrated : null,
    width: 1 - share,
    monoLossDb: Math.max(-60, 10 * Math.log10(Math.max(1e-6, share))),
  };
}

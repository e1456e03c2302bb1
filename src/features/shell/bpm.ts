import * as z from 'zod';
import { MAX_BPM, MIN_BPM } from '../../core/music/tempo';

export const BPM_REFUSED = `A tempo lies between ${MIN_BPM} and ${MAX_BPM} BPM.`;

/** A form in which a tempo is typed, with a point or a comma. */
export const bpmFormSchema = z.object({
  bpm: z
    .string()
    .transform((text) => (text.trim() === '' ? NaN : Number(text.replace(',', '.'))))
    .pipe(z.number().min(MIN_BPM).max(MAX_BPM)),
});

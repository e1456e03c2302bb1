import * as z from 'zod';
import { GRIDS } from '../effects/hold/params';
import { idSchema, nameSchema } from './fields';
import { targetSchema } from './target';

const position = z.number().min(0).max(1);

/** What one direction of a field moves: a parameter, over a part of its rail; `from` above `to` turns it round. */
export const fieldAxisSchema = z.strictObject({
  target: targetSchema,
  from: position,
  to: position,
  /** Only note values are taken, for a time or a rate. */
  notes: z.boolean().optional(),
});

/** What a field does when the finger leaves it: glides back, stays where it was, or swings through and comes to rest. */
export const LIFTS = ['glide', 'stay', 'spring'] as const;

export const MAX_FIELDS = 16;
/** Longest way back, in beats. */
export const MAX_LIFT_BEATS = 64;

/** A surface on which one finger moves several parameters. */
export const fieldSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  /** From left to right. */
  across: fieldAxisSchema,
  /** From the bottom to the top. */
  up: fieldAxisSchema,
  /** From the centre outwards: at `from` in the centre, at `to` from `FREE_RADIUS` on. None when left out. */
  away: fieldAxisSchema.optional(),
  lift: z.enum(LIFTS),
  /** How long it takes to come back. */
  liftBeats: z.number().min(0).max(MAX_LIFT_BEATS),
  /** Places are taken only on the lines of this grid. */
  grid: z.enum(GRIDS),
});

export type FieldAxis = z.infer<typeof fieldAxisSchema>;
export type PlayField = z.infer<typeof fieldSchema>;
export type Lift = (typeof LIFTS)[number];

export const axesOf = ({ across, up, away }: Pick<PlayField, 'across' | 'up' | 'away'>): FieldAxis[] => [
  across,
  up,
  ...(away ? [away] : []),
];

import * as z from 'zod';
import { GRIDS } from '../effects/hold/params';
import { idSchema, nameSchema } from './fields';
import { targetSchema } from './target';

const position = z.number().min(0).max(1);

/** An axis of a field: a parameter, over a part of its rail; `from` above `to` inverts it. */
export const fieldAxisSchema = z.strictObject({
  target: targetSchema,
  from: position,
  to: position,
  /** Only note values are taken, for a time or a rate. */
  notes: z.boolean().optional(),
});

/** What a field does when the finger leaves it: glides back, stays, or springs back with overshoot. */
export const LIFTS = ['glide', 'stay', 'spring'] as const;

export const MAX_FIELDS = 16;
/** Maximum return time, in beats. */
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
  /** Return time. */
  liftBeats: z.number().min(0).max(MAX_LIFT_BEATS),
  /** Positions take effect only on the lines of this grid. */
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

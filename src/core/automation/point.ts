import * as z from 'zod';

/** Interpolation from this point to the next. */
export type Shape = 'hold' | 'line' | 'curve';

export const pointSchema = z.strictObject({
  /** Position in quarter-note beats from the start of the piece. */
  beat: z.number().min(0),
  /** In the lane's unit. */
  value: z.number(),
  shape: z.enum(['hold', 'line', 'curve']),
  /** -1 to 1, for curves: above 0 the value changes early, below 0 late. */
  bend: z.number().min(-1).max(1),
});

export type Point = z.infer<typeof pointSchema>;

export const SHAPES: readonly Shape[] = ['line', 'hold', 'curve'];
export const shapeIndex = (shape: Shape): number => SHAPES.indexOf(shape);

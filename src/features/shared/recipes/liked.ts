import * as z from 'zod';
import type { ParamValues } from '../../../core/params/param';
import type { Recipe } from '../../../core/recipes/recipe';
import { readStored, writeStored } from '../../../data/browserStorage';

const KEY = 'zephiro.liked';
const MOST = 6;
const likedSchema = z.record(z.string(), z.array(z.record(z.string(), z.union([z.number(), z.string(), z.boolean()]))));

function all(): Record<string, ParamValues[]> {
  return readStored<Record<string, ParamValues[]>>(KEY, likedSchema, {});
}

/** Values of a recipe, by its id. */
export type Varied = Pick<Recipe, 'id' | 'params'>;

/** Variations of a recipe that were liked, the newest last; kept in this browser. */
export const likedOf = ({ id }: Varied): readonly ParamValues[] => all()[id] ?? [];

/** Stores one more; the oldest is dropped. */
export function keepLiked({ id }: Varied, values: ParamValues): readonly ParamValues[] {
  const now = [...(all()[id] ?? []).filter((other) => JSON.stringify(other) !== JSON.stringify(values)), values].slice(
    -MOST,
  );
  writeStored(KEY, { ...all(), [id]: now });
  return now;
}

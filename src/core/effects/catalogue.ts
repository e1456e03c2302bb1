import type { EffectDefinition } from './define';
import { echo } from './echo/echo';

/** Every effect there is; a new one is a folder and a line here. */
export const EFFECTS: readonly EffectDefinition[] = [echo];

export const findEffect = (id: string): EffectDefinition | undefined => EFFECTS.find((effect) => effect.id === id);

export function effectOf(id: string): EffectDefinition {
  const found = findEffect(id);
  if (!found) throw new Error(`There is no effect called "${id}". There are: ${EFFECTS.map((effect) => effect.id).join(', ')}.`);
  return found;
}

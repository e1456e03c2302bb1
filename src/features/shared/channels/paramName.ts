import { effectOf } from '../../../core/effects/catalogue';

/** Unique name of a parameter within its effect: its label, after its group where labels repeat. */
export function paramName(effect: string, id: string): string {
  const { params, paramIds } = effectOf(effect);
  const { label, group } = params[id]!;
  return paramIds.some((other) => other !== id && params[other]!.label === label) ? `${group}: ${label}` : label;
}

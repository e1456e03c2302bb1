import { findEffect } from '../effects/catalogue';
import type { Param } from '../params/param';
import type { Slot } from './piece';

/** An effect, in a chain or by its kind alone. */
type Named = Pick<Slot, 'effect' | 'strands'>;

/** The heading of a section of an effect's parameters: that of a strand by the name it was given. */
export function sectionTitle(group: string, { strands }: Pick<Slot, 'strands'>): string {
  const place = /^Strand (\d+)$/.exec(group)?.[1];
  return strands?.find((strand) => strand.place === Number(place))?.name ?? group;
}

/** Parameters under names of their own, by effect in a chain: the same object as long as the effect is the same. */
const known = new WeakMap<Named, Map<string, Param>>();

/**
 * A parameter of an effect, labelled so that no other of the effect has the same label: with its section before it where
 * labels repeat ("Tap 2, time"). Undefined when the effect has no such parameter.
 */
export function namedParam(slot: Named, id: string): Param | undefined {
  const effect = findEffect(slot.effect);
  const param = effect && Object.hasOwn(effect.params, id) ? effect.params[id] : undefined;
  if (!effect || !param) return undefined;
  const repeats = effect.paramIds.some((other) => other !== id && effect.params[other]!.label === param.label);
  if (!repeats) return param;
  const own = known.get(slot) ?? new Map<string, Param>();
  known.set(slot, own);
  const named = own.get(id) ?? {
    ...param,
    label: `${sectionTitle(param.group, slot)}, ${param.label.toLowerCase()}`,
  };
  own.set(id, named);
  return named;
}

/** Name of a parameter that no other of its effect has. */
export const paramName = (slot: Named, id: string): string => namedParam(slot, id)?.label ?? id;

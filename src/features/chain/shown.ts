import type { Param } from '../../core/params/param';
import type { Slot } from '../../core/piece/piece';

/** The heading of a section: a strand's by the name it was given. */
export function sectionTitle(group: string, { strands }: Pick<Slot, 'strands'>): string {
  const place = /^Strand (\d+)$/.exec(group)?.[1];
  return strands?.find((strand) => strand.place === Number(place))?.name ?? group;
}

/** A parameter of a strand is spoken with the strand's name: all of them have the same ones. Undefined for all others. */
export const spokenInStrand = ({ group, label }: Pick<Param, 'group' | 'label'>, slot: Pick<Slot, 'strands'>) =>
  /^Strand \d+$/.test(group) ? `${sectionTitle(group, slot)}, ${label.toLowerCase()}` : undefined;

import type { Slot } from '../../core/piece/piece';

/** The heading of a section: a strand's by the name it was given. */
export function sectionTitle(group: string, { strands }: Pick<Slot, 'strands'>): string {
  const place = /^Strand (\d+)$/.exec(group)?.[1];
  return strands?.find((strand) => strand.place === Number(place))?.name ?? group;
}

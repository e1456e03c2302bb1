import type { Param } from '../../core/params/param';
import type { Slot } from '../../core/piece/piece';

/** The heading of a section: a strand's by the name it was given. */
export function sectionTitle(group: string, { strands }: Pick<Slot, 'strands'>): string {
  const place = /^Strand (\d+)$/.exec(group)?.[1];
  return strands?.find((strand) => strand.place === Number(place))?.name ?? group;
}

const GATE_PATTERN = new Set(['length', 'open', 'swing']);

/** Rails that would do nothing stay away: the right time while linked, the levels while one mix rail is chosen. */
export function isShown(id: string, param: Param, { values, strands }: Pick<Slot, 'values' | 'strands'>): boolean {
  if (id === 'timeR') return values.linked === false;
  if (id === 'mix') return values.balance !== 'levels';
  if (id === 'dry' || id === 'wet') return values.balance === 'levels';
  if (id === 'firstSide') return values.routing === 'pingpong';
  if (id === 'impulse') return (values.source ?? 'library') === 'library';
  if (param.group === 'Room' || param.group === 'Walls') return values.source === 'room';
  if (param.group === 'Drawn path') return values.path === 'drawn';
  const strand = /^Strand (\d+)$/.exec(param.group);
  if (strand) return strands?.some(({ place }) => place === Number(strand[1])) ?? false;
  if (param.group === 'Drawn') return values.curve === 'drawn';
  if (param.group === 'Formants') return values.quality !== 'grains';
  if (id === 'bandwidth') return values.kind !== 'sine';
  if (GATE_PATTERN.has(id) || (id === 'rate' && values.mode === 'level')) return values.mode !== 'level';
  if (id === 'threshold' || id === 'hold' || id === 'release') return values.mode !== 'pattern';
  const step = /^step(\d+)$/.exec(id);
  if (step) return values.mode !== 'level' && Number(step[1]) <= Number(values.length ?? 0);
  if (id === 'chosen' || id === 'crossfade') return values.plays === 'one';
  const tap = /^Tap (\d+)$/.exec(param.group);
  if (tap) return Number(tap[1]) <= Number(values.count ?? 0);
  return true;
}

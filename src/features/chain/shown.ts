import type { Param, ParamValues } from '../../core/params/param';

/** Rails that would do nothing stay away: the right time while linked, the levels while one mix rail is chosen. */
export function isShown(id: string, param: Param, values: ParamValues): boolean {
  if (id === 'timeR') return values.linked === false;
  if (id === 'mix') return values.balance !== 'levels';
  if (id === 'dry' || id === 'wet') return values.balance === 'levels';
  if (id === 'firstSide') return values.routing === 'pingpong';
  if (id === 'impulse') return (values.source ?? 'library') === 'library';
  if (param.group === 'Room' || param.group === 'Walls') return values.source === 'room';
  if (param.group === 'Drawn path') return values.path === 'drawn';
  const tap = /^Tap (\d+)$/.exec(param.group);
  if (tap) return Number(tap[1]) <= Number(values.count ?? 0);
  return true;
}

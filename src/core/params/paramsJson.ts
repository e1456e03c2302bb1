import type { Param, Params } from './param';

function paramJson(id: string, param: Param): unknown {
  const { label, group, hint, kind, initial } = param;
  const common = { id, label, group, hint, kind, default: initial };
  if (param.kind === 'choice') return { ...common, options: param.options.map((option) => option.id) };
  if (param.kind === 'toggle') return common;
  const { unit, min, max, taper, sync } = param;
  return { ...common, unit, min, max, taper: taper.kind, sync: sync ?? null };
}

/** Parameters as data, for the command line and for others who check us. */
export const paramsJson = (params: Params): unknown[] =>
  Object.entries(params).map(([id, param]) => paramJson(id, param));

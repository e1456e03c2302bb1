import { EFFECTS } from '../effects/catalogue';

/** Every effect and parameter as data, for the command line and for others who check us. */
export function catalogueJson(): unknown {
  return {
    effects: EFFECTS.map((effect) => ({
      id: effect.id,
      name: effect.name,
      family: effect.family,
      purpose: effect.purpose,
      params: effect.paramIds.map((id) => {
        const param = effect.params[id]!;
        const common = {
          id,
          label: param.label,
          group: param.group,
          hint: param.hint,
          kind: param.kind,
          default: param.initial,
        };
        if (param.kind === 'choice') return { ...common, options: param.options.map((option) => option.id) };
        if (param.kind === 'toggle') return common;
        return {
          ...common,
          unit: param.unit,
          min: param.min,
          max: param.max,
          taper: param.taper.kind,
          sync: param.sync ?? null,
        };
      }),
      presets: effect.presets.map((preset) => ({
        id: preset.id,
        name: preset.name,
        purpose: preset.purpose,
        values: preset.values,
      })),
    })),
  };
}

import { EFFECTS } from '../effects/catalogue';
import { paramsJson } from '../params/paramsJson';

/** Every effect and parameter as data, for the command line and for others who check us. */
export function catalogueJson(): unknown {
  return {
    effects: EFFECTS.map(({ id, name, family, purpose, params, presets }) => ({
      id,
      name,
      family,
      purpose,
      params: paramsJson(params),
      presets: presets.map((preset) => ({
        id: preset.id,
        name: preset.name,
        purpose: preset.purpose,
        values: preset.values,
      })),
    })),
  };
}

import { paramsJson } from '../params/paramsJson';
import { RECIPES } from './all';
import { SWELL } from './reverseSwell';

/** Every recipe and its settings as data, for the command line. */
export function recipesJson(): unknown {
  return {
    recipes: [SWELL, ...RECIPES].map(({ id, name, purpose, params }) => ({
      id,
      name,
      purpose,
      params: paramsJson(params),
    })),
  };
}

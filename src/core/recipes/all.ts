import { bed } from './bed';
import { lastHitEcho, reversedEchoes, stutter, tapeStop } from './cutting';
import { ambientLoop, source } from './making';
import { bloom, degrade, filterSweep, octaveLayer } from './moving';
import type { Recipe } from './recipe';
import { riser } from './riser';

/** Recipes for a range of a track, beside swells, which have a sheet of their own. */
export const RECIPES: readonly Recipe[] = [
  riser,
  bed,
  filterSweep,
  stutter,
  tapeStop,
  lastHitEcho,
  reversedEchoes,
  ambientLoop,
  octaveLayer,
  bloom,
  degrade,
  source,
];

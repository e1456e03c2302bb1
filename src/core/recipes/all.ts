import { lastHitEcho, reversedEchoes, stutter, tapeStop } from './cutting';
import { ambientLoop, source } from './making';
import { bloom, degrade, filterSweep, octaveLayer } from './moving';
import type { Recipe } from './recipe';

/** Recipes for a stretch of a track, beside those with sheets of their own (swells, beds, risers). */
export const RECIPES: readonly Recipe[] = [filterSweep, stutter, tapeStop, lastHitEcho, reversedEchoes, ambientLoop, octaveLayer, bloom, degrade, source];

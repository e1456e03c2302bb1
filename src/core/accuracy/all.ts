import { aliasPromises } from './aliases';
import { colourPromises } from './colour';
import { headPromises } from './heads';
import { levelPromises } from './levels';
import { presetPromises } from './presets';
import { loopPromises } from './loops';
import type { Accuracy } from './measure';
import { placePromises } from './places';
import { repeatPromises } from './repeats';
import { spacePromises } from './spaces';
import { tonePromises } from './tone';
import { holdPromises } from './holds';
import { patternPromises } from './patterns';
import { hitPromises } from './pitchedHits';
import { vowelPromises } from './vowels';

/** Every promise about the sound of the effects. */
export const PROMISES: readonly Accuracy[] = [
  ...repeatPromises,
  ...loopPromises,
  ...levelPromises,
  ...presetPromises,
  ...spacePromises,
  ...placePromises,
  ...headPromises,
  ...tonePromises,
  ...colourPromises,
  ...aliasPromises,
  ...vowelPromises,
  ...hitPromises,
  ...holdPromises,
  ...patternPromises,
];

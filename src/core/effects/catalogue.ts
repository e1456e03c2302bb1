import type { EffectDefinition } from './define';
import { braid } from './braid/braid';
import { chorus } from './chorus/chorus';
import { compressor } from './compressor/compressor';
import { convolver } from './convolver/convolver';
import { crush } from './crush/crush';
import { doubling } from './doubling/doubling';
import { drive } from './drive/drive';
import { echo } from './echo/echo';
import { eq } from './eq/eq';
import { filter } from './filter/filter';
import { flanger } from './flanger/flanger';
import { gate } from './gate/gate';
import { grains } from './grains/grains';
import { grit } from './grit/grit';
import { limiter } from './limiter/limiter';
import { phaser } from './phaser/phaser';
import { pitch } from './pitch/pitch';
import { placer } from './placer/placer';
import { reverb } from './reverb/reverb';
import { shifter } from './shifter/shifter';
import { sideDelay } from './sideDelay/sideDelay';
import { taps } from './taps/taps';
import { tremolo } from './tremolo/tremolo';
import { utility } from './utility/utility';
import { widener } from './widener/widener';
import { width } from './width/width';
import { stutter } from './stutter/stutter';
import { backwards } from './backwards/backwards';
import { tapeStop } from './tapeStop/tapeStop';
import { reorder } from './reorder/reorder';
import { chop } from './chop/chop';
import { slowMotion } from './slowMotion/slowMotion';
import { scrub } from './scrub/scrub';
import { cloud } from './cloud/cloud';

/** All effects, by family; a new one is a folder and a line here. */
export const EFFECTS: readonly EffectDefinition[] = [
  echo,
  taps,
  doubling,
  sideDelay,
  grains,
  reverb,
  convolver,
  tremolo,
  phaser,
  chorus,
  flanger,
  shifter,
  placer,
  width,
  widener,
  filter,
  eq,
  drive,
  crush,
  grit,
  pitch,
  compressor,
  gate,
  utility,
  limiter,
  braid,
  stutter,
  backwards,
  tapeStop,
  reorder,
  chop,
  slowMotion,
  scrub,
  cloud,
];

export const findEffect = (id: string): EffectDefinition | undefined => EFFECTS.find((effect) => effect.id === id);

export function effectOf(id: string): EffectDefinition {
  const found = findEffect(id);
  if (!found)
    throw new Error(`There is no effect called "${id}". There are: ${EFFECTS.map((effect) => effect.id).join(', ')}.`);
  return found;
}

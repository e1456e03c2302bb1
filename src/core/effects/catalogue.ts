import type { EffectDefinition } from './define';
import { braid } from './braid/braid';
import { convolver } from './convolver/convolver';
import { doubling } from './doubling/doubling';
import { echo } from './echo/echo';
import { eq } from './eq/eq';
import { filter } from './filter/filter';
import { limiter } from './limiter/limiter';
import { phaser } from './phaser/phaser';
import { placer } from './placer/placer';
import { reverb } from './reverb/reverb';
import { sideDelay } from './sideDelay/sideDelay';
import { taps } from './taps/taps';
import { tremolo } from './tremolo/tremolo';
import { utility } from './utility/utility';
import { widener } from './widener/widener';
import { width } from './width/width';

/** Every effect there is, by family; a new one is a folder and a line here. */
export const EFFECTS: readonly EffectDefinition[] = [
  echo, taps, doubling, sideDelay,
  reverb, convolver,
  tremolo, phaser,
  placer, width, widener,
  filter, eq, utility, limiter,
  braid,
];

export const findEffect = (id: string): EffectDefinition | undefined => EFFECTS.find((effect) => effect.id === id);

export function effectOf(id: string): EffectDefinition {
  const found = findEffect(id);
  if (!found) throw new Error(`There is no effect called "${id}". There are: ${EFFECTS.map((effect) => effect.id).join(', ')}.`);
  return found;
}

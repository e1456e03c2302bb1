import { STEP_FRAMES, makeStereoBlock } from '../dsp/blocks';
import { effectOf } from '../effects/catalogue';
import { makeRandom } from '../dsp/random';
import type { Engine } from './engine';
import { planSlotsIn, type Plan, type PlanSlot } from './plan';

/**
 * After so many steps of loud sound the code of the engine and its effects has been compiled; later only that of other
 * effects has to be.
 */
const FIRST_STEPS = 1400;
const LATER_STEPS = 400;
const LOUD = 0.3;
/** What a piece without effects is made of. */
const NO_EFFECT = 'none';

/**
 * Has an engine play noise to nobody until all of its plan has been heard once: browsers compile code only when it has
 * run for a while, and until then a block takes several times its time. Done while nothing plays, the first blocks
 * after play are on time.
 */
export class Rehearsal {
  private readonly known = new Set<string>();
  private left = 0;
  private readonly random = makeRandom(1);
  private readonly noise = makeStereoBlock();

  constructor(private readonly engine: Engine) {}

  /**
   * Begins anew when effects of the plan are set as none has been before: other choices and switches, not other
   * figures.
   */
  want(plan: Plan): void {
    const kinds = [
      NO_EFFECT,
      ...plan.channels.flatMap(({ slots }) => planSlotsIn(slots)).map((slot) => kindOf(slot, this.engine)),
    ];
    if (kinds.some((kind) => !this.known.has(kind)))
      this.left = Math.max(this.left, this.known.size === 0 ? FIRST_STEPS : LATER_STEPS);
    for (const kind of kinds) this.known.add(kind);
  }

  /** True while there is nothing to play. */
  get done(): boolean {
    return this.left === 0;
  }

  /** Plays one step; the engine has to `forget` before it is heard. */
  step(): void {
    if (this.left === 0) return;
    const { left, right } = this.noise;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      left[i] = LOUD * (2 * this.random() - 1);
      right[i] = LOUD * (2 * this.random() - 1);
    }
    this.engine.rehearse(this.noise);
    this.left -= 1;
  }
}

/** Effects of one kind run through the same code. */
function kindOf({ effect, values, impulse, on }: PlanSlot, engine: Engine): string {
  const { params, paramIds } = effectOf(effect);
  const chosen = paramIds.flatMap((id, i) => (params[id]!.kind === 'number' ? [] : [values[i]]));
  return [effect, on, impulse !== null && engine.hasImpulse(impulse.key), ...chosen].join(' ');
}

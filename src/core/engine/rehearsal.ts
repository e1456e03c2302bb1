import { STEP_FRAMES, makeStereoBlock } from '../dsp/blocks';
import { effectOf } from '../effects/catalogue';
import { makeRandom } from '../dsp/random';
import type { Engine } from './engine';
import { planSlotsIn, type Plan, type PlanSlot } from './plan';

/**
 * Steps of loud sound after which the browser has compiled the code of the engine and of the effects; later, only
 * effects that are new need any.
 */
const FIRST_STEPS = 1400;
const LATER_STEPS = 400;
const LOUD = 0.3;
/** Key of the code that a piece without effects runs. */
const NO_EFFECT = 'none';

/**
 * Runs an engine on noise, unheard, until all code of its plan has been compiled: browsers optimise code only after it
 * has run for a while, and until then a block takes several times as long. Done while nothing plays, so that the first
 * blocks after play meet their deadline.
 */
export class Rehearsal {
  private readonly known = new Set<string>();
  private left = 0;
  private readonly random = makeRandom(1);
  private readonly noise = makeStereoBlock();

  constructor(private readonly engine: Engine) {}

  /**
   * Starts again when the plan has effects with choices or switches that were not rehearsed yet; numbers do not matter.
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

  /** True when everything has been rehearsed. */
  get done(): boolean {
    return this.left === 0;
  }

  /** Runs one step; the engine has to `forget` before it is heard. */
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

import { sameTarget } from '../../core/piece/find';
import type { Lane, Target } from '../../core/piece/piece';
import { LanesShown } from '../../data/view';

interface Choice {
  readonly lanesShown: LanesShown;
  readonly chosenLanes: readonly string[];
  readonly touched: Target | null;
}

/** Those of a channel's lanes that are in view. */
export function shownLanes(lanes: readonly Lane[], { lanesShown, chosenLanes, touched }: Choice): readonly Lane[] {
  if (lanesShown === 'chosen') return lanes.filter(({ id }) => chosenLanes.includes(id));
  if (lanesShown === 'touched') return lanes.filter(({ target }) => touched !== null && sameTarget(target, touched));
  return lanes;
}

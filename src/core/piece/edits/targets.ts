import type { Draft } from 'immer';
import { chainOf, kindWaitedFor, macroOf, sameTarget, slotsIn } from '../find';
import { macroParam, type Piece, type Target } from '../piece';

/** Takes away the moves and links of all targets that are gone, and modulators that turn nothing any more. */
export function dropTargets(draft: Draft<Piece>, gone: (target: Target) => boolean): void {
  draft.lanes = draft.lanes.filter(({ target }) => !gone(target));
  draft.links = draft.links.filter(({ target }) => !gone(target));
  if (draft.controls) draft.controls = draft.controls.filter(({ target }) => !gone(target));
  dropIdle(draft);
}

/** Takes away what turns nothing. */
export function dropIdle(draft: Draft<Piece>): void {
  const turns = ({ id }: { readonly id: string }): boolean => draft.links.some(({ modulator }) => modulator === id);
  const isThere = ({ target }: { readonly target: Target }): boolean =>
    !target.param.startsWith(macroParam('')) || macroOf(draft, target.param) !== undefined;
  draft.modulators = draft.modulators.filter(turns);
  // A macro's own moves go with it, and what turned it may turn nothing any more.
  draft.lanes = draft.lanes.filter(isThere);
  draft.links = draft.links.filter(isThere);
  if (draft.controls) draft.controls = draft.controls.filter(isThere);
  draft.modulators = draft.modulators.filter(turns);
}

/**
 * Moves that wait for a kind of effect find it when it has come; where it has moves of its own by then, they go on
 * waiting.
 */
export function attachWaiting(draft: Draft<Piece>): void {
  for (const lane of draft.lanes) {
    const kind = kindWaitedFor(lane.target);
    const slot =
      kind === undefined
        ? undefined
        : slotsIn(chainOf(draft as Piece, lane.target.channel)).find(({ effect }) => effect === kind);
    if (!slot) continue;
    const target = { ...lane.target, effect: slot.id };
    if (!draft.lanes.some((other) => sameTarget(other.target, target))) lane.target = target;
  }
}

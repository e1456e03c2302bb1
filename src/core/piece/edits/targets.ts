import type { Draft } from 'immer';
import { chainOf, findMacro, kindWaitedFor, sameTarget, slotsIn } from '../find';
import type { EffectTarget, Piece, Target } from '../piece';
import { axesOf } from '../playField';

/** Takes away the moves, links and fields of all targets that are gone, and modulators that turn nothing any more. */
export function dropTargets(draft: Draft<Piece>, gone: (target: Target) => boolean): void {
  draft.lanes = draft.lanes.filter(({ target }) => !gone(target));
  draft.links = draft.links.filter(({ target }) => !gone(target));
  if (draft.controls) draft.controls = draft.controls.filter(({ target }) => !gone(target));
  if (draft.fields) draft.fields = draft.fields.filter((field) => !axesOf(field).some(({ target }) => gone(target)));
  dropIdle(draft);
}

/** Takes away what turns nothing. */
export function dropIdle(draft: Draft<Piece>): void {
  const turns = ({ id }: { readonly id: string }): boolean => draft.links.some(({ modulator }) => modulator === id);
  const isThere = ({ target }: { readonly target: Target }): boolean =>
    target.kind !== 'macro' || findMacro(draft, target.macro) !== undefined;
  draft.modulators = draft.modulators.filter(turns);
  // A macro's own moves go with it, and what turned it may turn nothing any more.
  draft.lanes = draft.lanes.filter(isThere);
  draft.links = draft.links.filter(isThere);
  if (draft.controls) draft.controls = draft.controls.filter(isThere);
  if (draft.fields) draft.fields = draft.fields.filter((field) => axesOf(field).every(isThere));
  draft.modulators = draft.modulators.filter(turns);
}

/**
 * Moves that wait for a kind of effect find it when it has come; where it has moves of its own by then, they go on
 * waiting.
 */
export function attachWaiting(draft: Draft<Piece>): void {
  for (const lane of draft.lanes) {
    const target = foundTarget(draft as Piece, lane.target);
    if (target && !draft.lanes.some((other) => sameTarget(other.target, target))) lane.target = target;
  }
}

/** What a target that waits has found, or null. */
function foundTarget(piece: Piece, target: Target): EffectTarget | null {
  const kind = kindWaitedFor(target);
  if (target.kind !== 'effect' || kind === undefined) return null;
  const slot = slotsIn(chainOf(piece, target.channel)).find(({ effect }) => effect === kind);
  return slot ? { ...target, effect: slot.id } : null;
}

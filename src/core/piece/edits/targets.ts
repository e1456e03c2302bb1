import type { Draft } from 'immer';
import { chainOf, findMacro, sameTarget, slotsIn } from '../find';
import type { EffectTarget, Piece, Target } from '../piece';
import { axesOf } from '../playField';

/** Removes the moves, links and fields of targets that no longer exist, and modulators without links. */
export function dropTargets(draft: Draft<Piece>, gone: (target: Target) => boolean): void {
  draft.lanes = draft.lanes.filter(({ target }) => !gone(target));
  draft.links = draft.links.filter(({ target }) => !gone(target));
  if (draft.controls) draft.controls = draft.controls.filter(({ target }) => !gone(target));
  if (draft.fields) draft.fields = draft.fields.filter((field) => !axesOf(field).some(({ target }) => gone(target)));
  dropIdle(draft);
}

/** Removes modulators without links. */
export function dropIdle(draft: Draft<Piece>): void {
  const turns = ({ id }: { readonly id: string }): boolean => draft.links.some(({ modulator }) => modulator === id);
  const isThere = ({ target }: { readonly target: Target }): boolean =>
    target.kind !== 'macro' || findMacro(draft, target.macro) !== undefined;
  draft.modulators = draft.modulators.filter(turns);
  // A macro's own moves are removed with it, and its modulators may have lost their last link.
  draft.lanes = draft.lanes.filter(isThere);
  draft.links = draft.links.filter(isThere);
  if (draft.controls) draft.controls = draft.controls.filter(isThere);
  if (draft.fields) draft.fields = draft.fields.filter((field) => axesOf(field).every(isThere));
  draft.modulators = draft.modulators.filter(turns);
}

/**
 * Moves that wait for a kind of effect are attached to it once it exists; where it has moves of its own, they go on
 * waiting.
 */
export function attachWaiting(draft: Draft<Piece>): void {
  for (const lane of draft.lanes) {
    const target = foundTarget(draft as Piece, lane.target);
    if (target && !draft.lanes.some((other) => sameTarget(other.target, target))) lane.target = target;
  }
}

/** The target that a waiting one is attached to, or null. */
function foundTarget(piece: Piece, target: Target): EffectTarget | null {
  if (target.kind !== 'awaited') return null;
  const { channel, effectKind, param } = target;
  const slot = slotsIn(chainOf(piece, channel)).find(({ effect }) => effect === effectKind);
  return slot ? { kind: 'effect', channel, effect: slot.id, param } : null;
}

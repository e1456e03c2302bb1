import type { Draft } from 'immer';
import { slotsIn } from '../find';
import type { Run } from '../../automation/modulator';
import type { Link, Piece, Slot } from '../piece';

/** Ids of effects, at any depth, and of those made from them. */
const copiesOf = (from: readonly Slot[], to: readonly Slot[]): Map<string, string> => {
  const made = slotsIn(to);
  return new Map(slotsIn(from).map(({ id }, i) => [id, made[i]!.id]));
};

/**
 * Gives copies of effects the links of their originals. A run of a hold that is copied is copied with it, so that each
 * has its own.
 * @param modulatorOf modulator of a copy: that of the original unless given
 */
export function carryLinks(
  draft: Draft<Piece>,
  links: readonly Link[],
  from: readonly Slot[],
  to: readonly Slot[],
  channel: string,
  modulatorOf: (id: string) => string = (id) => id,
): void {
  const copies = copiesOf(from, to);
  const first = to[0]?.id.slice(0, 40) ?? '';
  const runs = new Map<string, string>();
  const runFor = (id: string): string => {
    const run = draft.modulators.find((modulator) => modulator.id === id);
    const hold = run?.kind === 'run' && run.hold !== undefined ? copies.get(run.hold) : undefined;
    if (!run || !hold) return id;
    const known = runs.get(id);
    if (known) return known;
    const own = `${first}-run${runs.size}`;
    runs.set(id, own);
    draft.modulators.push({ ...run, id: own, hold } as Run);
    return own;
  };
  links.forEach((link, i) => {
    const { target } = link;
    const effect = target.kind === 'effect' ? copies.get(target.effect) : undefined;
    if (target.kind === 'effect' && effect)
      draft.links.push({
        ...link,
        id: `${first}-link${i}`,
        modulator: runFor(modulatorOf(link.modulator)),
        target: { ...target, channel, effect },
      });
  });
}

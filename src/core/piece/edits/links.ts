import * as z from 'zod';
import {
  makeModulator,
  modulatorChangeSchema,
  modulatorSchema,
  type Modulator,
  type ModulatorChange,
} from '../../automation/modulator';
import { defineEdit, EditRefused } from '../edit';
import { channelName, channelOfTarget, paramOf, sameTarget } from '../find';
import { laneSchema, linkSchema, targetSchema, type Link, type Piece } from '../piece';
import { putLane } from './lanes';
import { shareLength } from './runs';
import { dropIdle } from './targets';

/** Label of a modulator's change in the history. */
const CHANGE_NAMES: Readonly<Record<keyof ModulatorChange, string>> = {
  name: 'Name',
  kind: 'Kind',
  rate: 'Rate',
  shape: 'Shape',
  form: 'Drawn form',
  phase: 'Phase',
  roll: 'Roll',
  onceFrom: 'Once or again and again',
  once: 'Once or again and again',
  sharesLength: 'Shared length',
  steps: 'Steps',
  off: 'Steps that are on',
  on: 'On or off',
  glide: 'Glide',
  chance: 'Chance',
  level: 'Level',
  follows: 'Track that is followed',
  hold: 'Hold that it begins with',
  attackMs: 'Attack',
  releaseMs: 'Release',
};

const changedText = (change: ModulatorChange): string =>
  [...new Set(Object.keys(change).map((key) => CHANGE_NAMES[key as keyof ModulatorChange]))].join(', ');

const nameOf = (piece: Piece, id: string): string =>
  piece.modulators.find((made) => made.id === id)?.name ?? 'modulator';

const turnsMacro = ({ target }: Pick<Link, 'target'>): boolean => target.kind === 'macro';

/** Links a modulator to a parameter; one that does not exist is created. */
export const addLink = defineEdit({
  name: 'addLink',
  args: z.strictObject({ modulator: modulatorSchema, link: linkSchema }),
  label: ({ modulator, link }, before) =>
    `Let ${modulator.name} turn ${paramOf(before, link.target)?.label.toLowerCase() ?? 'a parameter'} on ${channelName(before, channelOfTarget(link.target))}`,
  apply: (draft, { modulator, link }) => {
    if (turnsMacro(link) && modulator.kind === 'macro')
      throw new EditRefused('A macro is not turned by a macro. Link an LFO, steps, a drift or a follower to it.');
    if (!paramOf(draft, link.target)) throw new EditRefused('What the link would turn is no longer in the piece.');
    if (link.modulator !== modulator.id || draft.links.some(({ id }) => id === link.id))
      throw new EditRefused('That link is in the piece already.');
    if (draft.links.some((other) => other.modulator === modulator.id && sameTarget(other.target, link.target)))
      throw new EditRefused(`${modulator.name} turns that already: change its depth instead.`);
    if (!draft.modulators.some(({ id }) => id === modulator.id)) draft.modulators.push(modulator);
    draft.links.push(link);
  },
});

/** Sets depth, curve and range of a link; null stands for the whole rail. */
export const setLink = defineEdit({
  name: 'setLink',
  args: z.strictObject({
    link: z.string(),
    depth: linkSchema.shape.depth.optional(),
    curve: linkSchema.shape.curve,
    range: linkSchema.shape.range.nullable(),
  }),
  label: ({ depth, curve, range }) =>
    depth !== undefined
      ? `Link depth ${Math.round(depth * 100)} %`
      : curve !== undefined
        ? `Link curve ${Math.round(curve * 100)} %`
        : range
          ? 'Range of a link'
          : 'Link over the whole rail',
  apply: (draft, { link, depth, curve, range }) => {
    const found = draft.links.find(({ id }) => id === link);
    if (!found) throw new EditRefused('That link is no longer in the piece.');
    if (depth !== undefined) found.depth = depth;
    if (curve !== undefined) found.curve = curve;
    if (range) found.range = { low: Math.min(range.low, range.high), high: Math.max(range.low, range.high) };
    else if (range === null) delete found.range;
  },
});

/** Removes a link, and its modulator when it has no other link. */
export const removeLink = defineEdit({
  name: 'removeLink',
  args: z.strictObject({ link: z.string() }),
  label: ({ link }, before) =>
    `Remove a link of ${nameOf(before, before.links.find(({ id }) => id === link)?.modulator ?? '')}`,
  apply: (draft, { link }) => {
    draft.links = draft.links.filter(({ id }) => id !== link);
    dropIdle(draft);
  },
});

/** Sets fields of a modulator. One that changes its kind keeps the fields that both kinds have. */
export const setModulator = defineEdit({
  name: 'setModulator',
  args: z.strictObject({ modulator: z.string(), change: modulatorChangeSchema }),
  label: ({ modulator, change }, before) => `${changedText(change)} of ${nameOf(before, modulator)}`,
  apply: (draft, { modulator, change }) => {
    const at = draft.modulators.findIndex(({ id }) => id === modulator);
    const found = draft.modulators[at];
    if (!found) throw new EditRefused('That modulator is no longer in the piece.');
    if (change.kind === 'macro' && draft.links.some((link) => link.modulator === modulator && turnsMacro(link)))
      throw new EditRefused('It turns a macro, so it cannot become one itself.');
    if (change.kind === undefined || change.kind === found.kind) assignOwn(found, change);
    else draft.modulators[at] = makeModulator(change.kind, { ...found, ...change });
    const changed = draft.modulators[at]!;
    if (changed.kind === 'run') shareLength(draft, changed, change.sharesLength === true || change.hold !== undefined);
    dropIdle(draft);
  },
});

/** @throws EditRefused when a field is not one of the modulator's kind */
function assignOwn(modulator: Modulator, change: ModulatorChange): void {
  const changed = modulatorSchema.safeParse({ ...modulator, ...change });
  if (!changed.success) throw new EditRefused(`${modulator.name} has no such setting.`);
  Object.assign(modulator, change);
}

/**
 * Converts the links of a parameter to moves, and removes the links, or disables them over that range: the sound is
 * unchanged.
 */
export const linksToMoves = defineEdit({
  name: 'linksToMoves',
  args: z.strictObject({
    target: targetSchema,
    lane: laneSchema,
    within: z.strictObject({ start: z.number().min(0), end: z.number().positive() }).optional(),
  }),
  label: ({ target }, before) =>
    `Write links of ${paramOf(before, target)?.label.toLowerCase() ?? 'a parameter'} as moves`,
  apply: (draft, { target, lane, within }) => {
    putLane(draft, lane);
    if (within) {
      for (const link of draft.links) if (sameTarget(link.target, target)) link.rests = [...(link.rests ?? []), within];
      return;
    }
    draft.links = draft.links.filter((link) => !sameTarget(link.target, target));
    dropIdle(draft);
  },
});

import * as z from 'zod';
import { defineEdit, EditRefused } from '../edit';
import { channelName, channelOfTarget, paramOf, sameTarget } from '../find';
import { controlSchema, MAX_CONTROLS, type Piece, type Target } from '../piece';

const nameOf = (piece: Piece, target: Target | undefined): string =>
  target
    ? `${paramOf(piece, target)?.label.toLowerCase() ?? 'a parameter'} of ${channelName(piece, channelOfTarget(target))}`
    : 'a parameter';

/** Maps a control of a controller to a parameter, replacing the previous one. One control may move several. */
export const mapControl = defineEdit({
  name: 'mapControl',
  args: z.strictObject({ control: controlSchema }),
  label: ({ control }, before) => `Control ${control.number} moves ${nameOf(before, control.target)}`,
  apply: (draft, { control }) => {
    if (!paramOf(draft as Piece, control.target))
      throw new EditRefused('What the control would move is no longer in the piece.');
    const others = (draft.controls ?? []).filter(({ target }) => !sameTarget(target, control.target));
    if (others.length >= MAX_CONTROLS)
      throw new EditRefused(`${MAX_CONTROLS} rails can be moved by controls. Let one go first.`);
    draft.controls = [...others, control];
  },
});

export const unmapControl = defineEdit({
  name: 'unmapControl',
  args: z.strictObject({ control: z.string() }),
  label: ({ control }, before) =>
    `Let no control move ${nameOf(before, before.controls?.find(({ id }) => id === control)?.target)}`,
  apply: (draft, { control }) => {
    draft.controls = (draft.controls ?? []).filter(({ id }) => id !== control);
  },
});

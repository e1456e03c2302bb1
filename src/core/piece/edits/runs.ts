import * as z from 'zod';
import type { Run } from '../../automation/modulator';
import { defineEdit, EditRefused } from '../edit';
import type { Piece } from '../piece';

/** The runs that begin with a hold. @param hold its id */
export const runsOf = (piece: Pick<Piece, 'modulators'>, hold: string): Run[] =>
  piece.modulators.filter((modulator): modulator is Run => modulator.kind === 'run' && modulator.hold === hold);

/** Switches all runs of a hold on or off, or rolls them anew: the first gets `roll`, the next `roll` + 1, and so on. */
export const setRuns = defineEdit({
  name: 'setRuns',
  args: z.strictObject({
    hold: z.string(),
    on: z.boolean().optional(),
    roll: z.number().int().min(0).max(999).optional(),
  }),
  label: ({ on, roll }) =>
    roll !== undefined ? 'Randomise all runs of a hold' : on ? 'All runs of a hold on' : 'All runs of a hold off',
  apply: (draft, { hold, on, roll }) => {
    const runs = runsOf(draft, hold);
    if (runs.length === 0) throw new EditRefused('That hold has no runs: add one to a figure first.');
    runs.forEach((run, i) => {
      if (on !== undefined) run.on = on;
      if (roll !== undefined) run.roll = (roll + i) % 1000;
    });
  },
});

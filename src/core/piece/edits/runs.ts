import * as z from 'zod';
import type { Run } from '../../automation/modulator';
import { defineEdit, EditRefused } from '../edit';
import type { Piece } from '../piece';

/** The runs that begin with a hold. @param hold its id */
export const runsOf = (piece: Pick<Piece, 'modulators'>, hold: string): Run[] =>
  piece.modulators.filter((modulator): modulator is Run => modulator.kind === 'run' && modulator.hold === hold);

/** Truncates steps to a count, or repeats them up to it. */
export const resizedSteps = (steps: readonly number[], count: number): number[] =>
  Array.from({ length: count }, (_, i) => steps[i % steps.length]!);

/**
 * Gives runs of a hold that share their length the same number of steps and the same rate.
 * @param run the run that was changed; the others take its length
 * @param joins true when it has just begun to share its length: it takes that of the others
 */
export function shareLength(draft: Pick<Piece, 'modulators'>, run: Run, joins: boolean): void {
  if (!run.sharesLength || run.hold === undefined) return;
  const others = runsOf(draft, run.hold).filter((other) => other.sharesLength && other.id !== run.id);
  const [from, to] = joins && others[0] ? [others[0], [run]] : [run, others];
  for (const other of to) {
    other.rate = from.rate;
    if (other.steps.length === from.steps.length) continue;
    other.steps = resizedSteps(other.steps, from.steps.length);
    other.off = other.off.filter((step) => step < other.steps.length);
  }
}

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

import * as z from 'zod';
import { defineEdit, EditRefused } from '../edit';
import { metreName } from '../../music/metre';
import { metreSchema, sectionSchema, type Piece } from '../piece';

const nameOf = (piece: Piece, id: string): string =>
  piece.sections?.find((section) => section.id === id)?.name ?? 'section';

/** Adds the beginning of a section; an existing one at this beat is renamed. */
export const putSection = defineEdit({
  name: 'putSection',
  args: sectionSchema,
  label: ({ name }) => `Section ${name}`,
  apply: (draft, section) => {
    if (section.beat >= draft.lengthBeats) throw new EditRefused('That lies beyond the end of the piece.');
    const same = (draft.sections ?? []).find(({ id }) => id === section.id);
    const others = (draft.sections ?? []).filter(
      ({ id, beat }) => id !== section.id && Math.abs(beat - section.beat) > 1e-6,
    );
    draft.sections = [...others, same?.metre ? { metre: same.metre, ...section } : section].sort(
      (a, b) => a.beat - b.beat,
    );
  },
});

/** Gives a section a metre of its own; null removes it. */
export const setSectionMetre = defineEdit({
  name: 'setSectionMetre',
  args: z.strictObject({ section: z.string(), metre: metreSchema.nullable() }),
  label: ({ section, metre }, before) =>
    `${metre ? `Metre ${metreName(metre)}` : 'Metre as before'} from ${nameOf(before, section)} on`,
  apply: (draft, { section, metre }) => {
    const found = draft.sections?.find(({ id }) => id === section);
    if (!found) throw new EditRefused('That section is no longer in the piece.');
    if (metre) found.metre = metre;
    else delete found.metre;
  },
});

export const removeSection = defineEdit({
  name: 'removeSection',
  args: z.strictObject({ section: z.string() }),
  label: ({ section }, before) => `Remove section ${nameOf(before, section)}`,
  apply: (draft, { section }) => {
    draft.sections = (draft.sections ?? []).filter(({ id }) => id !== section);
  },
});

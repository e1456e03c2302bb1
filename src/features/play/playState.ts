import { create } from 'zustand';
import * as z from 'zod';
import { GRIDS } from '../../core/effects/hold/params';
import { readStored, writeStored } from '../../data/browserStorage';

/** What the pads in the middle of Play do. */
export const PAD_KINDS = ['throws', 'freezes', 'mutes', 'strands', 'snapshots'] as const;
export type PadKind = (typeof PAD_KINDS)[number];

/** Parameters of a hold that the velocity and the aftertouch of its note move; null for none. */
const expressionSchema = z.strictObject({ velocity: z.string().nullable(), aftertouch: z.string().nullable() });
export type NoteExpression = z.infer<typeof expressionSchema>;
export const NO_EXPRESSION: NoteExpression = { velocity: null, aftertouch: null };

/** A part that cannot be read begins anew; the others stay as they were. */
const settingsSchema = z.object({
  pads: z.enum(PAD_KINDS).catch('throws'),
  /** What throws, freezes, mutes and snapshots wait for. */
  grid: z.enum(GRIDS).catch('free'),
  /** Kinds of pads that a tap switches and another switches back, instead of being held. */
  latched: z.array(z.enum(PAD_KINDS)).catch(['freezes', 'mutes']),
  /** By the effects' ids. */
  expressions: z.record(z.string(), expressionSchema).catch({}),
});
type Settings = z.infer<typeof settingsSchema>;

const KEPT = 'zephiro.play';
const START: Settings = settingsSchema.parse({});

interface PlayState extends Settings {
  /** The field in view; the first when it is gone. */
  readonly field: string | null;
  /** The track that is thrown; the first when it is gone. */
  readonly thrown: string | null;
  /** The hold whose figures are shown, by its effect. */
  readonly hold: string | null;
  set(change: Partial<Omit<PlayState, 'set'>>): void;
}

/** How Play is set up on this device. */
export const usePlayState = create<PlayState>((set, get) => ({
  ...readStored(KEPT, settingsSchema, START),
  field: null,
  thrown: null,
  hold: null,
  set: (change) => {
    set(change);
    const { pads, grid, latched, expressions } = get();
    writeStored(KEPT, { pads, grid, latched, expressions } satisfies Settings);
  },
}));

import { create } from 'zustand';
import * as z from 'zod';
import { GRIDS } from '../../core/effects/hold/params';

/** What the pads in the middle of Play do. */
export const PAD_KINDS = ['throws', 'freezes', 'mutes', 'snapshots'] as const;
export type PadKind = (typeof PAD_KINDS)[number];

/** Figures of a hold that a note moves by its force: how hard it is struck, and how hard it is pressed then. */
const forcesSchema = z.strictObject({ struck: z.string().nullable(), pressed: z.string().nullable() });
export type Forces = z.infer<typeof forcesSchema>;
export const NO_FORCES: Forces = { struck: null, pressed: null };

const settingsSchema = z.strictObject({
  pads: z.enum(PAD_KINDS),
  /** What throws, freezes, mutes and snapshots wait for. */
  grid: z.enum(GRIDS),
  /** Kinds of pads that a tap switches and another switches back, instead of being held. */
  latched: z.array(z.enum(PAD_KINDS)),
  /** By the effects' ids. */
  forces: z.record(z.string(), forcesSchema),
});
type Settings = z.infer<typeof settingsSchema>;

const KEPT = 'zephiro.play';
const START: Settings = { pads: 'throws', grid: 'free', latched: ['freezes', 'mutes'], forces: {} };

function kept(): Settings {
  try {
    return settingsSchema.parse(JSON.parse(localStorage.getItem(KEPT) ?? 'null'));
  } catch {
    return START;
  }
}

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
  ...kept(),
  field: null,
  thrown: null,
  hold: null,
  set: (change) => {
    set(change);
    const { pads, grid, latched, forces } = get();
    localStorage.setItem(KEPT, JSON.stringify({ pads, grid, latched, forces } satisfies Settings));
  },
}));

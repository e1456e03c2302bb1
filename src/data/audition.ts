import { create } from 'zustand';
import type { Hear } from '../core/engine/slot';
import type { Monitor } from '../core/engine/monitor';
import type { Slot } from '../core/piece/piece';

/** What is heard instead of the piece; the piece itself is not changed. */
interface Audition {
  /** The effect whose editor is open: `hear` and `matched` apply to it. */
  readonly metered: { readonly channel: string; readonly slot: string } | null;
  readonly hear: Hear;
  readonly matched: boolean;
  /** Another chain that is heard on a channel for comparing. */
  readonly audition: { readonly channel: string; readonly chain: readonly Slot[]; readonly gainDb: number } | null;
  /** How the main output is listened to. */
  readonly monitor: Monitor;
  /** While held down, the whole piece is heard without effects. */
  readonly comparing: boolean;
}

export const useAudition = create<Audition>(() => ({
  metered: null,
  hear: 'mix',
  matched: false,
  audition: null,
  monitor: 'stereo',
  comparing: false,
}));

import { create } from 'zustand';
import type { Hear } from '../core/engine/slot';
import type { Monitor } from '../core/engine/monitor';
import type { Slot } from '../core/piece/piece';

/** What is heard instead of the piece as it is; the piece itself stays. */
interface Audition {
  /** The effect whose editor is open: what `hear` and `matched` are about. */
  readonly metered: { readonly channel: string; readonly slot: string } | null;
  readonly hear: Hear;
  readonly matched: boolean;
  /** Another chain that is heard on a channel for comparing. */
  readonly audition: { readonly channel: string; readonly chain: readonly Slot[]; readonly gainDb: number } | null;
  /** How the main output is listened to. */
  readonly monitor: Monitor;
  /** Held down: the whole piece is heard untreated for as long. */
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

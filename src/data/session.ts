import { create } from 'zustand';
import type { Hear } from '../core/engine/slot';

/** What this window is doing; not part of the piece. */
interface Session {
  /** Channel and effect in view. */
  channel: string;
  slot: string | null;
  clip: string | null;
  /** Stretch chosen on the ruler, in beats. */
  range: { readonly start: number; readonly end: number } | null;
  /** Doublings of the time scale over fitting the whole piece. */
  zoom: number;
  playing: boolean;
  /** Moves of the rails are recorded while playing. */
  armed: boolean;
  hear: Hear;
  /** Held down: the untreated sound is heard for as long. */
  comparing: boolean;
  matched: boolean;
  set(change: Partial<Omit<Session, 'set'>>): void;
}

export const useSession = create<Session>((set) => ({
  channel: 'hum',
  slot: null,
  clip: null,
  range: null,
  zoom: 0,
  playing: false,
  armed: false,
  hear: 'mix',
  comparing: false,
  matched: false,
  set: (change) => set(change),
}));

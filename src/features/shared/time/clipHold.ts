import { create } from 'zustand';
import type { Clip, Piece } from '../../../core/piece/piece';

/** A part of a clip that a hand can have. */
export type Grip = 'start' | 'move' | 'end';

/** A clip in the hand: the piece as it would be if it let go now. */
export interface Held {
  readonly piece: Piece;
  readonly clip: Clip;
  readonly grip: Grip;
  /** The hand is far off the clip and moves it slowly. */
  readonly slow: boolean;
}

/** What the hand holds, for the lens that shows it larger. */
export const useClipHold = create<{ readonly held: Held | null }>(() => ({ held: null }));

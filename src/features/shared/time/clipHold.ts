import { create } from 'zustand';
import type { Clip, Piece } from '../../../core/piece/piece';

/** A part of a clip that can be dragged. */
export type Grip = 'start' | 'move' | 'end';

/** A dragged clip: the piece as it would be on release. */
export interface Held {
  readonly piece: Piece;
  readonly clip: Clip;
  readonly grip: Grip;
  /** The pointer is far from the clip, so that it moves slowly. */
  readonly slow: boolean;
}

/** The dragged part, for the lens that magnifies it. */
export const useClipHold = create<{ readonly held: Held | null }>(() => ({ held: null }));

import { create } from 'zustand';
import type { LaneRange } from '../core/piece/moves/laneRange';

/** Moves that were copied, and how their values go to another rail. */
interface Clipboard {
  readonly clipboard: readonly LaneRange[];
  readonly pasteBy: 'position' | 'value';
}

export const useClipboard = create<Clipboard>(() => ({ clipboard: [], pasteBy: 'position' }));

import { create } from 'zustand';
import type { LaneRange } from '../core/piece/moves/laneRange';

/** Copied moves, and how their values are mapped to another rail. */
interface Clipboard {
  readonly clipboard: readonly LaneRange[];
  readonly pasteBy: 'position' | 'value';
}

export const useClipboard = create<Clipboard>(() => ({ clipboard: [], pasteBy: 'position' }));

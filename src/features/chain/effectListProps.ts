import type { ReactNode } from 'react';
import type { Slot } from '../../core/piece/piece';

export interface EffectListProps {
  readonly slots: readonly Slot[];
  readonly onMove: (slot: string, to: number) => void;
  /** @param handle what it is dragged by; null while there is nothing to sort */
  readonly renderEffect: (slot: Slot, index: number, handle: ReactNode) => ReactNode;
}

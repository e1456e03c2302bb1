import { Fragment, lazy, Suspense, type ReactNode } from 'react';
import type { Slot } from '../../core/piece/piece';

export interface EffectListProps {
  readonly slots: readonly Slot[];
  readonly onMove: (slot: string, to: number) => void;
  /** @param handle what it is dragged by; null while there is nothing to sort */
  readonly renderEffect: (slot: Slot, index: number, handle: ReactNode) => ReactNode;
}

const SortableBeads = lazy(() =>
  import('./SortableEffectList').then((module) => ({ default: module.SortableEffectList })),
);

/**
 * The effects of a chain one under the other. Drag and drop is a large library: it comes only where there are two to
 * sort.
 */
export function EffectList(props: EffectListProps) {
  const plain = props.slots.map((slot, index) => (
    <Fragment key={slot.id}>{props.renderEffect(slot, index, null)}</Fragment>
  ));
  return props.slots.length < 2 ? (
    plain
  ) : (
    <Suspense fallback={plain}>
      <SortableBeads {...props} />
    </Suspense>
  );
}

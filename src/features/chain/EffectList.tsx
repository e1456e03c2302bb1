import type { EffectListProps } from './effectListProps';
import { Fragment, lazy, Suspense } from 'react';

const SortableEffectList = lazy(() =>
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
      <SortableEffectList {...props} />
    </Suspense>
  );
}

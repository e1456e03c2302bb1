import type { EffectListProps } from './effectListProps';
import { Fragment, lazy, Suspense, type ComponentType } from 'react';

/** Without handles: effects are moved by their menus. */
const PlainEffectList = ({ slots, renderEffect }: EffectListProps) =>
  slots.map((slot, index) => <Fragment key={slot.id}>{renderEffect(slot, index, null)}</Fragment>);

const SortableEffectList = lazy<ComponentType<EffectListProps>>(() =>
  import('./SortableEffectList').then(
    (module) => ({ default: module.SortableEffectList }),
    // The server is away: the chain is shown all the same.
    () => ({ default: PlainEffectList }),
  ),
);

/**
 * The effects of a chain one under the other. Drag and drop is a large library: it is loaded only where there are two
 * to sort.
 */
export function EffectList(props: EffectListProps) {
  return props.slots.length < 2 ? (
    <PlainEffectList {...props} />
  ) : (
    <Suspense fallback={<PlainEffectList {...props} />}>
      <SortableEffectList {...props} />
    </Suspense>
  );
}

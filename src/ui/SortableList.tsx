import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  MouseSensor,
  PointerSensor,
  TouchSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
  type Modifier,
  type ScreenReaderInstructions,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import type { ReactNode } from 'react';
import { Icon } from 'react-native-paper';
import { useReducedMotion } from './motion';
import { useTokens } from './theme';
import { TOUCH } from './tokens';

/** A press becomes a drag after so many pixels. */
const SLACK_PX = 5;
/** A finger that rests so long on an item takes it along; before, it scrolls. */
const REST = { delay: 250, tolerance: SLACK_PX };

const alongTheList: Modifier = ({ transform }) => ({ ...transform, x: 0 });

const INSTRUCTIONS: ScreenReaderInstructions = {
  draggable: 'Space picks it up, the arrow keys move it, Space puts it down, Escape puts it back.',
};

interface SortableListProps<Item> {
  readonly items: readonly Item[];
  readonly keyOf: (item: Item) => string;
  /** What an item is called by its handle. */
  readonly nameOf: (item: Item) => string;
  /** An item was put down at another index. */
  readonly onMove: (key: string, to: number) => void;
  /** Whether items are dragged anywhere, by a mouse or a finger that rests on them; else by their handles. */
  readonly anywhere?: boolean;
  /**
   * @param handle what it is dragged by, with a finger, a mouse or the keys; null while there is nothing to sort, or
   * where an item is dragged anywhere
   */
  readonly renderItem: (item: Item, index: number, handle: ReactNode) => ReactNode;
}

/** Items one under the other, whose order is changed by their handles. */
export function SortableList<Item>({ items, keyOf, nameOf, onMove, anywhere, renderItem }: SortableListProps<Item>) {
  const byHandle = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: SLACK_PX } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const byItem = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: SLACK_PX } }),
    useSensor(TouchSensor, { activationConstraint: REST }),
  );
  const keys = items.map(keyOf);
  if (items.length < 2) return items.map((item, i) => <div key={keys[i]}>{renderItem(item, i, null)}</div>);
  const name = (key: string | number): string => nameOf(items[keys.indexOf(String(key))]!);
  const end = ({ active, over }: DragEndEvent): void => {
    if (over && over.id !== active.id) onMove(String(active.id), keys.indexOf(String(over.id)));
  };
  const at = (key: string | number): string => `position ${keys.indexOf(String(key)) + 1} of ${keys.length}`;
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${name(active.id)} picked up, ${at(active.id)}`,
    onDragOver: ({ active, over }) =>
      over && over.id !== active.id ? `${name(active.id)} at ${at(over.id)}` : undefined,
    onDragEnd: ({ active, over }) => `${name(active.id)} put down at ${at((over ?? active).id)}`,
    onDragCancel: ({ active }) => `${name(active.id)} back at ${at(active.id)}`,
  };
  return (
    <DndContext
      sensors={anywhere ? byItem : byHandle}
      collisionDetection={closestCenter}
      modifiers={[alongTheList]}
      accessibility={{ announcements, screenReaderInstructions: INSTRUCTIONS }}
      onDragEnd={end}
    >
      <SortableContext items={keys} strategy={verticalListSortingStrategy}>
        {items.map((item, i) => (
          <SortableItem
            key={keys[i]}
            id={keys[i]!}
            name={`${nameOf(item)}, ${i + 1} of ${keys.length}`}
            anywhere={anywhere ?? false}
          >
            {(handle) => renderItem(item, i, handle)}
          </SortableItem>
        ))}
      </SortableContext>
    </DndContext>
  );
}

interface SortableItemProps {
  readonly id: string;
  readonly name: string;
  readonly anywhere: boolean;
  readonly children: (handle: ReactNode) => ReactNode;
}

function SortableItem({ id, name, anywhere, children }: SortableItemProps) {
  const tokens = useTokens();
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id,
    transition: useReducedMotion() ? null : undefined,
  });
  const handle = anywhere ? null : (
    <div ref={setActivatorNodeRef} {...attributes} {...listeners} aria-label={`Move ${name}`} style={HANDLE}>
      <Icon source="menu" size={19} color={tokens.mute} />
    </div>
  );
  return (
    <div
      ref={setNodeRef}
      {...(anywhere ? listeners : {})}
      style={{
        position: 'relative',
        backgroundColor: isDragging ? tokens.card : undefined,
        transform: transform ? `translateY(${transform.y}px)` : undefined,
        transition,
        zIndex: isDragging ? 1 : undefined,
      }}
    >
      {children(handle)}
    </div>
  );
}

const HANDLE = {
  width: TOUCH,
  height: TOUCH,
  display: 'flex',
  alignItems: 'center',
  justifyContent: 'center',
  cursor: 'grab',
  touchAction: 'none',
} as const;

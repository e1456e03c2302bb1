import { useEffect, useRef, type RefObject } from 'react';
import type { View } from 'react-native';
import { elementOf } from './frame';

/** What the Tab key would stop at. Of what is disabled nothing takes the focus. */
const STOPS = 'a[href], button, [tabindex]';

interface RovingFocus {
  /** What takes the focus, as a selector; all that the Tab key stops at where it is left out. */
  readonly items?: string;
  /** The item that is stopped at first, as a selector; the first of all where there is none. */
  readonly first?: string;
  /** Selector of a row: up and down go to the same index of the row above or below. */
  readonly rows?: string;
  /** False where other keys choose the item. */
  readonly arrows?: boolean;
  /** Called when an arrow has moved the focus. */
  readonly onMove?: (item: HTMLElement) => void;
}

/**
 * Makes a group one stop of the Tab key, whatever the number of its items: arrows, Home and End go on within it.
 * Source: WAI-ARIA Authoring Practices 1.2, "Developing a Keyboard Interface", roving tabindex.
 */
export function useRovingFocus(view: RefObject<View | null>, focus: RovingFocus = {}): void {
  const latest = useRef(focus);
  useEffect(() => {
    latest.current = focus;
  });
  useEffect(() => {
    const group = elementOf(view.current);
    return group ? rove(group, () => latest.current) : undefined;
  }, [view]);
}

const itemsOf = (group: HTMLElement, { items = STOPS }: RovingFocus): HTMLElement[] =>
  [...group.querySelectorAll<HTMLElement>(items)].filter(
    (item) => item.getAttribute('aria-disabled') !== 'true' && !item.closest('[aria-hidden=true]'),
  );

function rove(group: HTMLElement, settings: () => RovingFocus): () => void {
  let here: HTMLElement | null = null;
  const mark = (): void => {
    const all = itemsOf(group, settings());
    const { first } = settings();
    const kept = here && all.includes(here) ? here : null;
    const stop = kept ?? (first ? all.find((item) => item.matches(first)) : undefined) ?? all[0];
    for (const item of all) {
      const wanted = item === stop ? '0' : '-1';
      if (item.getAttribute('tabindex') !== wanted) item.setAttribute('tabindex', wanted);
    }
  };
  const enter = (event: FocusEvent): void => {
    const item = itemsOf(group, settings()).find((one) => one === event.target);
    if (!item) return;
    here = item;
    mark();
  };
  const press = (event: KeyboardEvent): void => {
    const { arrows = true, onMove } = settings();
    const all = itemsOf(group, settings());
    const at = all.indexOf(event.target as HTMLElement);
    if (!arrows || at < 0 || event.altKey || event.ctrlKey || event.metaKey || event.shiftKey) return;
    const to = nextItem(all, at, event.key, settings());
    if (!to) return;
    event.preventDefault();
    to.focus();
    onMove?.(to);
  };
  const changes = new MutationObserver(mark);
  changes.observe(group, { childList: true, subtree: true, attributes: true, attributeFilter: ['tabindex'] });
  group.addEventListener('focusin', enter);
  group.addEventListener('keydown', press);
  mark();
  return () => {
    changes.disconnect();
    group.removeEventListener('focusin', enter);
    group.removeEventListener('keydown', press);
  };
}

/** Where a key leads from an item; nothing for a key that leads nowhere. */
function nextItem(
  all: readonly HTMLElement[],
  at: number,
  key: string,
  { rows }: RovingFocus,
): HTMLElement | undefined {
  const forward = key === 'ArrowRight' || key === 'ArrowDown';
  if (key === 'Home') return all[0];
  if (key === 'End') return all[all.length - 1];
  if (!forward && key !== 'ArrowLeft' && key !== 'ArrowUp') return undefined;
  const step = forward ? 1 : -1;
  if (rows === undefined || key === 'ArrowLeft' || key === 'ArrowRight') return all[at + step];
  const inRow = (row: Element | null): HTMLElement[] => all.filter((item) => item.closest(rows) === row);
  const own = all[at]!.closest(rows);
  const inOrder = [...new Set(all.map((item) => item.closest(rows)))];
  const next = inOrder[inOrder.indexOf(own) + step];
  if (next === undefined) return undefined;
  const column = inRow(own).indexOf(all[at]!);
  const there = inRow(next);
  return there[Math.min(column, there.length - 1)];
}

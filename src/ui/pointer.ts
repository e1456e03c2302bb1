import { useEffect, useRef, type RefObject } from 'react';
import type { View } from 'react-native';
import { elementOf } from './frame';
import { markHand } from './handTime';

export interface Drag {
  /** Where it began and is now, in pixels from the element's left top corner. */
  readonly startX: number;
  readonly startY: number;
  readonly x: number;
  readonly y: number;
  /** Since the last call. */
  readonly dx: number;
  readonly dy: number;
  readonly width: number;
  readonly height: number;
}

export interface DragHandlers {
  /**
   * Whether a finger put down here is meant for the view; else the page scrolls under it. Left out, all fingers are.
   */
  takes?(x: number, y: number): boolean;
  /** A finger or mouse moved far enough to mean it; false leaves the gesture alone. */
  begin(drag: Drag): boolean | void;
  move(drag: Drag): void;
  /** `cancelled` when the browser took the gesture for scrolling. */
  end(drag: Drag, cancelled: boolean): void;
  /** Pressed and let go without moving. @param again soon after another tap */
  tap?(drag: Drag, again: boolean): void;
}

/** Movement before a touch counts as a drag, so that scrolling past sets nothing. */
const SLOP_PX = 4;
const DOUBLE_TAP_MS = 320;

/**
 * Pointer dragging with capture on a view.
 * @param scrolls the direction in which the page may still scroll from here
 */
export function useDrag(
  view: RefObject<View | null>,
  handlers: DragHandlers,
  scrolls: 'pan-y' | 'pan-x' | 'pan-x pan-y' | 'none' = 'pan-y',
): void {
  const latest = useRef(handlers);
  useEffect(() => {
    latest.current = handlers;
  });
  useEffect(() => {
    const element = elementOf(view.current);
    if (!element) return undefined;
    element.style.touchAction = scrolls;
    // A drag selects no text, and is never the browser's own drag of what is selected.
    element.style.userSelect = 'none';
    return listen(element, () => latest.current);
  }, [view, scrolls]);
}

function listen(element: HTMLElement, handlers: () => DragHandlers): () => void {
  let pointer = -1;
  let begun = false;
  let tappedAt = -Infinity;
  let start = { x: 0, y: 0 };
  let last = { x: 0, y: 0 };
  // The box at the beginning of the press: the dragged element may move under the finger.
  let box = element.getBoundingClientRect();
  const drag = (event: PointerEvent): Drag => {
    const x = event.clientX - box.left;
    const y = event.clientY - box.top;
    const made = {
      startX: start.x,
      startY: start.y,
      x,
      y,
      dx: x - last.x,
      dy: y - last.y,
      width: box.width,
      height: box.height,
    };
    last = { x, y };
    return made;
  };
  const down = (event: PointerEvent): void => {
    if (pointer >= 0 || event.button !== 0) return;
    pointer = event.pointerId;
    begun = false;
    box = element.getBoundingClientRect();
    start = { x: event.clientX - box.left, y: event.clientY - box.top };
    last = start;
    element.setPointerCapture(pointer);
  };
  const move = (event: PointerEvent): void => {
    if (event.pointerId !== pointer) return;
    const far = Math.hypot(event.clientX - box.left - start.x, event.clientY - box.top - start.y);
    if (!begun && far < SLOP_PX) return;
    markHand(event);
    const now = drag(event);
    if (!begun) {
      begun = true;
      if (handlers().begin(now) === false) {
        pointer = -1;
        return;
      }
    }
    handlers().move(now);
  };
  const finish = (event: PointerEvent, cancelled: boolean): void => {
    if (event.pointerId !== pointer) return;
    pointer = -1;
    markHand(event);
    const now = drag(event);
    if (begun) handlers().end(now, cancelled);
    else if (!cancelled) {
      handlers().tap?.(now, event.timeStamp - tappedAt < DOUBLE_TAP_MS);
      tappedAt = event.timeStamp;
    }
  };
  const up = (event: PointerEvent): void => finish(event, false);
  const cancel = (event: PointerEvent): void => finish(event, true);
  const hold = (event: TouchEvent): void => {
    const at = event.touches[0];
    if (!at || event.touches.length > 1) return;
    const { left, top } = element.getBoundingClientRect();
    if (handlers().takes?.(at.clientX - left, at.clientY - top)) event.preventDefault();
  };
  const noNativeDrag = (event: Event): void => event.preventDefault();
  element.addEventListener('dragstart', noNativeDrag);
  element.addEventListener('touchstart', hold, { passive: false });
  element.addEventListener('pointerdown', down);
  element.addEventListener('pointermove', move);
  element.addEventListener('pointerup', up);
  element.addEventListener('pointercancel', cancel);
  return () => {
    element.removeEventListener('dragstart', noNativeDrag);
    element.removeEventListener('touchstart', hold);
    element.removeEventListener('pointerdown', down);
    element.removeEventListener('pointermove', move);
    element.removeEventListener('pointerup', up);
    element.removeEventListener('pointercancel', cancel);
  };
}

/** Keys pressed while a view has the focus; return true for one that was used. */
export function useKeys(view: RefObject<View | null>, onKey: (event: KeyboardEvent) => boolean): void {
  const latest = useRef(onKey);
  useEffect(() => {
    latest.current = onKey;
  });
  useEffect(() => {
    const element = elementOf(view.current);
    if (!element) return undefined;
    const press = (event: KeyboardEvent): void => {
      markHand(event);
      if (event.target === element && latest.current(event)) {
        event.preventDefault();
        event.stopPropagation();
      }
    };
    element.addEventListener('keydown', press);
    return () => element.removeEventListener('keydown', press);
  }, [view]);
}

export interface HoldHandlers {
  begin(): void;
  end(): void;
}

const HOLD_KEYS = new Set([' ', 'Enter']);

/**
 * Whether a finger, the mouse or a key is down on a view, for as long as it is. Each view has its own pointer, so that
 * several are held at once; whatever takes the hand away (another window, a system gesture) lets go.
 */
export function useHold(view: RefObject<View | null>, handlers: HoldHandlers): void {
  const latest = useRef(handlers);
  useEffect(() => {
    latest.current = handlers;
  });
  useEffect(() => {
    const element = elementOf(view.current);
    if (!element) return undefined;
    element.style.touchAction = 'none';
    return listenForHolds(element, () => latest.current);
  }, [view]);
}

function listenForHolds(element: HTMLElement, handlers: () => HoldHandlers): () => void {
  let pointer: number | 'key' | null = null;
  const begin = (by: number | 'key', event: Event): void => {
    if (pointer !== null) return;
    pointer = by;
    markHand(event);
    handlers().begin();
  };
  const end = (event: Event): void => {
    if (pointer === null) return;
    pointer = null;
    markHand(event);
    handlers().end();
  };
  const listening = new AbortController();
  const on = { signal: listening.signal };
  element.addEventListener(
    'pointerdown',
    (event) => {
      if (event.button !== 0) return;
      element.setPointerCapture(event.pointerId);
      begin(event.pointerId, event);
    },
    on,
  );
  for (const name of ['pointerup', 'pointercancel', 'lostpointercapture'] as const)
    element.addEventListener(name, (event) => event.pointerId === pointer && end(event), on);
  element.addEventListener(
    'keydown',
    (event) => {
      if (!HOLD_KEYS.has(event.key)) return;
      event.preventDefault();
      event.stopPropagation();
      if (!event.repeat) begin('key', event);
    },
    on,
  );
  element.addEventListener('keyup', (event) => pointer === 'key' && HOLD_KEYS.has(event.key) && end(event), on);
  element.addEventListener('blur', (event) => pointer === 'key' && end(event), on);
  element.addEventListener('contextmenu', (event) => event.preventDefault(), on);
  window.addEventListener('blur', end, on);
  return () => {
    listening.abort();
    if (pointer !== null) handlers().end();
  };
}

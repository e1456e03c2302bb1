import { useEffect, useRef, type RefObject } from 'react';
import type { View } from 'react-native';
import { elementOf } from './frame';

/** The wheel over a control that has the focus; elsewhere it scrolls the page as always. */
export function useWheel(view: RefObject<View | null>, onTurn: (direction: 1 | -1) => void): void {
  const latest = useRef(onTurn);
  useEffect(() => {
    latest.current = onTurn;
  });
  useEffect(() => {
    const element = elementOf(view.current);
    if (!element) return undefined;
    const turn = (event: WheelEvent): void => {
      if (document.activeElement !== element || event.deltaY === 0) return;
      event.preventDefault();
      latest.current(event.deltaY < 0 ? 1 : -1);
    };
    element.addEventListener('wheel', turn, { passive: false });
    return () => element.removeEventListener('wheel', turn);
  }, [view]);
}

import { useEffect, useRef } from 'react';

/**
 * Gives the next keys to one listener, before anything else hears of them: a figure that is typed, a key that is to be
 * changed. A key that it uses goes no further.
 * @param onKey true for a key that was used; null while nothing is waited for
 */
export function useKeyCapture(onKey: ((event: KeyboardEvent) => boolean) | null): void {
  const latest = useRef(onKey);
  useEffect(() => {
    latest.current = onKey;
  });
  const waits = onKey !== null;
  useEffect(() => {
    if (!waits) return undefined;
    const press = (event: KeyboardEvent): void => {
      if (!latest.current?.(event)) return;
      event.preventDefault();
      event.stopPropagation();
    };
    window.addEventListener('keydown', press, true);
    return () => window.removeEventListener('keydown', press, true);
  }, [waits]);
}

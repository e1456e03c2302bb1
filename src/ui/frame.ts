import { useEffect, useRef } from 'react';

/** Calls back once for every frame the display shows. What it draws goes straight to elements, past React. */
export function useFrame(draw: () => void): void {
  const latest = useRef(draw);
  useEffect(() => {
    latest.current = draw;
  });
  useEffect(() => {
    let frame = requestAnimationFrame(function next() {
      latest.current();
      frame = requestAnimationFrame(next);
    });
    return () => cancelAnimationFrame(frame);
  }, []);
}

/** The element a React Native view stands for on the web. */
export const elementOf = (view: unknown): HTMLElement | null => (view instanceof HTMLElement ? view : null);

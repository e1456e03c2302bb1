import { useSyncExternalStore } from 'react';

const QUERY = '(prefers-reduced-motion: reduce)';
/** True when the system is set to reduced motion. */
export const wantsLessMotion = (): boolean => typeof matchMedia === 'function' && matchMedia(QUERY).matches;

function onChange(tell: () => void): () => void {
  if (typeof matchMedia !== 'function') return () => undefined;
  const query = matchMedia(QUERY);
  query.addEventListener('change', tell);
  return () => query.removeEventListener('change', tell);
}

/** The same, kept while it changes. */
export const useReducedMotion = (): boolean => useSyncExternalStore(onChange, wantsLessMotion);

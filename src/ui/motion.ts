import { useSyncExternalStore } from 'react';

const QUERY = '(prefers-reduced-motion: reduce)';
/** True when whoever looks has asked their system for less movement. */
export const wantsLessMotion = (): boolean => typeof matchMedia === 'function' && matchMedia(QUERY).matches;

function onChange(tell: () => void): () => void {
  if (typeof matchMedia !== 'function') return () => undefined;
  const query = matchMedia(QUERY);
  query.addEventListener('change', tell);
  return () => query.removeEventListener('change', tell);
}

/** The same, kept while it changes. */
export const useReducedMotion = (): boolean => useSyncExternalStore(onChange, wantsLessMotion);

/** True when whoever looks has asked their system for less movement. */
export const wantsLessMotion = (): boolean =>
  typeof matchMedia === 'function' && matchMedia('(prefers-reduced-motion: reduce)').matches;

import type * as z from 'zod';

/** What this browser keeps under a key; `fallback` where there is nothing, or nothing that the schema takes. */
export function readStored<T>(key: string, schema: z.ZodType<T>, fallback: T): T {
  try {
    return schema.parse(JSON.parse(localStorage.getItem(key) ?? 'null'));
  } catch {
    return fallback;
  }
}

export const writeStored = (key: string, value: unknown): void => localStorage.setItem(key, JSON.stringify(value));

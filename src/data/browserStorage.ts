import type * as z from 'zod';

/**
 * A value in the browser's storage; `fallback` where there is none, or an invalid one.
 * @param storage `sessionStorage` for what this window alone keeps
 */
export function readStored<T>(key: string, schema: z.ZodType<T>, fallback: T, storage = globalThis.localStorage): T {
  try {
    return schema.parse(JSON.parse(storage.getItem(key) ?? 'null'));
  } catch {
    return fallback;
  }
}

export const writeStored = (key: string, value: unknown, storage = globalThis.localStorage): void =>
  storage.setItem(key, JSON.stringify(value));

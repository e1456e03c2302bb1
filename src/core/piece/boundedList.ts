import * as z from 'zod';

const ITEMS = new WeakMap<z.ZodType, z.ZodType>();

/**
 * An array of at most `max` items that is refused at its first bad one. (`z.array` checks every item and collects what
 * is wrong with each, however long the array: a document of a few megabytes made of empty objects takes gigabytes to
 * refuse.)
 */
export function boundedList<T>(item: z.ZodType<T>, max: number, min = 0): z.ZodType<T[]> {
  const list = z
    .array(z.unknown())
    .min(min)
    .max(max)
    .transform((items, context): T[] => {
      const out: T[] = [];
      for (let i = 0; i < items.length; i += 1) {
        const read = item.safeParse(items[i]);
        if (!read.success) {
          const issue = read.error.issues[0];
          context.addIssue({ code: 'custom', message: issue?.message, path: [i, ...(issue?.path ?? [])] });
          return z.NEVER;
        }
        out.push(read.data);
      }
      return out;
    });
  ITEMS.set(list, item);
  return list;
}

/** The schema of the items of a bounded list, for descriptions of the API; undefined for any other schema. */
export const itemOfList = (schema: unknown): z.ZodType | undefined => ITEMS.get(schema as z.ZodType);

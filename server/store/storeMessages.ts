import * as z from 'zod';

/** What the store's thread is started with. */
export const storeSetupSchema = z.object({
  dataFolder: z.string(),
  migrations: z.string(),
  /** Limit of the database in pages; unlimited by default. For tests of a full disk. */
  maxPages: z.number().optional(),
});

/** One call of a method of the store. Arguments and answers are typed by `StoreApi`, which both ends are built from. */
export const callSchema = z.object({ call: z.number(), method: z.string(), args: z.array(z.unknown()) });

export const replySchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('ready') }),
  /** The database cannot be used; the message is for the person who started the server. */
  z.object({ kind: z.literal('unusable'), message: z.string() }),
  z.object({ kind: z.literal('done'), call: z.number(), value: z.unknown() }),
  z.object({
    kind: z.literal('failed'),
    call: z.number(),
    problem: z.object({
      status: z.number(),
      title: z.string(),
      detail: z.string(),
      more: z.record(z.string(), z.unknown()),
    }),
    /** For the server's log, where it is no problem of the asker. */
    log: z.string().nullable(),
  }),
]);
export type Reply = z.infer<typeof replySchema>;

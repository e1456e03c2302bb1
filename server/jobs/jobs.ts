import * as z from 'zod';
import { hashSchema as hash } from '../../src/core/piece/fields';
import { soundSchema } from '../../src/core/piece/soundInfo';

/** Demo pieces that take long to make. */
export const MADE_DEMOS = ['night-ferry', 'glasshouse-rain'] as const;
export type MadeDemo = (typeof MADE_DEMOS)[number];

/** Work on bytes from outside, done by a job process. Paths are of files of the server's own making. */
export const jobSchema = z.discriminatedUnion('kind', [
  /** Decodes an uploaded sound `from` into the stored form `to`. */
  z.strictObject({ kind: z.literal('decode'), from: z.string(), to: z.string() }),
  /** Unpacks an uploaded archive `from`: documents and sounds in the stored form, each a file in the folder `to`. */
  z.strictObject({ kind: z.literal('unpack'), from: z.string(), to: z.string() }),
  /** Makes a demo piece: its document and its sounds in the stored form, each a file in the folder `to`. */
  z.strictObject({ kind: z.literal('demo'), demo: z.enum(MADE_DEMOS), to: z.string() }),
  /** Hashes a stored file. */
  z.strictObject({ kind: z.literal('hash'), path: z.string() }),
]);
export type Job = z.infer<typeof jobSchema>;

const infoSchema = soundSchema.pick({ frames: true, sampleRate: true, channels: true });

export const decodedSchema = z.strictObject({ hash, info: infoSchema });

export const unpackedSchema = z.strictObject({
  /** Files in the folder, named by the hash of what they hold. */
  sounds: z.array(z.strictObject({ hash, info: soundSchema })),
});

export const hashedSchema = z.strictObject({ hash });

/** Whether the process has grown so much that the next job shall have a new one. */
const retire = z.boolean();

/** Messages of a job process: started, progress, result. */
export const reportSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('progress') }),
  z.strictObject({ kind: z.literal('done'), result: z.unknown(), retire }),
  /** Something that a person can understand and mend. */
  z.strictObject({ kind: z.literal('refused'), status: z.number(), title: z.string(), detail: z.string(), retire }),
  /** Anything else; `code` as the system gives it, such as ENOSPC. */
  z.strictObject({ kind: z.literal('failed'), code: z.string(), message: z.string(), retire }),
]);
export type Report = z.infer<typeof reportSchema>;

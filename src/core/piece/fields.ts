import * as z from 'zod';

/** Half of a surrogate pair by itself is no character: it can be stored, but not sent in a header or a file name. */
export const wellFormed = (text: string): string =>
  text.replace(/[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g, '\uFFFD');

/** Names a thing within a piece. */
export const idSchema = z.string().min(1).max(64);

/** What a person calls something: 1 to 120 characters. Surrogates without their other half become U+FFFD. */
export const nameSchema = z.string().overwrite(wellFormed).trim().min(1).max(120);

/** The SHA-256 of a sound, by which it is stored. */
export const hashSchema = z.string().regex(/^[0-9a-f]{64}$/, 'is no SHA-256');

import { Problem } from './problem';

/** Arrays and objects within each other. A piece with effects on the wet path of effects takes two for each. */
export const MAX_JSON_DEPTH = 120;
/** Members of one array or object; a lane has at most 100 000 points. */
export const MAX_JSON_MEMBERS = 250_000;
/** Values altogether. */
export const MAX_JSON_VALUES = 6_000_000;

const QUOTE = 0x22;
const BACKSLASH = 0x5c;
const COMMA = 0x2c;
const OPEN_ARRAY = 0x5b;
const CLOSE_ARRAY = 0x5d;
const OPEN_OBJECT = 0x7b;
const CLOSE_OBJECT = 0x7d;

/**
 * Looks at the bytes of a JSON document before it is parsed: one that is nested without end, or that is nothing but
 * brackets, takes many times its own size in memory, or all of the stack. Whether it is JSON at all is left to the parser.
 * @param name of the document, for the message
 * @throws Problem 400 for nesting, 413 for size
 */
export function checkJsonShape(bytes: Uint8Array, name = 'The body'): void {
  const members = new Int32Array(MAX_JSON_DEPTH + 1);
  let depth = 0;
  let values = 0;
  for (let at = 0; at < bytes.length; at += 1) {
    const byte = bytes[at];
    if (byte === QUOTE) at = endOfString(bytes, at);
    else if (byte === OPEN_ARRAY || byte === OPEN_OBJECT) {
      depth += 1;
      values += 1;
      if (depth > MAX_JSON_DEPTH) {
        throw new Problem(
          400,
          'The request is not understood',
          `${name} is nested more than ${MAX_JSON_DEPTH} deep. Nothing was changed.`,
        );
      }
      members[depth] = 1;
    } else if (byte === CLOSE_ARRAY || byte === CLOSE_OBJECT) depth = Math.max(0, depth - 1);
    else if (byte === COMMA) {
      values += 1;
      members[depth]! += 1;
      if (members[depth]! > MAX_JSON_MEMBERS || values > MAX_JSON_VALUES) {
        throw new Problem(413, 'Too large', `${name} holds more than can be taken. Nothing was changed.`);
      }
    }
  }
}

/** Index of the quote that ends the string that begins at `at`; the last byte when there is none. */
function endOfString(bytes: Uint8Array, at: number): number {
  let end = at + 1;
  while (end < bytes.length && bytes[end] !== QUOTE) end += bytes[end] === BACKSLASH ? 2 : 1;
  return Math.min(end, bytes.length);
}

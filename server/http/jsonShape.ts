import { Problem } from './problem';

/** Nesting depth of arrays and objects. A piece with effects on the wet path of effects has two levels for each. */
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
 * Looks at the bytes of a JSON document before it is parsed, as they come: one that is nested without end, or that is
 * nothing but brackets, takes many times its own size in memory, or all of the stack. Whether it is JSON at all is left
 * to the parser.
 */
export class JsonShape {
  /** Members seen of each array or object that is open, by depth. */
  private readonly members = new Int32Array(MAX_JSON_DEPTH + 1);
  private depth = 0;
  private values = 0;
  private inString = false;
  private escaped = false;

  /** @param name of the document, for the message */
  constructor(private readonly name = 'The body') {}

  /**
   * The next bytes of the document.
   * @throws Problem 400 for nesting, 413 for size
   */
  push(bytes: Uint8Array): void {
    for (let at = 0; at < bytes.length; at += 1) {
      const byte = bytes[at]!;
      if (this.inString) this.pushInString(byte);
      else if (byte === QUOTE) this.inString = true;
      else if (byte === OPEN_ARRAY || byte === OPEN_OBJECT) this.open();
      else if (byte === CLOSE_ARRAY || byte === CLOSE_OBJECT) this.depth = Math.max(0, this.depth - 1);
      else if (byte === COMMA) this.count();
    }
  }

  private pushInString(byte: number): void {
    if (this.escaped) this.escaped = false;
    else if (byte === BACKSLASH) this.escaped = true;
    else if (byte === QUOTE) this.inString = false;
  }

  private open(): void {
    this.depth += 1;
    if (this.depth > MAX_JSON_DEPTH) {
      const detail = `${this.name} is nested more than ${MAX_JSON_DEPTH} deep. Nothing was changed.`;
      throw new Problem(400, 'The request is not understood', detail);
    }
    this.members[this.depth] = 0;
    this.count();
  }

  private count(): void {
    this.values += 1;
    this.members[this.depth]! += 1;
    if (this.members[this.depth]! <= MAX_JSON_MEMBERS && this.values <= MAX_JSON_VALUES) return;
    throw new Problem(413, 'Too large', `${this.name} holds more than can be taken. Nothing was changed.`);
  }
}

/** Checks a complete document. @throws Problem as `JsonShape` does */
export const checkJsonShape = (bytes: Uint8Array): void => new JsonShape().push(bytes);

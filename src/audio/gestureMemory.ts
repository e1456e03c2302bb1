import type { Gesture } from '../core/engine/gesture';

/**
 * Shared memory in which the page leaves gestures for the audio thread. A message only reaches the thread between two
 * bunches of blocks that the device asks for; here a gesture is seen at the next block. Messages and gestures are taken
 * in the order in which they were told: with each gesture stands how many messages were sent before it.
 */
const CAPACITY = 256;
const FIELDS = 6;
const HEADER_BYTES = 8;
/** Gestures that were written and read, counted on and on. */
const WRITTEN = 0;
const READ = 1;
const KINDS: readonly Gesture['kind'][] = ['hold', 'release', 'cancel'];
/** Stands for a gesture that is not told of when it takes effect. */
const NO_TAG = -1;

export const makeGestureMemory = (): SharedArrayBuffer =>
  new SharedArrayBuffer(HEADER_BYTES + CAPACITY * FIELDS * Float64Array.BYTES_PER_ELEMENT);

/** What a gesture is for; the thread is told its ids once, by a message, and knows it by a number from then on. */
export type GestureTarget = Pick<Gesture, 'channel' | 'slot' | 'value'>;

const keyOf = ({ channel, slot, value }: GestureTarget): string => JSON.stringify([channel, slot, value]);

/** The page's side. */
export class GestureWriter {
  private readonly header: Int32Array;
  private readonly cells: Float64Array;
  private readonly numbers = new Map<string, number>();

  constructor(memory: SharedArrayBuffer) {
    this.header = new Int32Array(memory, 0, 2);
    this.cells = new Float64Array(memory, HEADER_BYTES);
  }

  /** Number of a target that the thread is to be told with the next message for it. */
  register(target: GestureTarget): number {
    const key = keyOf(target);
    const number = this.numbers.get(key) ?? this.numbers.size;
    this.numbers.set(key, number);
    return number;
  }

  /**
   * @param sent messages that were sent to the thread before
   * @returns false where the thread does not know the target yet or has not read for long: it has to be sent as a message
   */
  write(gesture: Gesture, sent: number): boolean {
    const target = this.numbers.get(keyOf(gesture));
    const written = Atomics.load(this.header, WRITTEN);
    if (target === undefined || written - Atomics.load(this.header, READ) >= CAPACITY) return false;
    const at = (written % CAPACITY) * FIELDS;
    const { cells } = this;
    cells[at] = KINDS.indexOf(gesture.kind);
    cells[at + 1] = target;
    cells[at + 2] = gesture.to;
    cells[at + 3] = gesture.atSample;
    cells[at + 4] = gesture.tag ?? NO_TAG;
    cells[at + 5] = sent;
    Atomics.store(this.header, WRITTEN, written + 1);
    return true;
  }
}

/** The audio thread's side. */
export class GestureReader {
  private readonly header: Int32Array;
  private readonly cells: Float64Array;
  private readonly targets: GestureTarget[] = [];
  private received = 0;

  constructor(memory: SharedArrayBuffer) {
    this.header = new Int32Array(memory, 0, 2);
    this.cells = new Float64Array(memory, HEADER_BYTES);
  }

  /** Keeps what a number stands for. */
  learn(number: number, { channel, slot, value }: GestureTarget): void {
    this.targets[number] = { channel, slot, value };
  }

  /** To be called before each message is obeyed: gestures that were written before it come first. */
  beforeMessage(take: (gesture: Gesture) => void): void {
    this.read(take);
    this.received += 1;
  }

  /** Gives all gestures for which no message has to be waited for. */
  read(take: (gesture: Gesture) => void): void {
    const { cells } = this;
    const written = Atomics.load(this.header, WRITTEN);
    let read = Atomics.load(this.header, READ);
    for (; read < written; read += 1) {
      const at = (read % CAPACITY) * FIELDS;
      if (cells[at + 5]! > this.received) break;
      const kind = KINDS[cells[at]!];
      const target = this.targets[cells[at + 1]!];
      const tag = cells[at + 4]!;
      if (kind && target)
        take({
          ...target,
          kind,
          to: cells[at + 2]!,
          atSample: cells[at + 3]!,
          ...(tag === NO_TAG ? {} : { tag }),
        });
    }
    Atomics.store(this.header, READ, read);
  }
}

import type { Gesture } from '../core/engine/gesture';

/**
 * Ring buffer in shared memory by which the page sends gestures to the audio thread. A message reaches the thread only
 * between two bunches of blocks that the device asks for; a gesture in the ring is read before the next block. Each
 * gesture has the number of messages that were sent before it, so that messages and gestures are handled in the order
 * in which they were sent.
 */
const CAPACITY = 256;
const FIELDS = 6;
const HEADER_BYTES = 8;
/** Indices of the header: how many gestures were written and read so far. */
const WRITTEN = 0;
const READ = 1;
const KINDS: readonly Gesture['kind'][] = ['hold', 'release', 'cancel'];
/** Tag of a gesture whose taking effect is not reported. */
const NO_TAG = -1;

export const makeGestureMemory = (): SharedArrayBuffer =>
  new SharedArrayBuffer(HEADER_BYTES + CAPACITY * FIELDS * Float64Array.BYTES_PER_ELEMENT);

/** The parameter of a gesture. A message tells the thread its ids once; the ring refers to it by number. */
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

  /** @returns the number of a target, which has to be sent to the thread with the gesture in a message */
  register(target: GestureTarget): number {
    const key = keyOf(target);
    const number = this.numbers.get(key) ?? this.numbers.size;
    this.numbers.set(key, number);
    return number;
  }

  /**
   * @param sent messages that were sent to the thread before
   * @returns false where the target has no number yet or the ring is full: the gesture has to be sent in a message
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

  /** Registers the target that a message gave with its number. */
  learn(number: number, { channel, slot, value }: GestureTarget): void {
    this.targets[number] = { channel, slot, value };
  }

  /** To be called before each message is handled: takes the gestures that were sent before it. */
  beforeMessage(take: (gesture: Gesture) => void): void {
    this.read(take);
    this.received += 1;
  }

  /** Takes all gestures but those that were sent after a message that has not been received yet. */
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

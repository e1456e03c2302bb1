import fc from 'fast-check';
import type { Gesture } from '../core/engine/gesture';
import { GestureReader, GestureWriter, makeGestureMemory } from './gestureMemory';

type Message = { readonly gesture: Gesture; readonly target: number } | { readonly other: number };
type Told = Gesture | number;

/** Both sides with a line of messages between them that the thread gets to when a test says so. */
class Line {
  readonly told: Told[] = [];
  readonly taken: Told[] = [];
  private readonly messages: Message[] = [];
  private readonly memory = makeGestureMemory();
  private readonly writer = new GestureWriter(this.memory);
  private readonly reader = new GestureReader(this.memory);
  private sent = 0;
  private others = 0;

  tell(gesture: Gesture): void {
    this.told.push(gesture);
    if (!this.writer.write(gesture, this.sent)) this.send({ gesture, target: this.writer.register(gesture) });
  }

  tellOther(): void {
    this.others += 1;
    this.told.push(this.others);
    this.send({ other: this.others });
  }

  private send(message: Message): void {
    this.sent += 1;
    this.messages.push(message);
  }

  /** The thread gets the next message. */
  receive(): boolean {
    const message = this.messages.shift();
    if (!message) return false;
    this.reader.beforeMessage(this.take);
    if ('other' in message) this.taken.push(message.other);
    else {
      this.reader.learn(message.target, message.gesture);
      this.take(message.gesture);
    }
    return true;
  }

  /** The thread computes a block. */
  block(): void {
    this.reader.read(this.take);
  }

  private readonly take = (gesture: Gesture): void => void this.taken.push(gesture);
}

const gestures = fc.record(
  {
    kind: fc.constantFrom('hold' as const, 'release' as const, 'cancel' as const),
    channel: fc.constantFrom('main', 'kalimba', 'é "quoted"'),
    slot: fc.constantFrom(null, 'stutter-1', 'null'),
    value: fc.nat({ max: 2 }),
    to: fc.double({ noNaN: true }),
    atSample: fc.double({ min: 0, max: 1e10, noNaN: true }),
    tag: fc.nat({ max: 1e9 }),
  },
  { requiredKeys: ['kind', 'channel', 'slot', 'value', 'to', 'atSample'] },
);

test('whatever comes between, everything is taken once, as it was told and in the order in which it was told', () => {
  const acts = fc.array(
    fc.oneof(
      { weight: 4, arbitrary: gestures },
      { weight: 1, arbitrary: fc.constantFrom('other' as const) },
      { weight: 3, arbitrary: fc.constantFrom('receive' as const, 'block' as const) },
    ),
    { maxLength: 400 },
  );
  fc.assert(
    fc.property(acts, (all) => {
      const line = new Line();
      for (const act of all) {
        if (act === 'other') line.tellOther();
        else if (act === 'receive') line.receive();
        else if (act === 'block') line.block();
        else line.tell(act);
      }
      while (line.receive());
      line.block();
      // Nothing is ever taken back, so that the order held all along.
      expect(line.taken).toEqual(line.told);
    }),
    { numRuns: 60 },
  );
});

const hold: Gesture = { kind: 'hold', channel: 'main', slot: 'a', value: 3, to: 1, atSample: 0 };

test('the thread knows a target once it was told of it by a message; from then on a block is enough', () => {
  const line = new Line();
  line.tell(hold);
  line.block();
  expect(line.taken).toEqual([]);
  line.receive();
  line.tell({ ...hold, kind: 'release', tag: 0 });
  line.block();
  expect(line.taken).toEqual([hold, { ...hold, kind: 'release', tag: 0 }]);
});

test('a thread that reads nothing for long loses nothing', () => {
  const line = new Line();
  for (let i = 0; i < 2000; i += 1) line.tell({ ...hold, to: i });
  while (line.receive());
  line.block();
  expect(line.taken).toEqual(line.told);
});

import { compilePlan } from '../core/engine/compilePlan';
import type { Gesture } from '../core/engine/gesture';
import { emptyPiece } from '../core/piece/piece';
import { GestureReader } from './gestureMemory';
import { Player } from './player';
import { toEngine, type FromEngine, type ToEngine } from './protocol';

/** What stands in for the browser's audio thread: keeps what it is told, and says what a test lets it say. */
class FakeNode {
  static last: FakeNode;
  readonly told: ToEngine[] = [];
  readonly port = {
    postMessage: (message: unknown) => this.receive(toEngine.parse(message)),
    onmessage: null as ((event: { data: unknown }) => void) | null,
  };
  readonly first: readonly ToEngine[];

  private readonly gestures: GestureReader;

  constructor(
    _context: unknown,
    _name: string,
    options: { processorOptions: { gestures: SharedArrayBuffer; first: readonly unknown[] } },
  ) {
    this.first = options.processorOptions.first.map((message) => toEngine.parse(message));
    this.gestures = new GestureReader(options.processorOptions.gestures);
    FakeNode.last = this;
  }

  private receive(message: ToEngine): void {
    this.gestures.beforeMessage(() => undefined);
    if (message.type === 'gesture') this.gestures.learn(message.target, message.gesture);
    this.told.push(message);
  }

  /** Gestures that it sees when it computes a block. */
  block(): Gesture[] {
    const seen: Gesture[] = [];
    this.gestures.read((gesture) => void seen.push(gesture));
    return seen;
  }

  says(message: FromEngine): void {
    this.port.onmessage?.({ data: message });
  }

  connect(): void {}
  disconnect(): void {}
}

class FakeGain {
  readonly gain = {
    value: 1,
    setTargetAtTime: (value: number): void => void (this.gain.value = value),
  };
  connect(): void {}
}

class FakeContext {
  static last: FakeContext;
  static state: AudioContextState = 'running';
  static addModule: () => Promise<void> = async () => undefined;
  state = FakeContext.state;
  currentTime = 0;
  baseLatency = 0.01;
  outputLatency = 0.02;
  destination = {};
  onstatechange: (() => void) | null = null;
  readonly audioWorklet = { addModule: () => FakeContext.addModule() };
  readonly suspend = jest.fn(async () => this.change('suspended'));
  readonly resume = jest.fn(async () => this.change('running'));
  readonly close = jest.fn(async () => this.change('closed'));

  readonly gains: FakeGain[] = [];
  readonly sink = jest.fn(async (_id: string) => undefined);

  constructor(readonly options: { latencyHint?: string } = {}) {
    FakeContext.last = this;
  }

  setSinkId(id: string): Promise<void> {
    return this.sink(id) as Promise<void>;
  }
  createChannelSplitter = (): object => ({ connect: () => undefined });
  createChannelMerger = (): object => ({ connect: () => undefined });
  createGain(): FakeGain {
    const made = new FakeGain();
    this.gains.push(made);
    return made;
  }

  private change(state: AudioContextState): void {
    this.state = state;
    this.onstatechange?.();
  }
}

beforeEach(() => {
  jest.useFakeTimers();
  FakeContext.state = 'running';
  FakeContext.addModule = async () => undefined;
  Object.assign(globalThis, { AudioContext: FakeContext, AudioWorkletNode: FakeNode });
});
afterEach(() => {
  jest.useRealTimers();
});

const plan = compilePlan(emptyPiece('p', 'Piece'));
const IDLE_MS = 5000;

async function prepared(): Promise<{ player: Player; node: FakeNode; context: FakeContext }> {
  const player = new Player(48_000);
  player.setPlan(plan);
  await player.prepare();
  return { player, node: FakeNode.last, context: FakeContext.last };
}

const typesOf = (messages: readonly ToEngine[]): string[] => messages.map(({ type }) => type);

test('what was told before the thread is there is told to it as it begins', async () => {
  const player = new Player(48_000);
  player.addSound({ hash: 'h', channels: [new Float32Array(4)], sampleRate: 48_000 } as never);
  player.setPlan(plan);
  player.locate(4800);
  player.watch('main');
  await player.prepare();
  const { first } = FakeNode.last;
  expect(typesOf(first)).toEqual(['sounds', 'plan', 'locate', 'watch', 'click']);
  expect(first[2]).toEqual({ type: 'locate', to: 4800 });
  expect(player.position).toBe(4800);
});

test('playing begins where it is asked, and stops', async () => {
  const { player, node } = await prepared();
  await player.play(960);
  expect(node.told.slice(-1)).toEqual([{ type: 'play', from: 960, countInBars: 0 }]);
  expect(player.position).toBe(960);
  player.stop();
  expect(node.told.slice(-1)).toEqual([{ type: 'stop' }]);
});

test('whoever looked at a channel before looks again when the newest lets go', async () => {
  const { player, node } = await prepared();
  const first = player.watch('a');
  const second = player.watch('b');
  second();
  first();
  expect(
    node.told.filter(({ type }) => type === 'watch').map((message) => 'channel' in message && message.channel),
  ).toEqual(['a', 'b', 'a', null]);
});

test('the sample at which a gesture took effect is told to whoever asked, once', async () => {
  const { player, node } = await prepared();
  const applied = jest.fn();
  const gesture = { kind: 'hold', channel: 'main', slot: null, value: 0, to: 1, atSample: 0 } as const;
  player.gesture(gesture);
  player.gesture(gesture, applied);
  expect(node.told.flatMap((message) => (message.type === 'gesture' ? [message.gesture] : []))).toEqual([gesture]);
  const seen = node.block();
  expect(seen).toEqual([{ ...gesture, tag: expect.any(Number) }]);
  const tag = seen[0]!.tag!;
  node.says({ type: 'applied', gestures: [{ tag, sample: 77 }] });
  node.says({ type: 'applied', gestures: [{ tag, sample: 99 }] });
  expect(applied.mock.calls).toEqual([[77]]);
});

test('a gesture for the thread that stands is seen at its next block; another thread is told of it anew', async () => {
  const { player, node } = await prepared();
  const gesture = { kind: 'hold', channel: 'main', slot: 'a', value: 2, to: 1, atSample: 0 } as const;
  player.gesture(gesture);
  player.gesture({ ...gesture, kind: 'release' });
  expect(node.block()).toEqual([{ ...gesture, kind: 'release' }]);
  await player.setOutput({ sinkId: '', latency: 'playback' });
  player.gesture(gesture);
  expect(FakeNode.last.told.slice(-1)).toEqual([{ type: 'gesture', gesture, target: 0 }]);
  player.gesture(gesture);
  expect(FakeNode.last.block()).toEqual([gesture]);
  expect(node.block()).toEqual([]);
});

describe('an idle audio thread', () => {
  test('is resumed by a gesture that no message tells of', async () => {
    const { player, node, context } = await prepared();
    const gesture = { kind: 'hold', channel: 'main', slot: 'a', value: 2, to: 1, atSample: 0 } as const;
    player.gesture(gesture);
    jest.advanceTimersByTime(IDLE_MS);
    node.says({ type: 'idle' });
    await Promise.resolve();
    expect(context.state).toBe('suspended');
    const told = node.told.length;
    player.gesture(gesture);
    expect(node.told.length).toBe(told);
    expect(context.resume).toHaveBeenCalledTimes(1);
    expect(node.block()).toEqual([gesture]);
  });

  test('is suspended, and resumed with the next message', async () => {
    const { player, node, context } = await prepared();
    const active = jest.fn();
    player.onActivity = active;
    jest.advanceTimersByTime(IDLE_MS);
    expect(player.active).toBe(true);
    node.says({ type: 'idle' });
    await Promise.resolve();
    expect(context.state).toBe('suspended');
    expect(player.active).toBe(false);
    active.mockClear();
    player.locate(10);
    expect(context.resume).toHaveBeenCalledTimes(1);
    await Promise.resolve();
    expect(player.active).toBe(true);
    expect(active).toHaveBeenCalled();
  });

  test('plays at once when suspended, even while the browser is still suspending it', async () => {
    const { player, node, context } = await prepared();
    let suspended = (): void => undefined;
    context.suspend.mockImplementation(() => new Promise((resolve) => (suspended = () => resolve(undefined))));
    jest.advanceTimersByTime(IDLE_MS);
    node.says({ type: 'idle' });
    expect(context.state).toBe('running');
    await player.play(0);
    suspended();
    expect(context.resume).toHaveBeenCalledTimes(1);
    expect(typesOf(node.told).slice(-1)).toEqual(['play']);
  });

  test('is not suspended while it plays, or just after a message', async () => {
    const { player, node, context } = await prepared();
    jest.advanceTimersByTime(IDLE_MS);
    player.locate(10);
    node.says({ type: 'idle' });
    await player.play(0);
    jest.advanceTimersByTime(IDLE_MS);
    node.says({ type: 'idle' });
    expect(context.suspend).not.toHaveBeenCalled();
  });
});

describe('a browser that gives no sound', () => {
  test('is told of after three seconds, and the next tap tries again', async () => {
    FakeContext.state = 'suspended';
    const { player, node, context } = await prepared();
    expect(player.active && context.state === 'running').toBe(false);
    context.resume.mockImplementation(() => new Promise(() => undefined));
    const played = expect(player.play(0)).rejects.toThrow('waits for an audio output that does not answer');
    await jest.advanceTimersByTimeAsync(3000);
    await played;
    expect(typesOf(node.told)).not.toContain('play');
    context.resume.mockImplementation(async () => void (context.state = 'running'));
    await player.play(0);
    expect(typesOf(node.told)).toContain('play');
  });

  test('is told of where its thread does not begin, and is tried again', async () => {
    FakeContext.addModule = () => Promise.reject(new Error('blocked'));
    const player = new Player(48_000);
    await expect(player.prepare()).rejects.toThrow('(blocked)');
    FakeContext.addModule = async () => undefined;
    await expect(player.prepare()).resolves.toBeUndefined();
  });
});

test('the way of listening is set between engine and speakers, and kept for a thread that begins later', async () => {
  const player = new Player(48_000);
  player.setMonitor('mono');
  player.setPlan(plan);
  await player.prepare();
  const values = (): number[] => FakeContext.last.gains.map(({ gain }) => gain.value);
  expect(values()).toEqual([0.5, 0.5, 0.5, 0.5]);
  player.setMonitor('swapped');
  expect(values()).toEqual([0, 1, 1, 0]);
});

test('another output or latency is a new thread, on which playing goes on', async () => {
  const { player, node, context } = await prepared();
  await player.play(4800);
  await player.setOutput({ sinkId: 'headphones', latency: 'playback' });
  expect(context.close).toHaveBeenCalled();
  expect(FakeContext.last).not.toBe(context);
  expect(FakeContext.last.options.latencyHint).toBe('playback');
  expect(FakeContext.last.sink).toHaveBeenCalledWith('headphones');
  expect(FakeNode.last).not.toBe(node);
  expect(FakeNode.last.told.slice(-1)).toEqual([{ type: 'play', from: 4800, countInBars: 0 }]);
  // The same again changes nothing.
  const now = FakeContext.last;
  await player.setOutput({ sinkId: 'headphones', latency: 'playback' });
  expect(FakeContext.last).toBe(now);
});

test('of outputs chosen in quick succession the last is used, and each thread is ended once', async () => {
  const { player, context } = await prepared();
  await player.play(4800);
  const made: FakeContext[] = [context];
  const chosen = (['playback', 'balanced', 'interactive'] as const).map((latency, i) => {
    const changed = player.setOutput({ sinkId: `out ${i}`, latency });
    return changed.then(() => made.includes(FakeContext.last) || made.push(FakeContext.last));
  });
  await Promise.all(chosen);
  const last = made.pop()!;
  expect(last.options.latencyHint).toBe('interactive');
  expect(last.sink).toHaveBeenCalledWith('out 2');
  expect(last.close).not.toHaveBeenCalled();
  expect(made.every(({ close }) => close.mock.calls.length === 1)).toBe(true);
  expect(FakeNode.last.told.slice(-1)).toEqual([{ type: 'play', from: 4800, countInBars: 0 }]);
});

test('a player that is closed while its output changes leaves no thread', async () => {
  const { player, context } = await prepared();
  await Promise.all([player.setOutput({ sinkId: 'headphones', latency: 'playback' }), player.close()]);
  expect(context.close).toHaveBeenCalledTimes(1);
  expect(FakeContext.last.state).toBe('closed');
});

test('the click is told to the thread, and how many bars are counted in', async () => {
  const { player, node } = await prepared();
  player.setClick(true);
  await player.play(0, 2);
  expect(node.told.slice(-2)).toEqual([
    { type: 'click', on: true },
    { type: 'play', from: 0, countInBars: 2 },
  ]);
});

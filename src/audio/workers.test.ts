import { effectOf } from '../core/effects/catalogue';
import { preparedImpulse } from '../core/impulses/make';
import { planSlotsIn } from '../core/engine/plan';
import { compilePlan } from '../core/engine/compilePlan';
import { newSlot } from '../core/piece/edits/chain';
import { emptyPiece, type Piece } from '../core/piece/piece';
import { ImpulseMaker } from './impulses';
import { Painter } from './painter';
import { SoundLibrary } from './soundLibrary';
import { toImpulses, type ToImpulses } from './protocol';
import { FakeWorker } from './testing';
import { startWorker } from './workerJob';

beforeEach(() => FakeWorker.install());

describe('sounds', () => {
  const answer = (hash: string) => ({
    type: 'loaded',
    hash,
    channels: [new Float32Array([0.5])],
    peaks: new Float32Array([0.5]),
  });

  test('are asked for at the rate of the piece, each once, and come in any order', async () => {
    const library = new SoundLibrary(44_100);
    expect(FakeWorker.instances).toHaveLength(0);
    const [a, b] = [library.load('a'), library.load('b')];
    expect(library.load('a')).toBe(a);
    expect(FakeWorker.last.posted).toMatchObject([
      { hash: 'a', url: '/api/sounds/a', sampleRate: 44_100 },
      { hash: 'b', url: '/api/sounds/b', sampleRate: 44_100 },
    ]);
    FakeWorker.last.respond(answer('b'));
    FakeWorker.last.respond(answer('a'));
    expect((await a).hash).toBe('a');
    expect((await b).channels[0]![0]).toBe(0.5);
  });

  test('that fail say why, and can be asked for again', async () => {
    const library = new SoundLibrary(48_000);
    const first = library.load('a');
    FakeWorker.last.respond({ type: 'failed', hash: 'a', message: 'No such sound.' });
    await expect(first).rejects.toThrow('No such sound.');
    const second = library.load('a');
    expect(FakeWorker.instances).toHaveLength(1);
    FakeWorker.last.respond(answer('a'));
    expect((await second).hash).toBe('a');
  });

  test('do not wait for ever for a worker that cannot be fetched: the next wish starts another', async () => {
    const library = new SoundLibrary(48_000);
    const waiting = [library.load('a'), library.load('b')];
    FakeWorker.last.fail();
    for (const one of waiting) await expect(one).rejects.toThrow('could not be fetched, or broke');
    expect(FakeWorker.last.terminated).toBe(true);
    const again = library.load('a');
    expect(FakeWorker.instances).toHaveLength(2);
    FakeWorker.last.respond(answer('a'));
    await again;
    library.close();
    expect(FakeWorker.last.terminated).toBe(true);
  });
});

describe('pictures', () => {
  const order = (effect: string) => ({
    effect,
    values: {},
    context: { tempo: { bpm: 92, beatsPerBar: 4 }, sampleRate: 48_000 },
  });
  const picture = { kind: 'repeats', taps: [] };

  test('are painted one at a time; of the wishes of a view the newest', () => {
    const painter = new Painter();
    const seen: string[] = [];
    const paint = (who: string, effect: string): void => painter.paint(who, order(effect), () => seen.push(effect));
    paint('a', 'echo');
    paint('b', 'taps');
    paint('b', 'reverb');
    paint('c', 'filter');
    painter.forget('c');
    const asked = (): unknown[] => FakeWorker.last.posted.map((one) => (one as { effect: string }).effect);
    expect(asked()).toEqual(['echo']);
    FakeWorker.last.respond({ picture });
    expect([seen, asked()]).toEqual([['echo'], ['echo', 'reverb']]);
    FakeWorker.last.respond({ picture });
    expect([seen, asked()]).toEqual([
      ['echo', 'reverb'],
      ['echo', 'reverb'],
    ]);
  });

  test('are asked of another worker where the first broke', () => {
    const painter = new Painter();
    const seen = jest.fn();
    painter.paint('a', order('echo'), seen);
    FakeWorker.last.fail();
    painter.paint('a', order('taps'), seen);
    expect(FakeWorker.instances).toHaveLength(2);
    FakeWorker.last.respond({ picture });
    expect(seen).toHaveBeenCalledTimes(1);
  });
});

describe('impulses', () => {
  const withRooms = (...rooms: readonly string[]): Piece => {
    const piece = emptyPiece('p', 'Piece');
    return {
      ...piece,
      main: { ...piece.main, chain: rooms.map((preset, i) => newSlot(`c${i}`, 'convolver', preset)) },
    };
  };
  const planOf = (piece: Piece) => compilePlan(piece);
  const asked = (): ToImpulses[] => FakeWorker.last.posted.map((one) => toImpulses.parse(one));
  const answer = (order: ToImpulses): void =>
    FakeWorker.last.respond({ key: order.key, impulse: preparedImpulse(order.order, new Map()) });

  test('are made one at a time, once each, and forgotten when no effect needs them', () => {
    const onMade = jest.fn();
    const maker = new ImpulseMaker(new Map(), onMade);
    const rooms = effectOf('convolver').presets.map(({ id }) => id);
    const keyOf = (room: string): string =>
      planSlotsIn(planOf(withRooms(room)).channels.at(-1)!.slots)[0]!.impulse!.key;
    const other = rooms.find((room) => keyOf(room) !== keyOf(rooms[0]!))!;
    const plan = planOf(withRooms(rooms[0]!, other));
    maker.want(plan);
    maker.want(plan);
    expect(asked()).toHaveLength(1);
    answer(asked()[0]!);
    expect(asked()).toHaveLength(2);
    answer(asked()[1]!);
    expect(onMade.mock.calls.map(([key]) => key)).toEqual(asked().map(({ key }) => key));
    maker.want(plan);
    expect(asked()).toHaveLength(2);
    maker.want(planOf(withRooms()));
    expect(maker.made.size).toBe(0);
    maker.close();
    expect(FakeWorker.last.terminated).toBe(true);
  });

  test('that were made for nothing are dropped; where the worker broke the next wish starts another', () => {
    const onMade = jest.fn();
    const maker = new ImpulseMaker(new Map(), onMade);
    maker.want(planOf(withRooms('neutral')));
    const [order] = asked();
    maker.want(planOf(withRooms()));
    answer(order!);
    expect(onMade).not.toHaveBeenCalled();
    maker.want(planOf(withRooms('neutral')));
    FakeWorker.last.fail();
    maker.want(planOf(withRooms('neutral')));
    expect(FakeWorker.instances).toHaveLength(2);
    answer(asked()[0]!);
    expect(onMade).toHaveBeenCalledTimes(1);
  });
});

describe('a job in a worker of its own', () => {
  const read = (data: unknown) => data as { type: 'progress' | 'done' | 'failed'; share?: number; done?: string };
  const start = (onProgress = jest.fn()) => startWorker<string>('/rt/x.js', { order: 1 }, 'prints', read, onProgress);

  test('tells how far it is and ends with what it did', async () => {
    const progress = jest.fn();
    const job = start(progress);
    expect(FakeWorker.last.posted).toEqual([{ order: 1 }]);
    FakeWorker.last.respond({ type: 'progress', share: 0.5 });
    FakeWorker.last.respond({ type: 'done', done: 'printed' });
    expect(await job.result).toBe('printed');
    expect(progress.mock.calls).toEqual([[0.5]]);
    expect(FakeWorker.last.terminated).toBe(true);
  });

  test('ends with nothing when it is cancelled', async () => {
    const job = start();
    job.cancel();
    expect(FakeWorker.last.terminated).toBe(true);
    expect(await job.result).toBeNull();
  });

  test.each([
    [{ type: 'failed', message: 'The disk is full.' }, 'The disk is full.'],
    [{ type: 'failed' }, 'The worker that prints failed.'],
  ])('says why it failed: %j', async (said, why) => {
    const job = start();
    FakeWorker.last.respond(said);
    await expect(job.result).rejects.toThrow(why);
  });

  test('says so where it cannot be started', async () => {
    const job = start();
    FakeWorker.last.fail();
    await expect(job.result).rejects.toThrow('could not be started');
  });
});

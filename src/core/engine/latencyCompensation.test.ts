import { clipOf, RATE, scene, soundOf, type Scene } from '../piece/testing';
import { newSlot } from '../piece/edits/chain';
import type { Piece, Return, Slot, Track } from '../piece/piece';
import { BlockMixer } from './blockMixer';
import { compilePlan } from './compilePlan';
import { render } from './render';
import { roughness } from '../testing';
import { awayFrom, engineOf, peakIn, runEngine } from './testing';

const noise = soundOf(1, (i) => 0.1 * Math.sin(i * i));
const turned = noise.map((x) => -x);
const limiter = (id: string, lookAhead = 2): Slot => newSlot(id, 'limiter', 'neutral', { lookAhead, ceiling: 0 });
const back: Return = { id: 'r', name: 'Return', gain: 1, pan: 0, mute: false, solo: false, chain: [], sends: [] };

/** The noise and its mirror image on two tracks: what is left of them when they meet, over the peak of one. */
function left(late: Partial<Track>, plain: Partial<Track>, more: Partial<Piece> = {}): number {
  const { piece, sounds } = scene(
    [noise, turned],
    [
      { clips: [clipOf('a', 0, 0, 1)], ...late },
      { clips: [clipOf('b', 1, 0, 1)], ...plain },
    ],
    more,
  );
  const rendered = render({
    plan: compilePlan(piece),
    sounds,
    fromSample: 0,
    toSample: RATE,
    tail: { kind: 'silent' },
  })!;
  return peakIn(rendered.left) / 0.1;
}

describe('sounds that look-ahead makes late', () => {
  test('a track with limiters keeps step with one without', () => {
    expect(left({ chain: [limiter('l')] }, {})).toBeLessThan(1e-5);
    expect(left({ chain: [limiter('l'), limiter('m', 5)] }, { chain: [limiter('n')] })).toBeLessThan(1e-5);
  });

  test.each([[true], [false]])('so do a send, before the fader %s, and its return beside the direct sound', (pre) => {
    const send = { to: 'r', level: 1, pre };
    expect(left({ sends: [send] }, { gain: 2 }, { returns: [{ ...back, chain: [limiter('l')] }] })).toBeLessThan(1e-5);
    expect(left({ chain: [limiter('l')], sends: [send] }, { sends: [send] }, { returns: [back] })).toBeLessThan(1e-5);
  });

  test.each([[true], [false]])(
    'a late track and a late return, by a send before the fader %s, are both waited for',
    (pre) => {
      const send = { to: 'r', level: 1, pre };
      const late = { ...back, chain: [limiter('m', 5)] };
      expect(left({ chain: [limiter('l')], sends: [send] }, { sends: [send] }, { returns: [late] })).toBeLessThan(1e-5);
    },
  );

  test('a latency longer than the rings in the mixer’s memory is compensated too', () => {
    const chain = [1, 2, 3, 4].map((n) => limiter(`l${n}`, 8));
    const { piece } = scene([noise], [{ clips: [clipOf('a', 0, 0, 1)], chain }]);
    expect(engineOf({ piece, sounds: new Map() }).latency).toBeGreaterThan(1024);
    expect(left({ chain }, {})).toBeLessThan(1e-5);
  });

  test('so do strands of a braid, and a wet path beside the dry sound', () => {
    const braid: Slot = {
      ...newSlot('b', 'braid', 'neutral', { level1: 0.5, level2: 0.5 }),
      strands: [
        { place: 1, name: 'One', chain: [limiter('l')] },
        { place: 2, name: 'Two', chain: [] },
      ],
    };
    expect(left({ chain: [braid] }, {})).toBeLessThan(1e-5);
    const width: Slot = {
      ...newSlot('w', 'width', 'neutral', { balance: 'levels', dry: 0.5, wet: 0.5 }),
      wetPath: [limiter('l')],
    };
    expect(left({ chain: [width] }, {})).toBeLessThan(1e-5);
  });

  test('one that is taken away holds the sound back until the new order is taken', () => {
    const [eq, filter] = [newSlot('e', 'eq', 'neutral'), newSlot('f', 'filter', 'neutral')];
    const at = (chain: Slot[]): Scene => scene([noise], [{ clips: [clipOf('a', 0, 0, 1)], chain }]);
    const engine = engineOf(at([eq, limiter('l', 8), filter]));
    const late = engine.latency;
    expect(late).toBeGreaterThanOrEqual((8 * RATE) / 1000);
    engine.setPlan(compilePlan(at([filter, eq]).piece));
    expect(engine.latency).toBe(late);
    runEngine(engine, 0.1);
    expect(engine.latency).toBe(0);
  });

  test('rings of the mixer’s memory that late effects borrowed come back when they and their tracks go', () => {
    const [allocated, freed] = (['allocateRing', 'freeRing'] as const).map((name) =>
      jest.spyOn(BlockMixer.prototype, name),
    );
    const at = (chain: Slot[], braids: Slot[] = []): Piece =>
      scene(
        [noise],
        [
          { clips: [clipOf('a', 0, 0, 1)], chain },
          { clips: [], chain: braids },
        ],
      ).piece;
    const braid: Slot = {
      ...newSlot('b', 'braid', 'neutral'),
      strands: [{ place: 1, name: 'One', chain: [limiter('s')] }],
    };
    const engine = engineOf({ piece: at([limiter('l'), limiter('m')], [braid]), sounds: new Map() });
    const borrowed = allocated!.mock.calls.length;
    expect(borrowed).toBeGreaterThan(3);
    for (let turn = 0; turn < 12; turn += 1) {
      engine.setPlan(compilePlan(turn % 2 === 0 ? at([]) : at([limiter(`l${turn}`)], [braid])));
      runEngine(engine, 0.2);
    }
    const { tracks, ...rest } = at([]);
    engine.setPlan(compilePlan({ ...rest, tracks: tracks.slice(0, 0) }));
    runEngine(engine, 0.2);
    // The main output keeps its own.
    expect(allocated!.mock.calls.length - freed!.mock.calls.length).toBeLessThanOrEqual(1);
    expect(allocated!.mock.calls.length).toBeGreaterThan(borrowed);
    jest.restoreAllMocks();
  });

  test('a render begins where the sound belongs and is whole at its end', () => {
    const { piece, sounds } = scene([noise], [{ clips: [clipOf('a', 0, 0, 1)], chain: [limiter('l', 8)] }]);
    const rendered = render({
      plan: compilePlan(piece),
      sounds,
      fromSample: 0,
      toSample: RATE,
      tail: { kind: 'silent' },
    })!;
    expect(rendered.left).toHaveLength(RATE);
    expect(awayFrom(rendered.left, noise)).toBeLessThan(1e-5);
  });

  test('coming, switching, changing and going make no step, beside a track that must wait', () => {
    const sine = soundOf(8, (i) => 0.2 * Math.sin((2 * Math.PI * 220 * i) / RATE));
    const from = (chain: Slot[]): Scene =>
      scene(
        [sine],
        [
          { clips: [clipOf('a', 0, 0, 8)], chain },
          { clips: [clipOf('b', 0, 0, 8)], sends: [{ to: 'r', level: 0.5, pre: false }] },
        ],
        { returns: [back] },
      );
    const engine = engineOf(from([]));
    engine.play(0);
    const parts: number[] = [...runEngine(engine, 2).left];
    for (const chain of [
      [limiter('l')],
      [{ ...limiter('l'), on: false }],
      [limiter('l', 7)],
      [limiter('l', 7), limiter('m')],
      [limiter('m')],
      [],
    ]) {
      engine.setPlan(compilePlan(from(chain).piece));
      parts.push(...runEngine(engine, 0.5).left);
    }
    expect(roughness(parts)).toBeLessThan(0.01);
    expect(engine.latency).toBe(0);
  });

  test('the place that is heard lies behind by as much, round a loop too', () => {
    const engine = engineOf(
      scene([noise], [{ clips: [], chain: [limiter('l')] }], { loop: { on: true, start: 1, end: 2 } }),
    );
    engine.play(RATE / 2);
    runEngine(engine, 0.1);
    expect(engine.heardPosition).toBe(engine.position - engine.latency);
    while (engine.position !== RATE / 2) runEngine(engine, 64 / RATE, 64);
    expect(engine.heardPosition).toBe(RATE - engine.latency);
  });
});

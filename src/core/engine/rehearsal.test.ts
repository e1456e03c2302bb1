import { clipOf, laneOf, scene, soundOf } from '../piece/testing';
import { preparedImpulse } from '../impulses/make';
import { EFFECTS } from '../effects/catalogue';
import { newSlot } from '../piece/edits/chain';
import type { Piece, Slot } from '../piece/piece';
import type { Engine } from './engine';
import { compilePlan } from './compilePlan';
import { planSlotsIn } from './plan';
import { Rehearsal } from './rehearsal';
import { awayFrom, engineOf, peakIn, runEngine } from './testing';

const voice = soundOf(1, (i) => 0.4 * Math.sin(i * 0.05) * Math.exp(-i / 9000));
const pieceOf = (chain: Slot[], more: Partial<Piece> = {}): Piece =>
  scene([voice], [{ clips: [clipOf('a', 0, 0, 1)], chain }, { clips: [clipOf('b', 0, 1, 1)] }], more).piece;

const { sounds } = scene([voice], []);

function readyToPlay(piece: Piece): Engine {
  const engine = engineOf({ piece, sounds });
  for (const { impulse } of compilePlan(piece).channels.flatMap((channel) => planSlotsIn(channel.slots)))
    if (impulse) engine.addImpulse(impulse.key, preparedImpulse(impulse.order, sounds)!);
  return engine;
}

function rehearsed(engine: Engine, piece: Piece): number {
  const rehearsal = new Rehearsal(engine);
  rehearsal.want(compilePlan(piece));
  let steps = 0;
  for (; !rehearsal.done; steps += 1) rehearsal.step();
  engine.forget();
  return steps;
}

function expectAlike(piece: Piece, seconds: number): void {
  const [fresh, ready] = [readyToPlay(piece), readyToPlay(piece)];
  expect(rehearsed(ready, piece)).toBeGreaterThan(100);
  expect(ready.silent).toBe(true);
  for (const engine of [fresh, ready]) engine.play(0);
  const [a, b] = [runEngine(fresh, seconds), runEngine(ready, seconds)];
  expect(peakIn(a.left)).toBeGreaterThan(0.001);
  expect([awayFrom(a.left, b.left), awayFrom(a.right, b.right)]).toEqual([0, 0]);
}

test.each(EFFECTS.map((effect) => [effect.id, effect] as const))(
  '%s plays after a rehearsal what it would have played without, to the bit',
  (id, { presets }) => {
    expectAlike(
      pieceOf(presets.slice(0, id === 'convolver' ? 1 : 3).map((preset, i) => newSlot(`s${i}`, id, preset.id))),
      1,
    );
  },
);

test('so does a whole piece: sends, returns, lanes, links, a follower, what listens aside and what looks ahead', () => {
  const plain = pieceOf([
    { ...newSlot('echo', 'echo', 'neutral'), wetPath: [newSlot('in', 'filter', 'neutral')] },
    { ...newSlot('side', 'compressor', 'neutral'), side: 't1' },
  ]);
  expectAlike(
    {
      ...plain,
      tracks: plain.tracks.map((track) => ({ ...track, sends: [{ to: 'far', level: 0.5, pre: track.id === 't1' }] })),
      returns: [
        {
          id: 'far',
          name: 'Far',
          gain: 1,
          pan: 0.3,
          mute: false,
          solo: false,
          sends: [],
          chain: [newSlot('space', 'reverb', 'openWater')],
        },
      ],
      main: { ...plain.main, chain: [newSlot('last', 'limiter', 'neutral')] },
      lanes: [
        laneOf('t0', 'echo', 'wet', [
          [0, 0.2],
          [4, 0.9],
        ]),
      ],
      modulators: [
        {
          id: 'm',
          name: 'Ear',
          kind: 'follower',
          follows: 't1',
          attackMs: 5,
          releaseMs: 200,
        },
      ],
      links: [
        {
          id: 'l',
          modulator: 'm',
          target: { kind: 'effect', channel: 't0', effect: 'echo', param: 'feedback' },
          depth: 0.4,
        },
      ],
    },
    3,
  );
});

test('so do strands that a pattern reaches when sound has come in for a while', () => {
  expectAlike(
    scene([voice], [{ clips: [clipOf('a', 0, 8, 1)], chain: [newSlot('bells', 'braid', 'fiveBells')] }]).piece,
    6,
  );
});

test('leaves nothing to be heard or seen', () => {
  const piece = pieceOf([newSlot('s', 'reverb', 'neutral')]);
  const engine = readyToPlay(piece);
  rehearsed(engine, piece);
  expect(runEngine(engine, 0.1).left.every((x) => x === 0)).toBe(true);
  expect(
    engine.channels.map(({ peakLeft, wetPeak, dryPeak, image }) => [peakLeft, wetPeak, dryPeak, image.monoDb]),
  ).toEqual(engine.channels.map(() => [0, 0, 0, 0]));
  expect([engine.position, engine.caught, engine.takeLimiterGain(), engine.takeGuardGain()]).toEqual([0, 0, 1, 1]);
});

test('begins anew for other choices, switches and impulses, not for other figures', () => {
  const echo = (values: Slot['values'], more: Partial<Slot> = {}): Piece =>
    pieceOf([{ ...newSlot('s', 'echo', 'neutral', values), ...more }]);
  const engine = readyToPlay(echo({}));
  const rehearsal = new Rehearsal(engine);
  const wants = (piece: Piece): boolean => {
    rehearsal.want(compilePlan(piece));
    const wanted = !rehearsal.done;
    while (!rehearsal.done) rehearsal.step();
    return wanted;
  };
  expect([
    wants(echo({})),
    wants(echo({ feedback: 0.8, timeL: '1/8t' })),
    wants(echo({ routing: 'pingpong' })),
    wants(echo({}, { on: false })),
    wants(echo({})),
  ]).toEqual([true, false, true, true, false]);
  const place = pieceOf([newSlot('c', 'convolver', 'neutral')]);
  expect([wants(place), wants(place)]).toEqual([true, false]);
  engine.setPlan(compilePlan(place));
  const { key, order } = planSlotsIn(compilePlan(place).channels[0]!.slots)[0]!.impulse!;
  engine.addImpulse(key, preparedImpulse(order, new Map())!);
  expect(wants(place)).toBe(true);
});

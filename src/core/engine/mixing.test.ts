import { clipOf, RATE, scene, soundOf, type Scene, targetOf } from '../piece/testing';
import { TRUE_PEAK_DELAY } from '../dsp/truePeak';
import { BAND_LIMITER_DELAY } from '../effects/limiter/bandLimiter';
import { applyEdit, EditRefused } from '../piece/edit';
import { newSlot } from '../piece/edits/chain';
import { copySends, removeReturn, setSend } from '../piece/edits/sends';
import type { Piece, Return, Slot } from '../piece/piece';
import { compilePlan } from './compilePlan';
import { roughness } from '../testing';
import { engineOf, peakIn, runEngine } from './testing';

const SINE = soundOf(20, (i) => 0.4 * Math.sin((2 * Math.PI * 220 * i) / RATE));
const made = (id: string, more: Partial<Return> = {}): Return => ({
  id,
  name: `Return ${id}`,
  gain: 1,
  pan: 0,
  mute: false,
  solo: false,
  chain: [],
  sends: [],
  ...more,
});
const withReturns = (returns: readonly Return[], more: Partial<Piece['tracks'][number]> = {}): Scene =>
  scene([SINE], [{ clips: [clipOf('c', 0, 0, 20)], ...more }], { returns: [...returns] });
const levelOf = ({ piece, sounds }: Scene, change?: (piece: Piece) => Piece): number => {
  const engine = engineOf({ piece: change ? change(piece) : piece, sounds });
  engine.play(0);
  return peakIn(runEngine(engine, 0.5).left, 4800) / 0.4;
};

describe('sends and returns', () => {
  const send = (pre: boolean, level = 0.5): Scene =>
    withReturns([made('r')], { gain: 0.5, sends: [{ to: 'r', level, pre }] });

  test('a send takes after the fader or before it, at its level, and the return adds to the direct sound', () => {
    expect(levelOf(send(false))).toBeCloseTo(0.5 + 0.5 * 0.5, 4);
    expect(levelOf(send(true))).toBeCloseTo(0.5 + 0.5, 4);
  });

  test('a muted channel sends nothing; a soloed return is heard alone, fed as before', () => {
    expect(
      levelOf(send(true), (piece) => ({ ...piece, tracks: piece.tracks.map((track) => ({ ...track, mute: true })) })),
    ).toBeLessThan(1e-5);
    expect(
      levelOf(send(false), (piece) => ({ ...piece, returns: piece.returns.map((one) => ({ ...one, solo: true })) })),
    ).toBeCloseTo(0.25, 4);
    expect(
      levelOf(send(false), (piece) => ({ ...piece, returns: piece.returns.map((one) => ({ ...one, mute: true })) })),
    ).toBeCloseTo(0.5, 4);
  });

  test('returns feed returns, whatever the order they stand in', () => {
    const chained = withReturns(
      [made('last'), made('first', { gain: 0.5, sends: [{ to: 'last', level: 0.5, pre: false }] })],
      { sends: [{ to: 'first', level: 1, pre: false }] },
    );
    expect(levelOf(chained)).toBeCloseTo(1 + 0.5 + 0.25, 4);
  });

  test('a loop is refused with a reason, and copying leaves out what would make one', () => {
    const { piece } = withReturns([made('a', { sends: [{ to: 'b', level: 1, pre: false }] }), made('b')], {
      sends: [{ to: 'a', level: 0.3, pre: true }],
    });
    expect(() => applyEdit(piece, setSend, { channel: 'b', to: 'a', level: 1 })).toThrow(EditRefused);
    expect(() => applyEdit(piece, setSend, { channel: 'b', to: 'a', level: 1 })).toThrow(
      'Return b cannot send to Return a: Return a already reaches Return b',
    );
    expect(() => applyEdit(piece, setSend, { channel: 'b', to: 'b', level: 1 })).toThrow('cannot feed itself');
    const copied = applyEdit(piece, copySends, { from: 't0', to: ['b', 'a'] }).piece;
    expect(copied.returns.map((one) => one.sends)).toEqual([[], []]);
  });

  test('removing a return takes its sends and their moves along', () => {
    const { piece } = withReturns([made('r')], { sends: [{ to: 'r', level: 1, pre: false }] });
    const lane = {
      id: 'l',
      target: { kind: 'send' as const, channel: 't0', to: 'r' },
      unit: 'own' as const,
      on: true,
      points: [{ beat: 0, value: 1, shape: 'line' as const, bend: 0 }],
    };
    const gone = applyEdit({ ...piece, lanes: [lane] }, removeReturn, { id: 'r' }).piece;
    expect([gone.returns, gone.tracks[0]!.sends, gone.lanes]).toEqual([[], [], []]);
  });

  test('a send can be ridden by a lane and by hand without a step, come and go', () => {
    const from = withReturns([made('r')], { sends: [{ to: 'r', level: 0, pre: false }] });
    const points = Array.from({ length: 20 }, (_, i) => ({
      beat: 3 + i * 0.25,
      value: i % 2,
      shape: 'line' as const,
      bend: 0,
    }));
    const engine = engineOf({
      ...from,
      piece: {
        ...from.piece,
        lanes: [{ id: 'l', target: { kind: 'send' as const, channel: 't0', to: 'r' }, unit: 'own', on: true, points }],
      },
    });
    engine.play(0);
    const parts: number[] = [...runEngine(engine, 4).left];
    expect(peakIn(Float32Array.from(parts))).toBeGreaterThan(0.75);
    engine.setPlan(compilePlan({ ...from.piece, tracks: from.piece.tracks.map((track) => ({ ...track, sends: [] })) }));
    parts.push(...runEngine(engine, 0.5).left);
    engine.setPlan(
      compilePlan({
        ...from.piece,
        tracks: from.piece.tracks.map((track) => ({ ...track, sends: [{ to: 'r', level: 1, pre: true }] })),
      }),
    );
    engine.queue({ kind: 'hold', channel: 't0', slot: null, value: 3, to: 0.2, atSample: 0 });
    parts.push(...runEngine(engine, 0.5).left);
    expect(roughness(parts)).toBeLessThan(0.01);
    expect(Math.abs(parts[parts.length - 100]!)).toBeLessThanOrEqual(0.4 * 1.21);
  });
});

describe('changing a chain while it plays', () => {
  const echo = newSlot('echo', 'echo', 'neutral', { timeL: 200, feedback: 0.6, balance: 'mix', mix: 0.4 });
  const filter = newSlot('filter', 'filter', 'neutral', { cutoff: 600 });
  const space = newSlot('space', 'reverb', 'neutral', { decay: 3000, balance: 'mix', mix: 0.3 });
  const playing = (
    chain: Slot[],
  ): { set(next: Slot[]): void; run(seconds: number): void; parts: number[]; stop(): void } => {
    const from = scene([SINE], [{ clips: [clipOf('c', 0, 0, 20)], gain: 0.4, chain }]);
    const engine = engineOf(from);
    engine.play(0);
    const parts: number[] = [];
    const run = (seconds: number): void => runEngine(engine, seconds).left.forEach((x) => void parts.push(x));
    run(2);
    return {
      set: (next) =>
        engine.setPlan(
          compilePlan({ ...from.piece, tracks: from.piece.tracks.map((track) => ({ ...track, chain: next })) }),
        ),
      run,
      parts,
      stop: () => engine.stop(),
    };
  };

  test('adding, removing, reordering, replacing and switching make no step', () => {
    const live = playing([echo, filter]);
    for (const chain of [
      [echo, space, filter],
      [filter, echo, space],
      [space, filter],
      [space, { ...filter, on: false }],
      [newSlot('space', 'echo', 'neutral', { timeL: 90 }), filter],
      [],
    ]) {
      live.set(chain);
      live.run(0.4);
    }
    expect(roughness(live.parts)).toBeLessThan(0.01);
  });

  test.each([
    ['removed', []],
    ['switched off', [{ ...space, on: false }]],
    ['replaced', [newSlot('space', 'filter', 'neutral')]],
  ] as const)('a tail rings on when its effect is %s', (_how, chain) => {
    const live = playing([space]);
    live.stop();
    live.run(0.1);
    live.set([...chain]);
    const before = live.parts.length;
    live.run(1);
    const rms = (from: number): number =>
      10 * Math.log10(live.parts.slice(from, from + 4800).reduce((sum, x) => sum + x * x, 1e-20) / 4800);
    // 3 s for 60 dB: 18 dB in 0.9 s.
    expect(rms(before + 2400) - rms(before + 2400 + 38_400)).toBeGreaterThan(12);
    expect(rms(before + 2400) - rms(before + 2400 + 38_400)).toBeLessThan(24);
  });

  test('a frozen reverb that is switched off lets go', () => {
    const live = playing([{ ...space, values: { ...space.values, freeze: 'open' } }]);
    live.stop();
    live.set([{ ...space, values: { ...space.values, freeze: 'open' }, on: false }]);
    live.run(4);
    expect(peakIn(Float32Array.from(live.parts.slice(-4800)))).toBeLessThan(1e-3);
  });
});

describe('switches as moves', () => {
  const sends = [{ to: 'r', level: 0.5, pre: true }];
  const switched = (param: string, effect: string | null, points: readonly (readonly [number, number])[]): Scene => {
    const echo = newSlot('echo', 'echo', 'neutral', { timeL: 400, feedback: 0.5, balance: 'levels', dry: 1, wet: 1 });
    const from = withReturns([made('r')], { gain: 0.4, sends, chain: effect ? [echo] : [] });
    const lane = {
      id: 'l',
      target: targetOf('t0', effect, param),
      unit: 'own' as const,
      on: true,
      points: points.map(([beat, value]) => ({ beat, value, shape: 'hold' as const, bend: 0 })),
    };
    return { ...from, piece: { ...from.piece, lanes: [lane] } };
  };

  test('a mute shuts the channel and what it sends, at its beat, without a step', () => {
    const engine = engineOf(
      switched('mute', null, [
        [0, 0],
        [4, 1],
        [6, 0],
      ]),
    );
    engine.play(0);
    const { left } = runEngine(engine, 4);
    const [before, during, after] = [
      [1.5, 1.99],
      [2.2, 2.99],
      [3.1, 4],
    ].map(([from, to]) => peakIn(left, from! * RATE, to! * RATE));
    expect([before, during, after]).toEqual([expect.closeTo(0.4 * 0.9, 3), 0, expect.closeTo(0.4 * 0.9, 3)]);
    expect(roughness(left)).toBeLessThan(0.01);
  });

  test('an effect goes off and on at its beat; its repeats ring out, nothing new enters', () => {
    const engine = engineOf(
      switched('on', 'echo', [
        [0, 0],
        [6, 1],
        [7, 0],
      ]),
    );
    engine.play(0);
    const { left } = runEngine(engine, 5);
    const dry = 0.4 * 0.9;
    expect(peakIn(left, 2 * RATE, 2.9 * RATE)).toBeCloseTo(dry, 3);
    // Sound that entered from 3 s to 3.5 s comes back 400 ms later, and after it half as loud.
    const wet = (from: number): number => peakIn(left, from * RATE, (from + 0.05) * RATE);
    expect(Math.abs(wet(3.6) - dry)).toBeGreaterThan(0.1);
    expect(Math.abs(wet(4.1) - dry)).toBeGreaterThan(0.05);
    expect(wet(3.3)).toBeCloseTo(dry, 2);
    expect(roughness(left)).toBeLessThan(0.01);
  });
});

test('half wet through a limiter that does nothing makes no comb: the untreated sound waits for it', () => {
  const noise = soundOf(2, (i) => 0.3 * Math.sin(i * i));
  const limiter = newSlot('l', 'limiter', 'neutral', { balance: 'levels', dry: 0.5, wet: 0.5, lookAhead: 2 });
  const engine = engineOf(scene([noise], [{ clips: [clipOf('c', 0, 0, 2)], chain: [limiter] }]));
  engine.play(0);
  const { left } = runEngine(engine, 1);
  const late =
    left.findIndex((x, i) => i > 0 && Math.abs(x) > 1e-3) - noise.findIndex((x, i) => i > 0 && Math.abs(x) > 1e-3);
  expect(late).toBe(95 + BAND_LIMITER_DELAY + TRUE_PEAK_DELAY);
  for (let i = 1000; i < 40_000; i += 501) expect(left[i + late]).toBeCloseTo(noise[i]!, 5);
});

import * as fc from 'fast-check';
import { barStart, toBarBeat } from '../music/grid';
import { metreAt, metreOf, METRES } from '../music/metre';
import { beatsToSamples, type Tempo } from '../music/tempo';
import { tempoOf } from '../piece/tempoOf';
import { newSlot } from '../piece/edits/chain';
import { emptyPiece, type Piece } from '../piece/piece';
import { clipOf, hashOf, scene } from '../piece/testing';
import { Click } from './click';
import { compilePlan } from './compilePlan';
import { CountedEngine } from './countedEngine';
import { Engine } from './engine';
import { engineOf } from './testing';

const RATE = 48_000;

/** Samples at which clicks begin. */
function onsets(out: Float32Array): number[] {
  const found: number[] = [];
  let quiet = 1000;
  out.forEach((x, i) => {
    // The first sample of a click is a sine's zero.
    if (x !== 0 && quiet >= 400) found.push(i - 1);
    quiet = x === 0 ? quiet + 1 : 0;
  });
  return found;
}

const pieceOf = (tempo: Piece['tempo'], more: Partial<Piece> = {}): Piece => ({
  ...emptyPiece('p', 'P'),
  tempo,
  ...more,
});
const section = (beat: number, count: number, unit: number) => ({
  id: `s${beat}`,
  name: 'S',
  beat,
  metre: metreOf(count, unit) as { beatsPerBar: number; unit: 4 | 8 },
});

/** Where the beats of a tempo are, in samples. */
function beatsIn(tempo: Tempo, toBeat: number): number[] {
  const beats: number[] = [];
  for (let beat = 0; beat < toBeat;) {
    beats.push(beatsToSamples(beat, tempo, RATE));
    const metre = metreAt(beat + 1e-3, tempo);
    beat = Math.min(metre.end, beat + 4 / metre.unit);
  }
  return beats;
}

test('clicks lie on the samples of the beats, in any metre and row of metres, in blocks of any size', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 40, max: 240, noNaN: true }),
      fc.constantFrom(...METRES),
      fc.constantFrom(...METRES),
      fc.integer({ min: 2, max: 9 }),
      fc.constantFrom(64, 128, 333, 4096),
      (bpm, [count, unit], [laterCount, laterUnit], at, block) => {
        const own = metreOf(count, unit) as { beatsPerBar: number; unit: 4 | 8 };
        const piece = pieceOf({ bpm, ...own }, { sections: [section(at / 2, laterCount, laterUnit)] });
        const click = new Click(RATE);
        click.setPlan(compilePlan(piece));
        const frames = Math.ceil((8 * 60 * RATE) / bpm);
        const out = new Float32Array(frames);
        for (let from = 0; from < frames; from += block)
          click.add(out, out, from, Math.min(frames, from + block), from);
        const expected = beatsIn(tempoOf(piece), 8).filter((sample) => sample < frames - 2);
        // Beats nearer than a click is long are heard as one.
        const apart = expected.filter((sample, i) => i === 0 || sample - expected[i - 1]! > 2000);
        expect(onsets(out).filter((sample) => apart.includes(sample))).toEqual(apart);
      },
    ),
    { numRuns: 60 },
  );
});

const heldTempo = { bpm: 120, beatsPerBar: 3, unit: 8 } as const;

function counted(bars: number, click: boolean, block = 128): { out: Float32Array; engine: Engine; startedAt: number } {
  const engine = new Engine(RATE);
  const plan = compilePlan(pieceOf(heldTempo));
  engine.setPlan(plan);
  const player = new CountedEngine(engine, RATE);
  player.setPlan(plan);
  player.click = click;
  player.play(0, bars);
  const out = new Float32Array(6 * RATE);
  let startedAt = -1;
  for (let from = 0; from < out.length; from += block) {
    const left = out.subarray(from, Math.min(out.length, from + block));
    player.process(left, new Float32Array(left.length), left.length);
    if (startedAt < 0 && engine.playing) startedAt = from + block;
  }
  return { out, engine, startedAt };
}

test.each([64, 128, 1000])(
  'a bar of 6/8 is counted in six, and playing begins with the seventh, in blocks of %d',
  (block) => {
    const { out, startedAt } = counted(1, true, block);
    const eighth = RATE / 4;
    expect(startedAt % block).toBe(0);
    expect(startedAt).toBeGreaterThanOrEqual(6 * eighth);
    expect(startedAt).toBeLessThan(6 * eighth + block);
    const clicks = onsets(out);
    expect(clicks.slice(0, 7)).toEqual([6, 5, 4, 3, 2, 1, 0].map((left) => startedAt - left * eighth));
  },
);

test('without a count it plays at once; without the click it is the engine alone', () => {
  expect(counted(0, false).startedAt).toBe(128);
  expect(counted(0, false).out.every((x) => x === 0)).toBe(true);
  // Counted in, and silent from where the piece begins.
  const { out, startedAt } = counted(2, false);
  expect(onsets(out).filter((at) => at >= startedAt)).toEqual([]);
  expect(onsets(out)).toHaveLength(12);
});

test('the first beat of a bar is higher', () => {
  const { out } = counted(0, true);
  const rises = (from: number): number =>
    out.subarray(from, from + 1000).reduce((sum, x, i, all) => sum + (i > 0 && all[i - 1]! < 0 && x >= 0 ? 1 : 0), 0);
  const clicks = onsets(out);
  const [bar, beat] = [clicks[0]!, clicks[1]!];
  expect(rises(bar)).toBeGreaterThan(1.4 * rises(beat));
  expect(rises(clicks[6]!)).toBe(rises(bar));
  expect(toBarBeat(barStart(2, heldTempo), heldTempo)).toEqual({ bar: 2, beat: 1 });
});

describe('what is played is late for effects that look ahead', () => {
  const BEAT = 24_000;
  /** Impulses on the beats of sixteen, on the right alone: on the left are only clicks. */
  const marks = [new Float32Array(16 * BEAT), Float32Array.from({ length: 16 * BEAT }, (_, i) => (i % BEAT ? 0 : 0.5))];

  interface Course {
    readonly lookAheads: readonly number[];
    readonly block: number;
    readonly bars: number;
    readonly loop?: Piece['loop'];
    /** Called before each block. */
    readonly act?: (player: CountedEngine, at: number) => void;
  }

  /** Where clicks begin, and where impulses of the sound come out. */
  function heard({ lookAheads, block, bars, loop, act }: Course): { clicks: number[]; impulses: number[] } {
    const chain = lookAheads.map((lookAhead, i) => newSlot(`l${i}`, 'limiter', 'neutral', { lookAhead, ceiling: 0 }));
    const played = scene([marks[0]!], [{ clips: [clipOf('a', 0, 0, 8)], chain }], {
      tempo: { bpm: 120, beatsPerBar: 4 },
      ...(loop ? { loop } : {}),
    });
    played.sounds.set(hashOf(0), marks);
    const engine = engineOf(played);
    const player = new CountedEngine(engine, RATE);
    player.setPlan(compilePlan(played.piece));
    player.click = true;
    player.play(0, bars);
    const frames = block * Math.floor((10 * BEAT) / block);
    const [left, right] = [new Float32Array(frames), new Float32Array(frames)];
    for (let at = 0; at < frames; at += block) {
      act?.(player, at);
      player.process(left.subarray(at, at + block), right.subarray(at, at + block), block);
    }
    const impulses = [...right.keys()].filter((i) => Math.abs(right[i]! - left[i]!) > 0.1);
    return { clicks: onsets(left), impulses };
  }

  const course = {
    lookAheads: fc.array(fc.double({ min: 0.5, max: 8, noNaN: true }), { maxLength: 4 }),
    block: fc.constantFrom(64, 128, 1024),
  };

  test('a click sounds with each beat that is heard, and once', () => {
    fc.assert(
      fc.property(course.lookAheads, course.block, fc.boolean(), (lookAheads, block, on) => {
        const { clicks, impulses } = heard({ lookAheads, block, bars: 0, loop: { on, start: 0.75, end: 3.5 } });
        expect(impulses.length).toBeGreaterThan(7);
        expect(clicks).toEqual(impulses);
      }),
      { numRuns: 20 },
    );
  });

  test('the first beat is heard where a count-in would have its next', () => {
    fc.assert(
      fc.property(course.lookAheads, course.block, (lookAheads, block) => {
        const { clicks, impulses } = heard({ lookAheads, block, bars: 1 });
        expect(clicks.slice(4)).toEqual(impulses);
        expect(clicks.slice(0, 5)).toEqual([4, 3, 2, 1, 0].map((left) => impulses[0]! - left * BEAT));
      }),
      { numRuns: 20 },
    );
  });

  test('after a jump while it plays the clicks lie on the beats there, the one it jumps to among them', () => {
    fc.assert(
      fc.property(course.lookAheads, fc.integer({ min: 390, max: 495 }), (lookAheads, block) => {
        const act = (player: CountedEngine, at: number): void => {
          if (at === block * 128) player.locate(5 * BEAT);
        };
        const { clicks, impulses } = heard({ lookAheads, block: 128, bars: 0, act });
        const from = block * 128;
        const after = impulses.filter((at) => at > from);
        // Clips are faded in where it jumps to, and the impulse there with them.
        expect(clicks.filter((at) => at > from)).toEqual([after[0]! - BEAT, ...after]);
        expect(clicks.filter((at) => at < from)).toEqual(impulses.filter((at) => at < from));
      }),
      { numRuns: 20 },
    );
  });

  test('what is located during a count-in is where playing begins', () => {
    const act = (player: CountedEngine, at: number): void => {
      if (at === 128 * 100) player.locate(2.5 * BEAT);
    };
    const { clicks, impulses } = heard({ lookAheads: [4], block: 128, bars: 1, act });
    expect(impulses[0]! - clicks[3]!).toBe(1.5 * BEAT);
    expect(clicks.slice(4)).toEqual(impulses);
  });
});

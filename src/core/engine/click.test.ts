import * as fc from 'fast-check';
import { barStart, toBarBeat } from '../music/grid';
import { metreAt, metreOf, METRES } from '../music/metre';
import { beatsToSamples, type Tempo } from '../music/tempo';
import { tempoOf } from '../piece/tempoOf';
import { emptyPiece, type Piece } from '../piece/piece';
import { Click } from './click';
import { compilePlan } from './compilePlan';
import { CountedEngine } from './countedEngine';
import { Engine } from './engine';

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

/** Where the beats of a tempo lie, in samples. */
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

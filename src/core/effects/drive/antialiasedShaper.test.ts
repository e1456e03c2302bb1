import fc from 'fast-check';
import { Oversampler } from '../../dsp/oversampler';
import { AntialiasedShaper } from './antialiasedShaper';
import { CORNER_ROOM } from './cornerKernel';
import { DrawnCurve } from './curves';
import { CURVES, DRAWN_POINTS } from './params';

const RUNS = 12;
const FRAMES = 512;

/** What a shaper makes of runs of a driven wave in the cells of an oversampler's memory, or in cells of its own. */
function shaped(curve: string, heights: Float64Array, wave: (i: number) => number, withKernel: boolean): Float32Array {
  const drawn = new DrawnCurve();
  drawn.take(heights, 0);
  const { room } = new Oversampler(8, withKernel, CORNER_ROOM + 4 * FRAMES);
  const cells = room ? new Float32Array(room.memory.buffer) : new Float32Array(FRAMES);
  const at = room ? Math.ceil((room.at + CORNER_ROOM) / 16) * 4 : 0;
  const shaper = new AntialiasedShaper(drawn, room);
  shaper.clear();
  shaper.aim(CURVES.indexOf(curve as (typeof CURVES)[number]));
  const out = new Float32Array(RUNS * FRAMES);
  for (let run = 0; run < RUNS; run += 1) {
    for (let i = 0; i < FRAMES; i += 1) cells[at + i] = wave(run * FRAMES + i);
    shaper.shape(cells, at, FRAMES, 1.3, 0.0002, 1);
    out.set(cells.subarray(at, at + FRAMES), run * FRAMES);
  }
  return out;
}

test.each(['hard', 'fold', 'wrap', 'drawn'])('the kernel shapes by %s as TypeScript does', (curve) => {
  const height = fc.double({ min: -1, max: 1, noNaN: true });
  const waves = fc.record({
    heights: fc.array(height, { minLength: DRAWN_POINTS, maxLength: DRAWN_POINTS }),
    level: fc.double({ min: 0.1, max: 12, noNaN: true }),
    turn: fc.double({ min: 0.001, max: 1.2, noNaN: true }),
    second: fc.double({ min: 0.001, max: 2.5, noNaN: true }),
  });
  fc.assert(
    fc.property(waves, ({ heights, level, turn, second }) => {
      const wave = (i: number): number => level * (Math.sin(turn * i) + 0.3 * Math.sin(second * i));
      const [fast, plain] = [true, false].map((withKernel) =>
        shaped(curve, Float64Array.from(heights), wave, withKernel),
      ) as [Float32Array, Float32Array];
      // Single samples differ where rounding decides whether a cubic turns between two samples, or after which of them
      // a jump is.
      const apart = plain.map((y, i) => Math.abs(y - fast[i]!));
      expect(apart.filter((each) => each < 2e-4).length / plain.length).toBeGreaterThan(0.99);
      if (curve !== 'wrap')
        expect(Math.sqrt(apart.reduce((sum, each) => sum + each * each, 0) / plain.length)).toBeLessThan(0.01);
    }),
    { numRuns: 30 },
  );
});

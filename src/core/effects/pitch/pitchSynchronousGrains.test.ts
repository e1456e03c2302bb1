import fc from 'fast-check';
import { makeStereoBlock, STEP_FRAMES } from '../../dsp/blocks';
import { SINC_AHEAD } from '../../dsp/sincTable';
import { between } from '../../testing';
import { PitchSynchronousGrains, type GrainSource } from './pitchSynchronousGrains';

const RATE = 48_000;

/** A voice that goes on for ever, and fails when something is read that has not come in yet. */
class StrictSource implements GrainSource {
  readonly outLeft = new Float64Array(STEP_FRAMES);
  readonly outRight = new Float64Array(STEP_FRAMES);
  newest = 0;
  reads = 0;

  constructor(private readonly hz: number) {}

  /** Pulses, so that its period is certain. */
  private at(position: number): number {
    const turn = (position * this.hz) / RATE;
    return Math.exp(-9 * (turn - Math.floor(turn)));
  }

  monoAt(position: number): number {
    if (position > this.newest) throw new Error(`${position - this.newest} samples after the newest`);
    this.reads += 1;
    return 2 * this.at(position);
  }

  read(position: number, speed: number, _growth: number, from: number, to: number): void {
    const last = position + (to - 1 - from) * speed;
    if (last + SINC_AHEAD > this.newest) throw new Error(`${last + SINC_AHEAD - this.newest} samples after the newest`);
    for (let i = from; i < to; i += 1) this.outLeft[i] = this.outRight[i] = this.at(position + (i - from) * speed);
  }
}

const semitones = (value: number): number => Math.pow(2, value / 12);

test('whatever pitch, formants and time, nothing is read before it has come in, and all sounds are finite', () => {
  fc.assert(
    fc.property(
      between(65, 500),
      between(-24, 24),
      between(-12, 12),
      between(0, 2),
      fc.integer({ min: 1600, max: 4000 }),
      (hz, pitch, formants, speed, latency) => {
        const source = new StrictSource(hz);
        const grains = new PitchSynchronousGrains(RATE, source);
        const out = makeStereoBlock();
        const start = 20_000;
        let head = start;
        for (let step = 0; step < 300; step += 1) {
          const now = start + step * STEP_FRAMES;
          source.newest = now + STEP_FRAMES - 1;
          const isLate = head < now - latency;
          const order = {
            position: isLate ? head : now - latency,
            timeSpeed: isLate ? speed : 1,
            newest: source.newest,
            ratio: semitones(pitch),
            formantRatio: semitones(pitch + formants),
          };
          out.left.fill(0);
          out.right.fill(0);
          if (step === 0) grains.begin(order);
          grains.add(out, 0, STEP_FRAMES, order, true);
          head += STEP_FRAMES * speed;
          if (!out.left.every(Number.isFinite)) throw new Error('not finite');
        }
      },
    ),
    { numRuns: 200 },
  );
});

test('when its formants are moved again after a long time, it does not catch up with what it has missed', () => {
  const source = new StrictSource(220);
  source.newest = Infinity;
  const grains = new PitchSynchronousGrains(RATE, source);
  const out = makeStereoBlock();
  const run = (first: number, count: number, apart: boolean): number => {
    let most = 0;
    for (let step = first; step < first + count; step += 1) {
      const before = source.reads;
      const position = 10_000 + step * STEP_FRAMES;
      grains.add(out, 0, STEP_FRAMES, { position, timeSpeed: 1, newest: 1e9, ratio: 1, formantRatio: 1.2 }, apart);
      most = Math.max(most, source.reads - before);
    }
    return most;
  };
  const usual = run(0, 200, true);
  run(200, 20_000, false);
  expect(run(20_200, 50, true)).toBeLessThanOrEqual(1.2 * usual);
});

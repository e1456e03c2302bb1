import { STEP_FRAMES, type StereoBlock } from '../dsp/blocks';
import { makeRandom } from '../dsp/random';
import { IntegerDelayLine } from '../dsp/integerDelayLine';
import { BlockMixer } from './blockMixer';

const GAINS = [0.7, 0.956, 1.2, 0.496] as const;
const random = makeRandom(11);
const noise = (): number[] => Array.from({ length: 2 * STEP_FRAMES }, () => random() - 0.5);
const [ONE, OTHER] = [noise(), noise()] as const;

function filled(mixer: BlockMixer, samples: readonly number[]): StereoBlock {
  const block = mixer.allocate();
  block.left.set(samples.slice(0, STEP_FRAMES));
  block.right.set(samples.slice(STEP_FRAMES));
  return block;
}
const samplesOf = ({ left, right }: StereoBlock): number[] => [...left, ...right];
const gainAt = (i: number, from: number, to: number): number =>
  from + ((to - from) * ((i % STEP_FRAMES) + 1)) / STEP_FRAMES;
const peakOf = (samples: readonly number[]): number => Math.max(...samples.map(Math.abs));
const mean = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, x, i) => sum + x * b[i]!, 0);

/** What one kind of work makes of two blocks, and the figures that it leaves. */
function worked(
  withKernel: boolean,
  work: (mixer: BlockMixer, io: StereoBlock, other: StereoBlock) => void,
): { samples: number[]; figures: number[] } {
  const mixer = new BlockMixer(withKernel);
  const [io, other] = [filled(mixer, ONE), filled(mixer, OTHER)];
  expect(io.at >= 0).toBe(withKernel);
  mixer.gains(...GAINS);
  work(mixer, io, other);
  return {
    samples: samplesOf(io),
    figures: [mixer.peak, mixer.otherPeak, mixer.leftPower, mixer.rightPower, mixer.commonPower],
  };
}

const WORKS = {
  blend: (mixer: BlockMixer, io: StereoBlock, other: StereoBlock): void => mixer.blend(io, other),
  add: (mixer: BlockMixer, io: StereoBlock, other: StereoBlock): void => mixer.add(io, other),
  level: (mixer: BlockMixer, io: StereoBlock): void => mixer.level(io),
};

test.each(Object.entries(WORKS))('the kernel and its TypeScript reference %s blocks to the same bits', (_, work) => {
  expect(worked(true, work)).toEqual(worked(false, work));
});

test('a blend is both blocks at their moving gains, with the peaks of what came and of what is added', () => {
  const { samples, figures } = worked(true, WORKS.blend);
  const added = OTHER.map((x, i) => x * gainAt(i, GAINS[2], GAINS[3]));
  samples.forEach((x, i) => expect(x).toBeCloseTo(ONE[i]! * gainAt(i, GAINS[0], GAINS[1]) + added[i]!, 12));
  expect(figures[0]).toBe(peakOf(ONE));
  expect(figures[1]).toBeCloseTo(peakOf(added), 12);
});

test('a block is added at its moving gain', () => {
  worked(true, WORKS.add).samples.forEach((x, i) =>
    expect(x).toBeCloseTo(ONE[i]! + OTHER[i]! * gainAt(i, GAINS[0], GAINS[1]), 12),
  );
});

test('levels are those of single-precision samples, and peaks and powers are told', () => {
  const { samples, figures } = worked(true, WORKS.level);
  const wanted = ONE.map(
    (x, i) => Math.fround(x) * (i < STEP_FRAMES ? gainAt(i, GAINS[0], GAINS[1]) : gainAt(i, GAINS[2], GAINS[3])),
  );
  samples.forEach((x, i) => expect(x).toBeCloseTo(wanted[i]!, 12));
  const [left, right] = [wanted.slice(0, STEP_FRAMES), wanted.slice(STEP_FRAMES)];
  [peakOf(left), peakOf(right), mean(left, left), mean(right, right), mean(left, right)].forEach((figure, i) =>
    expect(figures[i]).toBeCloseTo(figure, 12),
  );
});

test.each([NaN, Infinity])('a block with %p in it is not finite', (odd) => {
  for (const withKernel of [true, false]) {
    const mixer = new BlockMixer(withKernel);
    const block = filled(mixer, ONE);
    expect(mixer.finite(block)).toBe(true);
    block.right[17] = odd;
    expect(mixer.finite(block)).toBe(false);
  }
});

test('blocks that were given back come again empty, and those past the memory’s end work as well', () => {
  const mixer = new BlockMixer();
  const first = filled(mixer, ONE);
  mixer.free(first);
  expect(mixer.allocate()).toBe(first);
  expect(peakOf(samplesOf(first))).toBe(0);
  const many = Array.from({ length: 300 }, () => filled(mixer, ONE));
  expect(many.at(-1)!.at).toBe(-1);
  mixer.gains(1, 1, 0, 0);
  mixer.add(many.at(-1)!, many[0]!);
  expect(samplesOf(many.at(-1)!)).toEqual(ONE.map((x) => x + x));
});

test('the kernel delays a block to the same bits as an integer delay line', () => {
  const mixer = new BlockMixer();
  const ring = mixer.allocateRing()!;
  const [left, right] = [new IntegerDelayLine(700, STEP_FRAMES), new IntegerDelayLine(700, STEP_FRAMES)];
  const io = mixer.allocate();
  const expected = { left: new Float64Array(STEP_FRAMES), right: new Float64Array(STEP_FRAMES) };
  for (let step = 0; step < 60; step += 1) {
    const delay = step < 20 ? 0 : step < 40 ? 700 : 137;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      io.left[i] = random();
      io.right[i] = random();
    }
    left.reserve(700);
    const { size, writeIndex } = left;
    right.reserve(700);
    left.write(io.left);
    right.write(io.right);
    left.read(delay, expected.left);
    right.read(delay, expected.right);
    mixer.delayBlock(io, ring, size, writeIndex, delay);
    expect(samplesOf(io)).toEqual([...expected.left, ...expected.right]);
  }
});

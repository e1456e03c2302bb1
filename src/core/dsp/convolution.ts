import { STEP_FRAMES, toFloat32Block } from './blocks';
import { passesOf, workMemory, writeTurns, type WorkMemory } from './convolutionWork';

/**
 * Partition sizes; each stage begins two of its partitions after the start, so that a block can be computed while the
 * next one comes in.
 */
const SIZES = [64, 256, 1024, 8192] as const;
const STARTS = [0, 512, 2048, 16_384] as const;
/** Bins that are summed at once, and their number of floats. */
const BINS_AT_ONCE = 4;
const FOUR = 4 * BINS_AT_ONCE;
const NEXT_STARTS = [512, 2048, 16_384, Infinity] as const;

/** Partitions of a stage that an impulse of so many samples needs. */
function partitionsOf(stage: number, frames: number): number {
  const end = Math.min(frames, NEXT_STARTS[stage]!);
  return Math.max(0, Math.ceil((end - STARTS[stage]!) / SIZES[stage]!));
}

/**
 * An impulse as spectra of its partitions, ready for a convolution: those of each stage laid out as
 * ConvolutionWork.multiply says.
 */
export interface PreparedImpulse {
  readonly frames: number;
  readonly stages: readonly Float32Array[];
}

/** Transforms an impulse. Takes tens of milliseconds for seconds of sound: not for the audio thread. */
export function prepareImpulse(left: ArrayLike<number>, right: ArrayLike<number>, withKernel = true): PreparedImpulse {
  const made = makeStages(
    SIZES.map(() => 0),
    withKernel,
  ).stages;
  const stages = SIZES.map((size, index) => {
    const count = partitionsOf(index, left.length);
    const spectra = new Float32Array(count * 4 * size);
    const stage = made[index]!;
    for (let p = 0; p < count; p += 1)
      interleaveSpectrum(stage.spectrum(left, right, STARTS[index]! + p * size), 1, 0, spectra, count, p);
    return spectra;
  });
  return { frames: left.length, stages };
}

/** Copies a spectrum from `slot` of `count` to a slot of an interleaved array. */
function interleaveSpectrum(
  from: Float32Array,
  count: number,
  slot: number,
  to: Float32Array,
  wide: number,
  column: number,
): void {
  const fours = from.length / (count * FOUR);
  for (let i = 0; i < fours; i += 1) {
    for (let k = 0; k < FOUR; k += 1) to[(i * wide + column) * FOUR + k] = from[(i * count + slot) * FOUR + k]!;
  }
}

/**
 * Padding between arrays, in floats. All lengths are powers of two: without it, arrays that are read and written
 * together would map to the same few lines of the processor's cache and evict each other.
 */
const GAP = 16;
/**
 * Arrays of a stage that follow one another, and their size in multiples of a partition: without the partitions' own,
 * and for each partition.
 */
const PARTS = 10;
const OWN_ROWS = 21;
const PARTITION_ROWS = 8;

/** A stage of each size, and what they share, in one memory. @param most partitions of each */
function makeStages(
  most: readonly number[],
  withKernel: boolean,
): { readonly stages: readonly Stage[]; readonly ways: ConvolutionIo } {
  const figures = most.map(
    (count, index) => OWN_ROWS * SIZES[index]! + PARTS * GAP + PARTITION_ROWS * Math.max(1, count) * SIZES[index]!,
  );
  const memory = workMemory(
    figures.reduce((sum, one) => sum + one, WAYS_FIGURES),
    withKernel,
  );
  const ways = new ConvolutionIo(memory);
  return {
    ways,
    stages: most.map(
      (count, index) =>
        new Stage(
          index,
          count,
          ways,
          figures.slice(0, index).reduce((sum, one) => sum + one, WAYS_FIGURES),
        ),
    ),
  };
}

/**
 * The latest input: the two longest partitions that the last stage reads, while the samples after them are being
 * written.
 */
const HEARD = 4 * SIZES[SIZES.length - 1]!;
const HEARD_RIGHT = HEARD + GAP;
const OUT = 2 * HEARD_RIGHT;
const IN = OUT + 2 * STEP_FRAMES;
const WAYS_FIGURES = IN + 2 * STEP_FRAMES + GAP;

/** Input and output of all stages: the latest input samples, in a ring for each side, and the sums of a step. */
class ConvolutionIo {
  /** Where the next step is written in both rings. */
  writeIndex = 0;
  private readonly inLeft: Float32Array;
  private readonly inRight: Float32Array;
  private readonly outLeft: Float32Array;
  private readonly outRight: Float32Array;

  constructor(readonly memory: WorkMemory) {
    const stepAt = (at: number): Float32Array => memory.cells.subarray(at, at + STEP_FRAMES);
    this.inLeft = stepAt(IN);
    this.inRight = stepAt(IN + STEP_FRAMES);
    this.outLeft = stepAt(OUT);
    this.outRight = stepAt(OUT + STEP_FRAMES);
  }

  clear(): void {
    this.memory.cells.fill(0, 0, HEARD_RIGHT + HEARD);
    this.writeIndex = 0;
  }

  write(left: Float64Array, right: Float64Array): void {
    const { work } = this.memory;
    toFloat32Block(left, this.inLeft);
    toFloat32Block(right, this.inRight);
    work.enter(4 * this.writeIndex, 4 * (HEARD_RIGHT + this.writeIndex), 4 * IN, 4 * OUT);
  }

  advance(): void {
    this.writeIndex = (this.writeIndex + STEP_FRAMES) & (HEARD - 1);
  }

  /** Copies the `size` samples before `end`, a multiple of it. */
  copy(end: number, size: number, left: number, right: number): void {
    const { work } = this.memory;
    const from = (end - size) & (HEARD - 1);
    work.copy(4 * left, 4 * from, size);
    work.copy(4 * right, 4 * (HEARD_RIGHT + from), size);
  }

  /** Adds a step of each side to the sums. */
  add(left: number, right: number): void {
    const { work } = this.memory;
    work.addStep(4 * OUT, 4 * left);
    work.addStep(4 * (OUT + STEP_FRAMES), 4 * right);
  }

  addTo(left: Float64Array, right: Float64Array): void {
    const { outLeft, outRight } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      left[i] = left[i]! + outLeft[i]!;
      right[i] = right[i]! + outRight[i]!;
    }
  }
}

/**
 * One size of partition: a ring of the past spectra of its input, and the sums in progress. All positions are indices
 * of `cells`.
 */
class Stage {
  private readonly memory: WorkMemory;
  private readonly size: number;
  private readonly steps: number;
  private readonly passes: number;
  /** A transform begins at `inRe` and `inIm`, alternates between the two buffers, and always ends at `re` and `im`. */
  private readonly re: number;
  private readonly im: number;
  private readonly workRe: number;
  private readonly workIm: number;
  private readonly inRe: number;
  private readonly inIm: number;
  private readonly turns: number;
  private readonly sums: number;
  /** Sums of the next block, without its own input. */
  private readonly ahead: number;
  private readonly now: number;
  private readonly past: number;
  private readonly impulse: number;
  private count = 0;
  private newest = 0;
  private step = 0;
  /** Half of the bins, in fours. */
  private readonly half: number;
  /** Bins of each half that are done. */
  private done = 0;
  /** Whether it is the lower half that is summed for two blocks at once. */
  private lower = true;

  /** @param base its offset in a memory that stages share, in floats */
  constructor(
    private readonly index: number,
    private readonly most: number,
    private readonly ways: ConvolutionIo,
    base: number,
  ) {
    const size = SIZES[index]!;
    this.memory = ways.memory;
    this.size = size;
    this.steps = size / STEP_FRAMES;
    this.passes = passesOf(2 * size);
    this.half = size / (2 * BINS_AT_ONCE);
    let at = base;
    const take = (figures: number): number => {
      const from = at;
      at += figures + GAP;
      return from;
    };
    this.re = take(2 * size);
    this.im = take(2 * size);
    this.workRe = take(2 * size);
    this.workIm = take(2 * size);
    const back = this.passes & 1;
    this.inRe = back ? this.workRe : this.re;
    this.inIm = back ? this.workIm : this.im;
    this.turns = take(3 * size);
    this.now = take(2 * size);
    this.sums = take(4 * size);
    this.ahead = take(4 * size);
    this.past = take(4 * size * Math.max(1, most));
    this.impulse = take(4 * size * Math.max(1, most));
    writeTurns(this.memory.cells, this.turns, 2 * size);
  }

  /** Spectrum of `size` samples of both sides from an index on, zero-padded. */
  spectrum(left: ArrayLike<number>, right: ArrayLike<number>, from: number): Float32Array {
    const { cells, work } = this.memory;
    const { size, inRe, inIm, sums } = this;
    for (let i = 0; i < size; i += 1) {
      cells[inRe + i] = left[from + i] ?? 0;
      cells[inIm + i] = right[from + i] ?? 0;
      cells[inRe + size + i] = 0;
      cells[inIm + size + i] = 0;
    }
    this.transform();
    work.part(size, 4 * this.re, 4 * this.im, 4 * sums, 1);
    return cells.slice(sums, sums + 4 * size);
  }

  load(impulse: PreparedImpulse): void {
    const spectra = impulse.stages[this.index]!;
    const { size } = this;
    const made = spectra.length / (4 * size);
    this.count = Math.min(made, this.most);
    const cells = this.memory.cells.subarray(this.impulse, this.impulse + 4 * size * this.count);
    if (this.count === made) cells.set(spectra);
    else for (let p = 0; p < this.count; p += 1) interleaveSpectrum(spectra, made, p, cells, this.count, p);
    this.clear();
  }

  clear(): void {
    const { cells } = this.memory;
    cells.fill(0, this.sums, this.sums + 4 * this.size);
    cells.fill(0, this.ahead, this.ahead + 4 * this.size);
    cells.fill(0, this.now, this.now + 2 * this.size);
    cells.fill(0, this.past, this.past + 4 * this.size * Math.max(1, this.count));
    this.newest = 0;
    this.step = 0;
    this.done = 0;
    this.lower = true;
  }

  /** Processes the latest input and adds a step to the output. */
  process(): void {
    if (this.count === 0) return;
    if (this.steps === 1) this.workAtOnce();
    else this.workInSteps();
  }

  /** The shortest partitions: they include the present step, so that there is no latency. */
  private workAtOnce(): void {
    const { size, re, im, ways } = this;
    this.begin(ways.writeIndex + size);
    this.transform();
    this.storeSpectrum();
    this.multiply(1);
    this.joinSums();
    this.transform();
    ways.add(im + size, re + size);
  }

  private workInSteps(): void {
    const { step, steps, now, size } = this;
    if (step === 0) this.begin(this.ways.writeIndex);
    this.ways.add(now + step * STEP_FRAMES, now + size + step * STEP_FRAMES);
    if (this.passes < steps / 4) this.workByPasses(step);
    else this.workByHalves(step);
    if (step === steps - 1) this.finish();
    this.step = step + 1 === steps ? 0 : step + 1;
  }

  /** Few steps a block: a whole transform in the first and in the last. */
  private workByHalves(step: number): void {
    if (step === 0) {
      this.transform();
      this.storeSpectrum();
    }
    this.multiply((step + 1) / this.steps);
    if (step === this.steps - 1) {
      this.joinSums();
      this.transform();
    }
  }

  /** Many steps a block: one pass in each of the first and of the last, so that no step has much to do. */
  private workByPasses(step: number): void {
    const { passes, steps } = this;
    if (step < passes) this.pass(step, step + 1);
    if (step === passes) this.storeSpectrum();
    const first = passes + 1;
    const last = steps - passes - 1;
    if (step >= first && step < last) this.multiply((step - first + 1) / (last - first));
    if (step === last) this.joinSums();
    if (step > last) this.pass(step - last - 1, step - last);
  }

  /** Copies the two blocks of input before `end`, to be transformed. */
  private begin(end: number): void {
    const { size, inRe, inIm, ways } = this;
    ways.copy(end - size, size, inRe, inIm);
    ways.copy(end, size, inRe + size, inIm + size);
    this.done = 0;
  }

  /** The transformed window becomes the newest spectrum. */
  private storeSpectrum(): void {
    const { size, re, im } = this;
    this.newest = this.newest === 0 ? this.count - 1 : this.newest - 1;
    this.lower = !this.lower;
    this.memory.work.part(size, 4 * re, 4 * im, 4 * (this.past + FOUR * this.newest), this.count);
  }

  /** Passes of a transform from one until another. */
  private pass(from: number, until: number): void {
    this.memory.work.passes(
      from,
      until,
      this.passes,
      2 * this.size,
      4 * this.re,
      4 * this.im,
      4 * this.workRe,
      4 * this.workIm,
      4 * this.turns,
    );
  }

  private transform(): void {
    this.pass(0, this.passes);
  }

  /**
   * Multiplies all partitions with the input of their time, up to a share of the bins. Memory is slower than the
   * arithmetic: one half of the bins is summed for this block and the next from one read, the other was in the last
   * block. Each block costs the same.
   */
  private multiply(share: number): void {
    const until = Math.ceil(share * this.half);
    this.sum(this.done, until, this.lower);
    this.sum(this.half + this.done, this.half + until, !this.lower);
    this.done = until;
  }

  /** @param from @param until in fours of bins */
  private sum(from: number, until: number, twice: boolean): void {
    const { count, newest } = this;
    const { work } = this.memory;
    if (twice)
      work.multiply(
        from * BINS_AT_ONCE,
        until * BINS_AT_ONCE,
        4 * this.sums,
        4 * this.ahead,
        4 * this.past,
        4 * this.impulse,
        count,
        newest,
      );
    else
      work.complete(
        from * BINS_AT_ONCE,
        until * BINS_AT_ONCE,
        4 * this.sums,
        4 * this.ahead,
        4 * this.past,
        4 * this.impulse,
        count,
        newest,
      );
  }

  private joinSums(): void {
    const { size, inRe, inIm, sums } = this;
    this.memory.work.join(size, 4 * sums, 4 * inRe, 4 * inIm, 1 / (2 * size));
  }

  /** In time, the second half of the window is free of circular wrap (overlap-save). */
  private finish(): void {
    const { work } = this.memory;
    const { size, re, im, now } = this;
    work.copy(4 * now, 4 * (im + size), size);
    work.copy(4 * (now + size), 4 * (re + size), size);
  }
}

/**
 * Convolves a stereo signal with a stereo impulse, side by side, without latency beyond the step it works in.
 * Source: W. G. Gardner, "Efficient convolution without input-output delay" (1995); the work of the long partitions is
 * spread over the steps.
 */
export class Convolution {
  private readonly stages: readonly Stage[];
  private readonly ways: ConvolutionIo;
  /** Whether anything has been convolved since it was cleared. */
  private used = false;
  frames = 0;

  /** @param longest samples of the longest impulse; longer ones are cut */
  constructor(longest: number, withKernel = true) {
    const { stages, ways } = makeStages(
      SIZES.map((_, index) => partitionsOf(index, longest)),
      withKernel,
    );
    this.stages = stages;
    this.ways = ways;
  }

  load(impulse: PreparedImpulse): void {
    this.frames = impulse.frames;
    for (const stage of this.stages) stage.load(impulse);
    this.ways.clear();
    this.used = false;
  }

  /** Clears all sound, and restarts its partitions. */
  clear(): void {
    if (!this.used) return;
    for (let i = 0; i < this.stages.length; i += 1) this.stages[i]!.clear();
    this.ways.clear();
    this.used = false;
  }

  /** Adds a step of STEP_FRAMES samples to `outLeft` and `outRight`. */
  addTo(left: Float64Array, right: Float64Array, outLeft: Float64Array, outRight: Float64Array): void {
    const { stages, ways } = this;
    this.used = true;
    ways.write(left, right);
    for (let i = 0; i < stages.length; i += 1) stages[i]!.process();
    ways.addTo(outLeft, outRight);
    ways.advance();
  }
}

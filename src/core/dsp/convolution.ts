import { passesOf, workMemory, writeTurns, type WorkMemory } from './convolutionWork';

export const CONVOLUTION_STEP = 64;
/** Partition sizes; each stage begins two of its partitions after the start, so that a block can be worked off while the next one comes in. */
const SIZES = [64, 256, 1024, 8192] as const;
const STARTS = [0, 512, 2048, 16_384] as const;
const NEXT_STARTS = [512, 2048, 16_384, Infinity] as const;

/** Partitions of a stage that an impulse of so many samples needs. */
function partitionsOf(stage: number, frames: number): number {
  const end = Math.min(frames, NEXT_STARTS[stage]!);
  return Math.max(0, Math.ceil((end - STARTS[stage]!) / SIZES[stage]!));
}

/** An impulse as spectra of its partitions, ready for a convolution: for each stage left re, left im, right re, right im of every partition. */
export interface PreparedImpulse {
  readonly frames: number;
  readonly stages: readonly Float32Array[];
}

/** Transforms an impulse. Takes tens of milliseconds for seconds of sound: not for the audio thread. */
export function prepareImpulse(left: ArrayLike<number>, right: ArrayLike<number>, withKernel = true): PreparedImpulse {
  const made = makeStages(SIZES.map(() => 0), withKernel);
  const stages = SIZES.map((size, index) => {
    const count = partitionsOf(index, left.length);
    const spectra = new Float32Array(count * 4 * size);
    const stage = made[index]!;
    for (let p = 0; p < count; p += 1) spectra.set(stage.spectrum(left, right, STARTS[index]! + p * size), p * 4 * size);
    return spectra;
  });
  return { frames: left.length, stages };
}

/** Figures that a stage takes beside its partitions, and for each of them, in sizes of a partition. */
const OWN_ROWS = 21;
const PARTITION_ROWS = 8;

/** A stage of each size in one memory. @param most partitions of each */
function makeStages(most: readonly number[], withKernel: boolean): readonly Stage[] {
  const figures = most.map((count, index) => (OWN_ROWS + PARTITION_ROWS * Math.max(1, count)) * SIZES[index]!);
  const memory = workMemory(figures.reduce((sum, one) => sum + one, 0), withKernel);
  return most.map((count, index) => new Stage(index, count, memory, figures.slice(0, index).reduce((sum, one) => sum + one, 0)));
}

/** One size of partition: an input window, a ring of its past spectra, and the sums on their way. All places are figures in `cells`. */
class Stage {
  private readonly size: number;
  private readonly steps: number;
  private readonly passes: number;
  private readonly parts: number;
  private readonly recent: number;
  private readonly re: number;
  private readonly im: number;
  private readonly work: number;
  private readonly turns: number;
  private readonly sums: number;
  private readonly now: number;
  private readonly past: number;
  private readonly impulse: number;
  private count = 0;
  private newest = 0;
  private step = 0;
  private done = 0;

  /** @param base where it lies in a memory that others share, in figures */
  constructor(private readonly index: number, private readonly most: number, private readonly memory: WorkMemory, base: number) {
    const size = SIZES[index]!;
    this.size = size;
    this.steps = size / CONVOLUTION_STEP;
    this.passes = passesOf(2 * size);
    this.parts = this.steps < 16 ? 1 : 2;
    let at = base;
    const take = (figures: number): number => {
      const from = at;
      at += figures;
      return from;
    };
    this.recent = take(4 * size);
    this.re = take(2 * size);
    this.im = take(2 * size);
    this.work = take(4 * size);
    this.turns = take(3 * size);
    this.sums = take(4 * size);
    this.now = take(2 * size);
    this.past = take(4 * size * Math.max(1, most));
    this.impulse = take(4 * size * Math.max(1, most));
    writeTurns(memory.cells, this.turns, 2 * size);
  }

  /** Spectrum of `size` samples of both sides from a place on, with silence after them. */
  spectrum(left: ArrayLike<number>, right: ArrayLike<number>, from: number): Float32Array {
    const { cells, work } = this.memory;
    const { size, re, im, sums } = this;
    for (let i = 0; i < size; i += 1) {
      cells[re + i] = left[from + i] ?? 0;
      cells[im + i] = right[from + i] ?? 0;
      cells[re + size + i] = 0;
      cells[im + size + i] = 0;
    }
    this.transform();
    work.part(size, 4 * re, 4 * im, 4 * sums, 4 * (sums + 2 * size));
    return cells.slice(sums, sums + 4 * size);
  }

  load(impulse: PreparedImpulse): void {
    const spectra = impulse.stages[this.index]!;
    const fits = Math.min(spectra.length, 4 * this.size * this.most);
    this.memory.cells.set(spectra.subarray(0, fits), this.impulse);
    this.count = fits / (4 * this.size);
    this.clear();
  }

  clear(): void {
    const { cells } = this.memory;
    cells.fill(0, this.recent, this.recent + 4 * this.size);
    cells.fill(0, this.sums, this.sums + 6 * this.size);
    cells.fill(0, this.past, this.past + 4 * this.size * Math.max(1, this.count));
    this.newest = 0;
    this.step = 0;
    this.done = 0;
  }

  /** Takes a step of input in and adds a step of output. */
  process(left: Float64Array, right: Float64Array, outLeft: Float64Array, outRight: Float64Array): void {
    if (this.count === 0) return;
    if (this.steps === 1) {
      this.write(left, right, 0);
      this.begin();
      this.transform();
      this.keep();
      this.multiply(1);
      this.joinSums();
      this.transform();
      this.finish();
      this.add(outLeft, outRight, 0);
      return;
    }
    const { step, steps } = this;
    if (step === 0) this.begin();
    this.write(left, right, step * CONVOLUTION_STEP);
    this.add(outLeft, outRight, step * CONVOLUTION_STEP);
    if (this.passes < steps / 4) this.workByPasses(step);
    else this.workByHalves(step);
    if (step === steps - 1) this.finish();
    this.step = step + 1 === steps ? 0 : step + 1;
  }

  /** Few steps a block: a whole transform in the first and in the last. */
  private workByHalves(step: number): void {
    if (step === 0) {
      this.transform();
      this.keep();
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
    if (step < passes) this.pass(step);
    if (step === passes) this.keep();
    const first = passes + 1;
    const last = steps - passes - 1;
    if (step >= first && step < last) this.multiply((step - first + 1) / (last - first));
    if (step === last) this.joinSums();
    if (step > last) this.pass(step - last - 1);
  }

  private write(left: Float64Array, right: Float64Array, at: number): void {
    const { cells } = this.memory;
    const to = this.recent + this.size + at;
    const toRight = to + 2 * this.size;
    for (let i = 0; i < CONVOLUTION_STEP; i += 1) {
      cells[to + i] = left[i]!;
      cells[toRight + i] = right[i]!;
    }
  }

  /** Takes the last two blocks of input to be transformed, and moves the window on. */
  private begin(): void {
    const { cells } = this.memory;
    const { size, recent, re, im, sums } = this;
    cells.copyWithin(re, recent, recent + 2 * size);
    cells.copyWithin(im, recent + 2 * size, recent + 4 * size);
    cells.copyWithin(recent, recent + size, recent + 2 * size);
    cells.copyWithin(recent + 2 * size, recent + 3 * size, recent + 4 * size);
    cells.fill(0, sums, sums + 4 * size);
    this.done = 0;
  }

  /** The transformed window becomes the newest spectrum. */
  private keep(): void {
    const { size, re, im } = this;
    this.newest = this.newest === 0 ? this.count - 1 : this.newest - 1;
    const to = 4 * (this.past + 4 * size * this.newest);
    this.memory.work.part(size, 4 * re, 4 * im, to, to + 8 * size);
  }

  private pass(index: number): void {
    this.memory.work.pass(index, 2 * this.size, 4 * this.re, 4 * this.im, 4 * this.work, 4 * this.turns);
  }

  private transform(): void {
    for (let index = 0; index < this.passes; index += 1) this.pass(index);
  }

  /**
   * Multiplies partitions with the input of their time, two by two, as far as a share of them all. A step takes half of a pair's
   * bins rather than a single partition, which would move the sums through memory twice as often.
   */
  private multiply(share: number): void {
    const { parts, count } = this;
    const bins = this.size / parts;
    const until = Math.ceil(share * parts * Math.ceil(count / 2));
    for (let unit = this.done; unit < until; unit += 1) {
      const pair = Math.floor(unit / parts);
      const from = (unit - pair * parts) * bins;
      if (2 * pair + 1 < count) this.multiplyTwo(2 * pair, from, from + bins);
      else this.multiplyOne(2 * pair, from, from + bins);
    }
    if (until > this.done) this.done = until;
  }

  /** Address of the past input that belongs to a partition. */
  private inputOf(p: number): number {
    const at = this.newest + p;
    return 4 * this.past + (at >= this.count ? at - this.count : at) * 16 * this.size;
  }

  private multiplyOne(p: number, from: number, until: number): void {
    const { work } = this.memory;
    const { size, sums } = this;
    const x = this.inputOf(p);
    const h = 4 * this.impulse + p * 16 * size;
    work.multiplyAdd(size, from, until, 4 * sums, x, h);
    work.multiplyAdd(size, from, until, 4 * (sums + 2 * size), x + 8 * size, h + 8 * size);
  }

  private multiplyTwo(p: number, from: number, until: number): void {
    const { work } = this.memory;
    const { size, sums } = this;
    const x = this.inputOf(p);
    const y = this.inputOf(p + 1);
    const h = 4 * this.impulse + p * 16 * size;
    const k = h + 16 * size;
    const right = 8 * size;
    work.multiplyAddTwo(size, from, until, 4 * sums, x, h, y, k);
    work.multiplyAddTwo(size, from, until, 4 * sums + right, x + right, h + right, y + right, k + right);
  }

  private joinSums(): void {
    const { size, re, im, sums } = this;
    this.memory.work.join(size, 4 * sums, 4 * (sums + 2 * size), 4 * re, 4 * im, 1 / (2 * size));
  }

  /** Back in time, the second half of the window is free of what wraps round (overlap-save). */
  private finish(): void {
    const { cells } = this.memory;
    const { size, re, im, now } = this;
    cells.copyWithin(now, im + size, im + 2 * size);
    cells.copyWithin(now + size, re + size, re + 2 * size);
  }

  private add(left: Float64Array, right: Float64Array, at: number): void {
    const { cells } = this.memory;
    const from = this.now + at;
    const fromRight = from + this.size;
    for (let i = 0; i < CONVOLUTION_STEP; i += 1) {
      left[i] = left[i]! + cells[from + i]!;
      right[i] = right[i]! + cells[fromRight + i]!;
    }
  }
}

/**
 * Convolves a stereo signal with a stereo impulse, side by side, without latency beyond the step it works in.
 * Source: W. G. Gardner, "Efficient convolution without input-output delay" (1995); the work of the long partitions is spread over the steps.
 */
export class Convolution {
  private readonly stages: readonly Stage[];
  frames = 0;

  /** @param longest samples of the longest impulse; what is beyond is left out */
  constructor(longest: number, withKernel = true) {
    this.stages = makeStages(SIZES.map((_, index) => partitionsOf(index, longest)), withKernel);
  }

  load(impulse: PreparedImpulse): void {
    this.frames = impulse.frames;
    for (const stage of this.stages) stage.load(impulse);
  }

  clear(): void {
    for (const stage of this.stages) stage.clear();
  }

  /** Adds a step of CONVOLUTION_STEP samples to `outLeft` and `outRight`. */
  addTo(left: Float64Array, right: Float64Array, outLeft: Float64Array, outRight: Float64Array): void {
    for (let i = 0; i < this.stages.length; i += 1) this.stages[i]!.process(left, right, outLeft, outRight);
  }
}

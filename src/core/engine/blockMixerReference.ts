import { STEP_FRAMES, type StereoBlock } from '../dsp/blocks';

// What kernels/mixBlock/kernel.as.ts does, in TypeScript and to the bit: gains rise and sums grow for even and odd
// samples apart, as in its two lanes. It is what works on blocks that are elsewhere, and where WebAssembly does not.
// `figures` as told there.

export function sumBlock(figures: Float64Array, { left, right }: StereoBlock): void {
  let sum = 0;
  for (let i = 0; i < STEP_FRAMES; i += 1) sum += left[i]! + right[i]!;
  figures[4] = sum;
}

export function blendBlocks(figures: Float64Array, io: StereoBlock, wet: StereoBlock): void {
  const dry = blendSide(figures, io.left, wet.left);
  const wetLeft = figures[5]!;
  const right = blendSide(figures, io.right, wet.right);
  figures[4] = dry > right ? dry : right;
  if (wetLeft > figures[5]!) figures[5] = wetLeft;
}

/** @returns the peak of `io` as it was; that of what is added is left in figure 5 */
function blendSide(figures: Float64Array, io: Float64Array, wet: Float64Array): number {
  const dryStep = figures[1]!;
  const wetStep = figures[3]!;
  let dryPeak = 0;
  let wetPeak = 0;
  for (let lane = 0; lane < 2; lane += 1) {
    let dryGain = lane === 0 ? figures[0]! + dryStep : figures[0]! + dryStep + dryStep;
    let wetGain = lane === 0 ? figures[2]! + wetStep : figures[2]! + wetStep + wetStep;
    for (let i = lane; i < STEP_FRAMES; i += 2) {
      const dry = io[i]!;
      const added = wet[i]! * wetGain;
      io[i] = dry * dryGain + added;
      if (Math.abs(dry) > dryPeak) dryPeak = Math.abs(dry);
      if (Math.abs(added) > wetPeak) wetPeak = Math.abs(added);
      dryGain += 2 * dryStep;
      wetGain += 2 * wetStep;
    }
  }
  figures[5] = wetPeak;
  return dryPeak;
}

export function addBlock(figures: Float64Array, bus: StereoBlock, block: StereoBlock): void {
  addSide(figures, bus.left, block.left);
  addSide(figures, bus.right, block.right);
}

function addSide(figures: Float64Array, bus: Float64Array, block: Float64Array): void {
  const step = figures[1]!;
  for (let lane = 0; lane < 2; lane += 1) {
    let gain = lane === 0 ? figures[0]! + step : figures[0]! + step + step;
    for (let i = lane; i < STEP_FRAMES; i += 2) {
      bus[i] = bus[i]! + block[i]! * gain;
      gain += 2 * step;
    }
  }
}

export function levelBlock(figures: Float64Array, { left, right }: StereoBlock): void {
  levelSide(figures, left, 0);
  levelSide(figures, right, 1);
  let even = 0;
  let odd = 0;
  for (let i = 0; i < STEP_FRAMES; i += 2) {
    even += left[i]! * right[i]!;
    odd += left[i + 1]! * right[i + 1]!;
  }
  figures[8] = even + odd;
}

/** Leaves the side's peak and the sum of its squares. */
function levelSide(figures: Float64Array, samples: Float64Array, side: 0 | 1): void {
  const from = figures[2 * side]!;
  const step = figures[2 * side + 1]!;
  let peak = 0;
  let sum = 0;
  for (let lane = 0; lane < 2; lane += 1) {
    let gain = lane === 0 ? from + step : from + step + step;
    let squares = 0;
    for (let i = lane; i < STEP_FRAMES; i += 2) {
      const sample = Math.fround(samples[i]!) * gain;
      samples[i] = sample;
      if (Math.abs(sample) > peak) peak = Math.abs(sample);
      squares += sample * sample;
      gain += 2 * step;
    }
    sum += squares;
  }
  figures[4 + side] = peak;
  figures[6 + side] = sum;
}

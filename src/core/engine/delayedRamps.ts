import { STEP_FRAMES, type StereoBlock } from '../dsp/blocks';

// Mixing with gains that are constant up to a sample of the block and ramp linearly from there to its end: for the rare
// steps in which a gesture or a lane sets a gain at that sample. `figures` as in blockMixerReference.ts, whose gains ramp
// over the whole block.

const gainAt = (from: number, way: number, offset: number, i: number): number =>
  i < offset ? from : from + (way * (i + 1 - offset)) / (STEP_FRAMES - offset);

export function addWithDelayedRamp(figures: Float64Array, bus: StereoBlock, block: StereoBlock, offset: number): void {
  const from = figures[0]!;
  const way = figures[1]! * STEP_FRAMES;
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    const gain = gainAt(from, way, offset, i);
    bus.left[i] = bus.left[i]! + block.left[i]! * gain;
    bus.right[i] = bus.right[i]! + block.right[i]! * gain;
  }
}

export function levelWithDelayedRamp(figures: Float64Array, { left, right }: StereoBlock, offset: number): void {
  levelSideWithDelayedRamp(figures, left, 0, offset);
  levelSideWithDelayedRamp(figures, right, 1, offset);
  let common = 0;
  for (let i = 0; i < STEP_FRAMES; i += 1) common += left[i]! * right[i]!;
  figures[8] = common;
}

function levelSideWithDelayedRamp(figures: Float64Array, samples: Float64Array, side: 0 | 1, offset: number): void {
  const from = figures[2 * side]!;
  const way = figures[2 * side + 1]! * STEP_FRAMES;
  let peak = 0;
  let sum = 0;
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    const sample = Math.fround(samples[i]!) * gainAt(from, way, offset, i);
    samples[i] = sample;
    const size = sample < 0 ? -sample : sample;
    if (size > peak) peak = size;
    sum += sample * sample;
  }
  figures[4 + side] = peak;
  figures[6 + side] = sum;
}

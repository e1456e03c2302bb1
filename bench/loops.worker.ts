import { STEP_FRAMES, makeStereoBlock } from '../src/core/dsp/blocks';
import { Convolution, prepareImpulse } from '../src/core/dsp/convolution';
import { FeedbackNetwork } from '../src/core/dsp/feedbackNetwork';
import { NETWORK_LINES } from '../src/core/dsp/kernels/network/layout';
import { FilterCascade } from '../src/core/dsp/filterCascade';
import { Oversampler } from '../src/core/dsp/oversampler';
import { tuning } from '../src/core/dsp/stateVariable';
import { effectOf } from '../src/core/effects/catalogue';
import { implementationOf } from '../src/core/effects/implementations';
import { toEngineNumber } from '../src/core/params/resolve';
import { presetValues } from '../src/core/piece/edits/chain';

const RATE = 48_000;

/**
 * A feedback delay with a low-pass in its loop: the echo with nothing else on.
 * @returns milliseconds for `seconds` of stereo sound
 */
function echo(seconds: number, timeL: number): number {
  const { params, paramIds } = effectOf('echo');
  const values = {
    ...presetValues('echo', 'neutral'),
    timeL,
    feedback: 0.6,
    filter: 'low',
    cutoff: 3000,
    resonance: 0,
  };
  const context = { tempo: { bpm: 120, beatsPerBar: 4 }, sampleRate: RATE };
  const row = Float64Array.from(paramIds, (id) =>
    toEngineNumber(params[id]!, (values as Record<string, number | string | boolean>)[id]!, context),
  );
  const processor = implementationOf('echo').createProcessor(RATE);
  processor.reset(0, row);
  return timed(seconds, (input, output) => processor.process(input, output, row));
}

/** Four low-passes in a row on each side. */
function filters(seconds: number): number {
  const row = new FilterCascade(4);
  const { g, k } = tuning(3000, 0.7071, RATE);
  return timed(seconds, (input, output) => {
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      output.left[i] = input.left[i]!;
      output.right[i] = input.right[i]!;
    }
    for (let f = 0; f < 4; f += 1) row.aim(f, g, k, 0, 0, 1);
    row.process(output);
  });
}

/** A tanh curve at four times the rate, driven by twelve decibels. */
function shaping(seconds: number): number {
  const made = new Oversampler(4);
  return timed(seconds, (input, output) => {
    output.left.set(input.left);
    output.right.set(input.right);
    made.process(output, 0, 4, 4);
  });
}

function timed(
  seconds: number,
  run: (input: ReturnType<typeof makeStereoBlock>, output: ReturnType<typeof makeStereoBlock>) => void,
): number {
  const input = makeStereoBlock();
  const output = makeStereoBlock();
  const steps = Math.round((seconds * RATE) / STEP_FRAMES);
  const mask = noise.length - 1;
  let heard = 0;
  const began = performance.now();
  for (let step = 0; step < steps; step += 1) {
    const at = step * STEP_FRAMES;
    for (let i = 0; i < STEP_FRAMES; i += 1) input.left[i] = input.right[i] = noise[(at + i) & mask]!;
    run(input, output);
    heard += output.left[0]!;
  }
  const spent = performance.now() - began;
  if (!Number.isFinite(heard)) throw new Error('The work gave no sound.');
  return spent;
}

const noise = Float32Array.from({ length: 65_536 }, (_, i) => Math.sin(i * i) * 0.3);

/** Sixteen lines with their shelves and the whole matrix, unmodulated: the network of a reverb. */
function network(seconds: number): number {
  const made = new FeedbackNetwork(0.1 * RATE);
  for (let line = 0; line < NETWORK_LINES; line += 1) {
    made.memory.delays[line] = Math.round((23 + 3.8 * line) * 48);
    made.memory.inGains[line] = line & 1 ? 0 : 0.35;
    made.memory.inGains[NETWORK_LINES + line] = line & 1 ? 0.35 : 0;
    made.memory.outGains[line] = 0.25;
    made.memory.outGains[NETWORK_LINES + line] = line & 2 ? -0.25 : 0.25;
    [0.9, 1.6, 0.7, 1.75, 0.75, 0.95, 1.5, 0.55, 1.6, 0.6].forEach((value, index) => made.aim(line, index, value));
  }
  made.jump();
  return timed(seconds, (input, output) => {
    const { memory } = made;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      memory.input[i] = input.left[i]!;
      memory.input[STEP_FRAMES + i] = input.right[i]!;
    }
    made.step();
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      output.left[i] = memory.output[i]!;
      output.right[i] = memory.output[STEP_FRAMES + i]!;
    }
  });
}

/** Three seconds of stereo impulse without latency. */
function convolution(seconds: number): number {
  const side = (turn: number): Float32Array =>
    Float32Array.from({ length: 3 * RATE }, (_, i) => Math.sin(i * i * turn) * Math.exp((-5 * i) / (3 * RATE)));
  const made = new Convolution(3 * RATE);
  made.load(prepareImpulse(side(1), side(1.1)));
  return timed(seconds, (input, output) => {
    output.left.fill(0);
    output.right.fill(0);
    made.addTo(input.left, input.right, output.left, output.right);
  });
}

type What = 'echo' | 'fraction' | 'filters' | 'network' | 'convolution' | 'shaping';
const DOTTED_EIGHTH_MS = 45_000 / 92;

self.onmessage = ({ data: { what, seconds } }: MessageEvent<{ what: What; seconds: number }>) => {
  const work: Record<What, () => number> = {
    echo: () => echo(seconds, 375),
    fraction: () => echo(seconds, DOTTED_EIGHTH_MS),
    filters: () => filters(seconds),
    network: () => network(seconds),
    convolution: () => convolution(seconds),
    shaping: () => shaping(seconds),
  };
  self.postMessage(work[what]());
};

// Prints how far the fused builds of the kernels are from their TypeScript reference, as JSON. Browsers multiply and
// add in one go by themselves; Node has to be told, for a whole process: node --experimental-wasm-relaxed-simd --import
// tsx scripts/checks/fusedKernels.ts
import { ConvolverProcessor } from '../../src/core/effects/convolver/processor';
import { EchoProcessor } from '../../src/core/effects/echo/processor';
import { EqProcessor } from '../../src/core/effects/eq/processor';
import { PlacerProcessor } from '../../src/core/effects/placer/processor';
import { ReverbProcessor } from '../../src/core/effects/reverb/processor';
import { apart, rowOf } from '../../src/core/effects/testing';
import { prepareImpulse } from '../../src/core/dsp/convolution';
import { CONVOLUTION_FUSED_BYTES } from '../../src/core/dsp/kernels/convolution/fusedBytes';
import { ECHO_LOOP_FUSED_BYTES } from '../../src/core/dsp/kernels/echoLoop/fusedBytes';
import { FILTER_CASCADE_FUSED_BYTES } from '../../src/core/dsp/kernels/filterCascade/fusedBytes';
import { LINE_READ_FUSED_BYTES } from '../../src/core/dsp/kernels/lineRead/fusedBytes';
import { NETWORK_FUSED_BYTES } from '../../src/core/dsp/kernels/network/fusedBytes';
import { OVERSAMPLE_FUSED_BYTES } from '../../src/core/dsp/kernels/oversample/fusedBytes';
import { Oversampler } from '../../src/core/dsp/oversampler';
import { makeRandom } from '../../src/core/dsp/random';
import { DRIVE_KINDS } from '../../src/core/dsp/saturate';

const RATE = 48_000;

/** The farthest sample, and the loudest. */
interface Apart {
  away: number;
  peak: number;
}

function convolver(): Apart {
  const falling = (turn: number): Float32Array =>
    Float32Array.from({ length: RATE }, (_, i) => 0.02 * Math.sin(i * i * turn) * Math.exp((-5 * i) / RATE));
  const [fast, plain] = [new ConvolverProcessor(RATE), new ConvolverProcessor(RATE, false)];
  fast.setImpulse(prepareImpulse(falling(1), falling(1.3)));
  plain.setImpulse(prepareImpulse(falling(1), falling(1.3), false));
  return apart(fast, plain, rowOf('convolver', {}), rowOf('convolver', {}), 1.2);
}

function shaping(kind: number): Apart {
  const random = makeRandom(5);
  const [fast, plain] = [new Oversampler(4), new Oversampler(4, false)];
  const found = { away: 0, peak: 0 };
  for (let step = 0; step < 200; step += 1) {
    const run = Float64Array.from({ length: 64 }, () => random() - 0.5);
    const [a, b] = [
      { left: run.slice(), right: run.slice() },
      { left: run.slice(), right: run.slice() },
    ];
    fast.process(a, kind, 4, step & 1 ? 4 : 6);
    plain.process(b, kind, 4, step & 1 ? 4 : 6);
    for (let i = 0; i < 64; i += 1) {
      found.away = Math.max(found.away, Math.abs(a.left[i]! - b.left[i]!), Math.abs(a.right[i]! - b.right[i]!));
      found.peak = Math.max(found.peak, Math.abs(a.left[i]!), Math.abs(a.right[i]!));
    }
  }
  return found;
}

const apartBy: Record<string, Apart> = {
  convolver: convolver(),
  eq: apart(
    new EqProcessor(RATE),
    new EqProcessor(RATE, false),
    rowOf('eq', { bodyDb: 6 }),
    rowOf('eq', { bodyDb: 9, highDb: -6, lowCutOn: true }),
    1,
  ),
  echo: apart(
    new EchoProcessor(RATE),
    new EchoProcessor(RATE, false),
    rowOf('echo', { timeL: '1/8d', feedback: 0.7 }),
    rowOf('echo', { timeL: '1/8d', feedback: 0.7, wowDepth: 0.6, filter: 'low' }),
    1,
  ),
  reverb: apart(
    new ReverbProcessor(RATE),
    new ReverbProcessor(RATE, false),
    rowOf('reverb', { space: 'hall' }),
    rowOf('reverb', { space: 'hall', decay: 5000, highDecay: 0.4 }),
    2,
  ),
  placer: apart(
    new PlacerProcessor(RATE),
    new PlacerProcessor(RATE, false),
    rowOf('placer', { direction: 30 }),
    rowOf('placer', { path: 'circle', rate: 0.8 }),
    1,
  ),
};
for (const [kind, name] of DRIVE_KINDS.entries()) apartBy[`shaping, ${name}`] = shaping(kind);
const taken = [
  CONVOLUTION_FUSED_BYTES,
  ECHO_LOOP_FUSED_BYTES,
  FILTER_CASCADE_FUSED_BYTES,
  LINE_READ_FUSED_BYTES,
  NETWORK_FUSED_BYTES,
  OVERSAMPLE_FUSED_BYTES,
].filter((code) => WebAssembly.validate(code));
console.log(JSON.stringify({ taken: taken.length, apart: apartBy }));

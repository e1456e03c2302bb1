import { Engine } from '../src/core/engine/engine';
import { Rehearsal } from '../src/core/engine/rehearsal';
import { compilePlan, planSlotsIn } from '../src/core/engine/plan';
import { preparedImpulse } from '../src/core/impulses/make';
import { readFloatWav } from '../src/core/formats/floatWav';
import type { Piece } from '../src/core/piece/piece';

const BLOCK = 128;

/** Plays a piece at its own pace, block by block, and gives what share of its time each block took. The audio thread itself has no clock fine enough. */
async function play(piece: Piece, seconds: number, origin: string): Promise<Float64Array> {
  const engine = new Engine(piece.sampleRate);
  for (const hash of Object.keys(piece.sounds)) engine.addSound(hash, readFloatWav(new Uint8Array(await (await fetch(`${origin}/api/sounds/${hash}`)).arrayBuffer())).channels);
  const plan = compilePlan(piece);
  engine.setPlan(plan);
  for (const { impulse } of plan.channels.flatMap((channel) => planSlotsIn(channel.slots))) if (impulse) engine.addImpulse(impulse.key, preparedImpulse(impulse.order, new Map())!);
  // As the worklet does while nothing plays.
  const rehearsal = new Rehearsal(engine);
  rehearsal.want(plan);
  while (!rehearsal.done) rehearsal.step();
  engine.forget();
  engine.play(0);
  const left = new Float32Array(BLOCK);
  const right = new Float32Array(BLOCK);
  return paced(seconds, piece.sampleRate, () => engine.process(left, right, BLOCK));
}

/** The same pace with nothing but arithmetic, a few hundredths of the time: what of the figures is the machine's own. */
function arithmetic(seconds: number): Float64Array {
  let x = 0.1;
  return paced(seconds, 48_000, () => {
    for (let i = 0; i < 10_000; i += 1) x = 3.7 * x * (1 - x);
    if (x > 1) throw new Error('The arithmetic went astray.');
  });
}

/** @returns the share of its time that each block took */
function paced(seconds: number, sampleRate: number, work: () => void): Float64Array {
  const blockMs = (BLOCK / sampleRate) * 1000;
  const blocks = Math.round((seconds * 1000) / blockMs);
  const shares = new Float64Array(blocks);
  const pause = new Int32Array(new SharedArrayBuffer(4));
  const start = performance.now();
  for (let i = 0; i < blocks; i += 1) {
    const early = start + i * blockMs - performance.now();
    if (early > 0.2) Atomics.wait(pause, 0, 0, early);
    const began = performance.now();
    work();
    shares[i] = (performance.now() - began) / blockMs;
  }
  return shares;
}

self.onmessage = ({ data }: MessageEvent<{ piece: Piece | null; seconds: number; origin: string }>) => {
  if (!data.piece) {
    self.postMessage(arithmetic(data.seconds));
    return;
  }
  // A failure is thrown where the page hears of it.
  void play(data.piece, data.seconds, data.origin).then((shares) => self.postMessage(shares), (error: unknown) => setTimeout(() => { throw error; }));
};

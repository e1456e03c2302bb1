import type { SoundData } from '../dsp/soundData';
import { Engine } from './engine';
import type { Listening } from './listening';
import { preparedImpulse, type ImpulseNeed } from '../impulses/make';
import { planSlotsIn, type Plan } from './plan';

/** How long sound is let ring after the end. */
export type Tail = { readonly kind: 'silent' } | { readonly kind: 'seconds'; readonly seconds: number };

export interface RenderRequest {
  readonly plan: Plan;
  readonly sounds: ReadonlyMap<string, SoundData>;
  readonly fromSample: number;
  readonly toSample: number;
  readonly tail: Tail;
  readonly listening?: Listening;
  /** Told about ten times a second of sound, 0-1; false stops the work. */
  readonly onProgress?: (share: number) => boolean;
}

export interface Rendered {
  readonly left: Float32Array;
  readonly right: Float32Array;
  /** True when the tail was still sounding at the longest length allowed. */
  readonly cutShort: boolean;
}

/** Silence begins under this, -80 dBFS. */
export const SILENT = 1e-4;
/** Longer than any pause between two repeats of an echo. */
const PATIENCE_SECONDS = 8.5;
/** A tail that has not died by then, such as feedback over 100 %, is cut. */
export const LONGEST_TAIL_SECONDS = 120;
const BLOCK = 4096;

/** What takes rendered samples as they come. */
export interface BlockSink {
  /** @param n samples of both sides that are new; the arrays are used again */
  take(left: Float32Array, right: Float32Array, n: number): void;
}

export interface BlocksRendered {
  /** Samples to be kept of those that were given: what rings on under the silence is not. */
  readonly frames: number;
  readonly cutShort: boolean;
}

/**
 * Renders a stretch of a plan from a fresh engine, block by block; null when stopped by `onProgress`. Uses no more
 * memory for hours than for seconds.
 */
export function renderBlocks(request: RenderRequest, sink: BlockSink): BlocksRendered | null {
  const { plan, fromSample, toSample, tail } = request;
  const rate = plan.sampleRate;
  const engine = started(request);
  const body = toSample - fromSample;
  const most = body + Math.round((tail.kind === 'seconds' ? tail.seconds : LONGEST_TAIL_SECONDS) * rate);
  const left = new Float32Array(BLOCK);
  const right = new Float32Array(BLOCK);
  let length = 0;
  let lastLoud = 0;
  while (length < most) {
    const n = Math.min(BLOCK, most - length);
    engine.process(left, right, n);
    sink.take(left, right, n);
    const loud = lastOver(left, right, n);
    if (loud >= 0) lastLoud = length + loud;
    length += n;
    const quiet = length - Math.max(lastLoud, body);
    if (tail.kind === 'silent' && length > body && (quiet > PATIENCE_SECONDS * rate || engine.silent)) break;
    const share = tail.kind === 'seconds' ? length / most : Math.min(0.99, length / (body + 4 * rate));
    if (request.onProgress && !request.onProgress(share)) return null;
  }
  return {
    frames: tail.kind === 'seconds' ? most : Math.max(body, lastLoud + 1),
    cutShort: tail.kind === 'silent' && length >= most,
  };
}

/** Renders a stretch of a plan into memory; null when stopped by `onProgress`. */
export function render(request: RenderRequest): Rendered | null {
  const store = new Growing(request.toSample - request.fromSample + request.plan.sampleRate);
  const done = renderBlocks(request, store);
  return (
    done && {
      left: store.left.slice(0, done.frames),
      right: store.right.slice(0, done.frames),
      cutShort: done.cutShort,
    }
  );
}

function started(request: RenderRequest): Engine {
  const { plan } = request;
  const engine = new Engine(plan.sampleRate);
  for (const [hash, data] of request.sounds) engine.addSound(hash, data);
  engine.setPlan(plan);
  for (const channel of plan.channels)
    for (const { impulse } of planSlotsIn(channel.slots)) if (impulse) prepare(engine, impulse, request.sounds);
  if (request.listening) engine.listen(request.listening);
  engine.play(request.fromSample);
  skip(engine, engine.latency);
  return engine;
}

/** Index of the last sample over SILENT, or -1. */
function lastOver(left: Float32Array, right: Float32Array, n: number): number {
  for (let i = n - 1; i >= 0; i -= 1) if (Math.abs(left[i]!) > SILENT || Math.abs(right[i]!) > SILENT) return i;
  return -1;
}

/** What effects that look ahead make late is left out, so that a render is where the sound belongs. */
function skip(engine: Engine, samples: number): void {
  const left = new Float32Array(samples);
  engine.process(left, new Float32Array(samples), samples);
}

function prepare(engine: Engine, { key, order }: ImpulseNeed, sounds: RenderRequest['sounds']): void {
  const impulse = preparedImpulse(order, sounds);
  if (impulse) engine.addImpulse(key, impulse);
}

/** Two channels that grow as they are filled. */
class Growing implements BlockSink {
  left: Float32Array;
  right: Float32Array;
  private length = 0;

  constructor(capacity: number) {
    this.left = new Float32Array(capacity);
    this.right = new Float32Array(capacity);
  }

  take(left: Float32Array, right: Float32Array, n: number): void {
    if (this.length + n > this.left.length) this.grow(this.length + n);
    this.left.set(n === left.length ? left : left.subarray(0, n), this.length);
    this.right.set(n === right.length ? right : right.subarray(0, n), this.length);
    this.length += n;
  }

  private grow(needed: number): void {
    const size = Math.max(needed, Math.round(this.left.length * 1.6));
    const left = new Float32Array(size);
    const right = new Float32Array(size);
    left.set(this.left);
    right.set(this.right);
    this.left = left;
    this.right = right;
  }
}

import { Engine, type Listening } from './engine';
import type { SoundData } from './clipReader';
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

/** Renders a stretch of a plan from a fresh engine; null when stopped by `onProgress`. */
export function render(request: RenderRequest): Rendered | null {
  const { plan, fromSample, toSample, tail } = request;
  const rate = plan.sampleRate;
  const engine = new Engine(rate);
  for (const [hash, data] of request.sounds) engine.addSound(hash, data);
  engine.setPlan(plan);
  for (const channel of plan.channels) for (const { impulse } of planSlotsIn(channel.slots)) if (impulse) prepare(engine, impulse, request.sounds);
  if (request.listening) engine.listen(request.listening);
  engine.play(fromSample);
  skip(engine, engine.latency);
  const body = toSample - fromSample;
  const most = body + Math.round((tail.kind === 'seconds' ? tail.seconds : LONGEST_TAIL_SECONDS) * rate);
  const store = new Growing(body + rate);
  let lastLoud = 0;
  while (store.length < most) {
    const n = Math.min(BLOCK, most - store.length);
    const loud = store.take(engine, n);
    if (loud >= 0) lastLoud = loud;
    const quiet = store.length - Math.max(lastLoud, body);
    if (tail.kind === 'silent' && store.length > body && (quiet > PATIENCE_SECONDS * rate || engine.silent)) break;
    const share = tail.kind === 'seconds' ? store.length / most : Math.min(0.99, store.length / (body + 4 * rate));
    if (request.onProgress && !request.onProgress(share)) return null;
  }
  const cutShort = tail.kind === 'silent' && store.length >= most;
  const end = tail.kind === 'seconds' ? most : Math.max(body, lastLoud + 1);
  return { left: store.left.slice(0, end), right: store.right.slice(0, end), cutShort };
}

/** What effects that look ahead make late is left out, so that a render lies where the sound belongs. */
function skip(engine: Engine, samples: number): void {
  const left = new Float32Array(samples);
  engine.process(left, new Float32Array(samples), samples);
}

function prepare(engine: Engine, { key, order }: ImpulseNeed, sounds: RenderRequest['sounds']): void {
  const impulse = preparedImpulse(order, sounds);
  if (impulse) engine.addImpulse(key, impulse);
}

/** Two channels that grow as they are filled. */
class Growing {
  left: Float32Array;
  right: Float32Array;
  length = 0;

  constructor(capacity: number) {
    this.left = new Float32Array(capacity);
    this.right = new Float32Array(capacity);
  }

  /** Renders `n` samples; gives the index of the last one over SILENT, or -1. */
  take(engine: Engine, n: number): number {
    if (this.length + n > this.left.length) this.grow(this.length + n);
    const from = this.length;
    engine.process(this.left.subarray(from, from + n), this.right.subarray(from, from + n), n);
    this.length += n;
    for (let i = this.length - 1; i >= from; i -= 1) {
      if (Math.abs(this.left[i]!) > SILENT || Math.abs(this.right[i]!) > SILENT) return i;
    }
    return -1;
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


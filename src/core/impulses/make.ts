import { prepareImpulse, type PreparedImpulse } from '../dsp/convolution';
import { LIBRARY } from './library';
import { fromRecording } from './recording';
import { roomImpulse, type Impulse, type Room } from './room';

export type ImpulseSource =
  | { readonly kind: 'library'; readonly id: string }
  | { readonly kind: 'room'; readonly room: Room }
  | { readonly kind: 'sound'; readonly hash: string };

/** Processing of a source before it is used for convolution. */
export interface ImpulseOrder {
  readonly source: ImpulseSource;
  /** Where it begins, and how much of it is used. */
  readonly startSeconds: number;
  readonly lengthSeconds: number;
  /** Share of the length over which it fades at its end. */
  readonly fade: number;
  /** Factor of the decay: 1 leaves it unchanged. */
  readonly decayScale: number;
  readonly reverse: boolean;
  readonly sampleRate: number;
}

/** An impulse that an effect needs prepared. */
export interface ImpulseNeed {
  readonly key: string;
  readonly order: ImpulseOrder;
}

/** Cache key of an impulse. */
export const impulseKey = (order: ImpulseOrder): string => JSON.stringify(order);

export const LONGEST_IMPULSE_SECONDS = 8;
const EDGE_SECONDS = 0.001;

type Sounds = ReadonlyMap<string, readonly Float32Array[]>;

/**
 * The latest source: its processing changes with every drag of a handle, and a large source takes a second to compute.
 */
let lastPlace: { readonly key: string; readonly impulse: Impulse } | null = null;

/** The unprocessed source; read-only. Null when its sound is missing. */
export function sourceImpulse(source: ImpulseSource, sampleRate: number, sounds: Sounds): Impulse | null {
  if (source.kind !== 'sound') {
    const key = JSON.stringify([source, sampleRate]);
    if (lastPlace?.key !== key) {
      const impulse =
        source.kind === 'room'
          ? roomImpulse(source.room, sampleRate)
          : (LIBRARY.find(({ id }) => id === source.id) ?? LIBRARY[0]!).make(sampleRate);
      lastPlace = { key, impulse };
    }
    return lastPlace.impulse;
  }
  const channels = sounds.get(source.hash);
  return channels?.[0] ? fromRecording({ left: channels[0], right: channels[1] ?? channels[0] }, sampleRate) : null;
}

/** The used range of an impulse in samples of the source, and the fade of each of them. */
export interface Shaping {
  readonly from: number;
  readonly frames: number;
  /** Samples from the first to the beginning of the fade. */
  readonly fadeFrom: number;
  /** @param i samples from the first that is used */
  gainAt(i: number): number;
}

export function shapingOf(order: ImpulseOrder, found: Impulse): Shaping {
  const rate = order.sampleRate;
  const from = Math.min(found.left.length - 1, Math.round(order.startSeconds * rate));
  const frames = Math.max(
    1,
    Math.min(found.left.length - from, Math.round(Math.min(order.lengthSeconds, LONGEST_IMPULSE_SECONDS) * rate)),
  );
  const bend = decayBend(found, order.decayScale, rate);
  const faded = order.fade * frames;
  const edge = Math.min(frames / 4, EDGE_SECONDS * rate);
  const gainAt = (i: number): number => {
    const left = frames - i;
    const fade = left < faded ? 0.5 - 0.5 * Math.cos((Math.PI * left) / faded) : 1;
    const seam = from > 0 && i < edge ? i / edge : left < edge ? left / edge : 1;
    return fade * seam * Math.exp(bend * (i / rate));
  };
  return { from, frames, fadeFrom: frames - faded, gainAt };
}

/** Trimmed, reversed, its decay scaled, faded, and made as loud as any other: noise through it keeps its level. */
export function makeImpulse(order: ImpulseOrder, sounds: Sounds): Impulse | null {
  const found = sourceImpulse(order.source, order.sampleRate, sounds);
  if (!found) return null;
  const { from, frames, gainAt } = shapingOf(order, found);
  const side = (samples: Float32Array): Float32Array =>
    Float32Array.from({ length: frames }, (_, i) => samples[from + i]! * gainAt(i));
  const [left, right] = [side(found.left), side(found.right)];
  if (order.reverse) {
    left.reverse();
    right.reverse();
  }
  const scale = 1 / Math.sqrt(Math.max(1e-20, 0.5 * (energy(left) + energy(right))));
  return { left: left.map((x) => x * scale), right: right.map((x) => x * scale) };
}

const energy = (samples: Float32Array): number => samples.reduce((sum, x) => sum + x * x, 0);

/** Slope in nepers per second that makes the decay `scale` times as long: from the energy's centre of gravity. */
function decayBend({ left }: Impulse, scale: number, rate: number): number {
  if (scale === 1) return 0;
  let total = 0;
  let moment = 0;
  for (let i = 0; i < left.length; i += 1) {
    const power = left[i]! * left[i]!;
    total += power;
    moment += power * i;
  }
  const centre = Math.max(0.002, moment / Math.max(total, 1e-20) / rate);
  // An exponential decay has its centre where its amplitude has fallen by half a neper.
  return (0.5 / centre) * (1 - 1 / scale);
}

/** Computes and transforms an impulse for a convolver; null when its sound is missing. */
export function preparedImpulse(order: ImpulseOrder, sounds: Sounds): PreparedImpulse | null {
  const made = makeImpulse(order, sounds);
  return made ? prepareImpulse(made.left, made.right) : null;
}

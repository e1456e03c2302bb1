import * as z from 'zod';
import { soundFiguresSchema } from '../core/analysis/soundFigures';
import type { EffectPicture } from '../core/effects/pictures';
import type { ImpulseOrder } from '../core/impulses/make';
import type { Plan } from '../core/engine/plan';
import { followerSchema } from '../core/automation/modulator';
import { effectSchema, pieceSchema, stepSchema } from '../core/piece/piece';
import { floats, soundList } from './soundProtocol';

const port = z.custom<MessagePort>((value) => value instanceof MessagePort);
const listening = z.object({
  channel: z.string().nullable(),
  slot: z.string().nullable(),
  hear: z.enum(['mix', 'wet', 'dry', 'difference']),
  matched: z.boolean(),
});
const plan = z.custom<Plan>(
  (value) =>
    z.object({ sampleRate: z.number(), channels: z.array(z.object({ id: z.string() })).min(1) }).safeParse(value)
      .success,
);
const valueContext = z.object({
  tempo: z.object({ bpm: z.number(), beatsPerBar: z.number() }),
  sampleRate: z.number(),
});

const prepared = z.object({ frames: z.number(), stages: z.array(floats) });
const order = z.custom<ImpulseOrder>(
  (value) =>
    z
      .object({ source: z.object({ kind: z.string() }), sampleRate: z.number(), lengthSeconds: z.number() })
      .safeParse(value).success,
);

/** An impulse asked of the impulse worker, and what it made; null when its sound was not there. */
export const toImpulses = z.object({
  key: z.string(),
  order,
  sound: z.object({ hash: z.string(), channels: z.array(floats).min(1).max(2) }).nullable(),
});
export type ToImpulses = z.infer<typeof toImpulses>;
export const fromImpulses = z.object({ key: z.string(), impulse: prepared.nullable() });
export type FromImpulses = z.infer<typeof fromImpulses>;

/** A setting sent to the comparer, and its measurements. */
export const toComparer = z.object({
  key: z.string(),
  plan,
  sounds: soundList,
  fromSample: z.number(),
  toSample: z.number(),
});
export type ToComparer = z.infer<typeof toComparer>;
export const fromComparer = z.object({ key: z.string(), figures: soundFiguresSchema.nullable() });

/** A request for a follower's values through a piece. */
export const toFollow = z.object({ piece: pieceSchema, modulator: followerSchema, sounds: soundList });
export type ToFollow = z.infer<typeof toFollow>;
export const fromFollow = z.object({
  type: z.literal('done'),
  beats: z.instanceof(Float64Array),
  values: z.instanceof(Float64Array),
});

/** A request for the load of effects, and the load of one. */
export const toLoads = z.object({ slots: z.array(effectSchema), context: valueContext, sounds: soundList });
export type ToLoads = z.infer<typeof toLoads>;
export const fromLoads = z.object({ slot: z.string(), share: z.number() });

/** Messages from the page to the audio thread. */
export const toEngine = z.discriminatedUnion('type', [
  z.object({ type: z.literal('sounds'), sounds: soundList }),
  z.object({ type: z.literal('plan'), plan }),
  z.object({ type: z.literal('impulse'), key: z.string(), impulse: prepared }),
  /**
   * Both ends of a message channel by which the audio thread, which cannot create one, posts itself work between
   * blocks.
   */
  z.object({ type: z.literal('cue'), ports: z.tuple([port, port]) }),
  z.object({ type: z.literal('play'), from: z.number(), countInBars: z.number() }),
  z.object({ type: z.literal('click'), on: z.boolean() }),
  z.object({ type: z.literal('stop') }),
  z.object({ type: z.literal('watch'), channel: z.string().nullable() }),
  z.object({ type: z.literal('locate'), to: z.number() }),
  z.object({ type: z.literal('listen'), listening }),
  z.object({
    type: z.literal('gesture'),
    gesture: z.object({
      kind: z.enum(['hold', 'release', 'cancel']),
      channel: z.string(),
      slot: z.string().nullable(),
      value: z.number(),
      to: z.number(),
      atSample: z.number(),
      tag: z.number().optional(),
    }),
    /** The number by which the ring of gestures refers to this target from now on. */
    target: z.number().int().nonnegative(),
  }),
]);
export type ToEngine = z.infer<typeof toEngine>;

/**
 * Messages from the audio thread: an unreadable message, that it was idle for some seconds, or gestures that have taken
 * effect.
 */
export const fromEngine = z.discriminatedUnion('type', [
  z.object({ type: z.literal('refused'), message: z.string() }),
  z.object({ type: z.literal('idle') }),
  z.object({
    type: z.literal('applied'),
    gestures: z.array(z.object({ tag: z.number(), sample: z.number() })),
  }),
]);
export type FromEngine = z.infer<typeof fromEngine>;

/** Messages to the print worker, and its answers. */
export const toPrinter = z.object({
  plan,
  sounds: soundList,
  fromSample: z.number(),
  toSample: z.number(),
  tail: z.union([
    z.object({ kind: z.literal('silent') }),
    z.object({ kind: z.literal('seconds'), seconds: z.number() }),
  ]),
  listening: listening.optional(),
});
export type ToPrinter = z.infer<typeof toPrinter>;

export const fromPrinter = z.discriminatedUnion('type', [
  z.object({ type: z.literal('progress'), share: z.number() }),
  z.object({ type: z.literal('done'), left: floats, right: floats, cutShort: z.boolean() }),
  z.object({ type: z.literal('failed'), message: z.string() }),
]);

/** A part of a sound and its treatment steps, and the result. */
export const toTreater = z.object({
  channels: z.array(floats).min(1).max(2),
  steps: z.array(stepSchema),
  sampleRate: z.number(),
  bpm: z.number(),
  sounds: soundList,
});
export type ToTreater = z.infer<typeof toTreater>;
export const fromTreater = z.discriminatedUnion('type', [
  z.object({ type: z.literal('progress'), share: z.number() }),
  z.object({ type: z.literal('done'), channels: z.array(floats).min(1).max(2), bodyFrames: z.number() }),
  z.object({ type: z.literal('failed'), message: z.string() }),
]);

/** An effect and its values for the picture worker, and the picture. */
export const toPainter = z.object({
  effect: z.string(),
  values: z.record(z.string(), z.union([z.number(), z.string(), z.boolean()])),
  /** Samples of the own sound, for an effect that works with one. */
  own: z.array(floats).optional(),
  context: valueContext,
});

export const fromPainter = z.object({
  picture: z.custom<EffectPicture>((value) => z.object({ kind: z.string() }).safeParse(value).success),
});

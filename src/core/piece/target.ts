import * as z from 'zod';
import { idSchema as id } from './fields';

/** What a lane, a link, a control, a field or a snapshot acts on. */
export const targetSchema = z.discriminatedUnion('kind', [
  /** A channel's own parameter: one of channelParams; the main output has its level alone. */
  z.strictObject({ kind: z.literal('channel'), channel: id, param: z.string() }),
  /** A parameter of an effect on a channel, at any depth, or its switch. */
  z.strictObject({ kind: z.literal('effect'), channel: id, effect: id, param: z.string() }),
  /**
   * A parameter of the first effect of a kind, or its switch, on a channel that has no such effect yet: moves act once
   * one is added.
   */
  z.strictObject({ kind: z.literal('awaited'), channel: id, effectKind: z.string(), param: z.string() }),
  /** The level of a send. */
  z.strictObject({ kind: z.literal('send'), channel: id, to: id }),
  /** The level of a macro. */
  z.strictObject({ kind: z.literal('macro'), macro: id }),
  z.strictObject({ kind: z.literal('tempo') }),
]);

export type Target = z.infer<typeof targetSchema>;
export type EffectTarget = Extract<Target, { kind: 'effect' }>;
export type SendTarget = Extract<Target, { kind: 'send' }>;

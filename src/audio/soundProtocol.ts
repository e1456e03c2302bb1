import * as z from 'zod';

// Messages about sounds are separate: their senders need neither effects nor plans, and are loaded first.

export const floats = z.custom<Float32Array>((value) => value instanceof Float32Array);
export const soundList = z.array(z.object({ hash: z.string(), channels: z.array(floats).min(1).max(2) }));

/** A request to the sound worker: a sound's address and the wanted rate. */
export const toLoader = z.object({
  hash: z.string(),
  url: z.string(),
  sampleRate: z.number(),
  framesPerPeak: z.number(),
});
export type ToLoader = z.infer<typeof toLoader>;

export const fromLoader = z.discriminatedUnion('type', [
  z.object({ type: z.literal('loaded'), hash: z.string(), channels: z.array(floats).min(1).max(2), peaks: floats }),
  z.object({ type: z.literal('failed'), hash: z.string(), message: z.string() }),
]);

/** A request for the onsets of sounds at this rate, and the onsets of one of them. */
export const toHits = z.object({ sounds: soundList, sampleRate: z.number() });
export type ToHits = z.infer<typeof toHits>;
export const fromHits = z.object({
  hash: z.string(),
  onsets: z.array(z.object({ seconds: z.number(), strength: z.number(), centroidHz: z.number() })),
});

/**
 * Requests to the place worker: the response of the simulated room, or the impulse response from a sweep; and the
 * channels it returns.
 */
export const toPlaces = z.discriminatedUnion('type', [
  z.object({ type: z.literal('standIn'), sweep: z.boolean(), seconds: z.number(), sampleRate: z.number() }),
  z.object({ type: z.literal('sweep'), recorded: z.array(floats).min(1).max(2), sampleRate: z.number() }),
]);
export type ToPlaces = z.infer<typeof toPlaces>;
export const fromPlaces = z.object({ channels: z.array(floats).min(1).max(2) });
export type FromPlaces = z.infer<typeof fromPlaces>;

/** Messages from the page to the analyser. */
export const toAnalyserSchema = z.discriminatedUnion('type', [
  z.object({
    type: z.literal('begin'),
    memory: z.custom<SharedArrayBuffer>((value) => value instanceof SharedArrayBuffer),
    sampleRate: z.number(),
  }),
  z.object({ type: z.literal('clear') }),
]);
export type ToAnalyser = z.infer<typeof toAnalyserSchema>;

import * as z from 'zod';

// What is said about sounds alone stands by itself: those who say it need to know neither effects nor plans, and are
// there at once.

export const floats = z.custom<Float32Array>((value) => value instanceof Float32Array);
export const soundList = z.array(z.object({ hash: z.string(), channels: z.array(floats).min(1).max(2) }));

/** A sound asked of the sound worker: where it is and the rate it is wanted at. */
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

/** Sounds whose hits are wanted, at this rate, and those of one of them. */
export const toHits = z.object({ sounds: soundList, sampleRate: z.number() });
export type ToHits = z.infer<typeof toHits>;
export const fromHits = z.object({
  hash: z.string(),
  onsets: z.array(z.object({ seconds: z.number(), strength: z.number(), centroidHz: z.number() })),
});

/**
 * Asked of the place worker: what the stand-in room hears, or the place a sweep went through; and the channels it
 * gives.
 */
export const toPlaces = z.discriminatedUnion('type', [
  z.object({ type: z.literal('standIn'), sweep: z.boolean(), seconds: z.number(), sampleRate: z.number() }),
  z.object({ type: z.literal('sweep'), recorded: z.array(floats).min(1).max(2), sampleRate: z.number() }),
]);
export type ToPlaces = z.infer<typeof toPlaces>;
export const fromPlaces = z.object({ channels: z.array(floats).min(1).max(2) });
export type FromPlaces = z.infer<typeof fromPlaces>;

/** What the page tells the analyser. */
export const toAnalyserSchema = z.discriminatedUnion('type', [
  z.object({
    type: z.literal('begin'),
    memory: z.custom<SharedArrayBuffer>((value) => value instanceof SharedArrayBuffer),
    sampleRate: z.number(),
  }),
  z.object({ type: z.literal('clear') }),
]);
export type ToAnalyser = z.infer<typeof toAnalyserSchema>;

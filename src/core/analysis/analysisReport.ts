import * as z from 'zod';

/** Bands in which the loss in mono is told, by their upper edges in Hz; the last has none. */
export const MONO_BANDS = [
  { name: 'low', to: 120 },
  { name: 'low mid', to: 500 },
  { name: 'mid', to: 2000 },
  { name: 'high mid', to: 6000 },
  { name: 'air', to: Infinity },
] as const;

/** A level that may be that of silence, -Infinity. */
const level = z.custom<number>((value) => typeof value === 'number' && !Number.isNaN(value));
const curve = z.array(z.number());

/** What is told of a channel: before its effects and after them. */
export const analysisReportSchema = z.object({
  /** LUFS of what leaves, -Infinity for silence: the last 400 ms, the last 3 s, and all since the beginning, gated. */
  momentary: level,
  shortTerm: level,
  integrated: level,
  /** The highest since the beginning, between samples too, in dBTP. */
  truePeakDb: level,
  /** Mean spectra of what enters and leaves, in dB, at `SPECTRUM_HZ`. */
  before: curve,
  after: curve,
  /** What a single speaker loses of what leaves, in dB, by MONO_BANDS; 0 in a band without sound. */
  monoLossDb: curve,
  correlation: z.number(),
  /**
   * How much more the low mids (150-500 Hz) grew than the whole did, in dB; null while there is too little sound to
   * say.
   */
  lowMidDb: z.number().nullable(),
  /** Newest pairs of what leaves, left then right, for a goniometer. */
  pairs: curve,
  /** Highest levels of what enters and leaves in each of the last stretches of 50 ms, oldest first. */
  waveBefore: curve,
  waveAfter: curve,
});
export type AnalysisReport = z.infer<typeof analysisReportSchema>;

import * as z from 'zod';

/** Bands in which the loss in mono is reported, by their upper edges in Hz; the last has none. */
export const MONO_BANDS = [
  { name: 'low', to: 120 },
  { name: 'low mid', to: 500 },
  { name: 'mid', to: 2000 },
  { name: 'high mid', to: 6000 },
  { name: 'air', to: Infinity },
] as const;

/** A level in dB; -Infinity for silence. */
const level = z.custom<number>((value) => typeof value === 'number' && !Number.isNaN(value));
const curve = z.array(z.number());

/** Analysis of a channel, before and after its effects. */
export const analysisReportSchema = z.object({
  /** LUFS of the output, -Infinity for silence: the last 400 ms, the last 3 s, and all since the beginning, gated. */
  momentary: level,
  shortTerm: level,
  integrated: level,
  /** Highest true peak since the beginning, in dBTP. */
  truePeakDb: level,
  /** Mean spectra of input and output, in dB, at `SPECTRUM_HZ`. */
  before: curve,
  after: curve,
  /** Loss of the output in mono, in dB, by MONO_BANDS; 0 in a band without sound. */
  monoLossDb: curve,
  correlation: z.number(),
  /** How much more the low mids (150-500 Hz) grew than the whole did, in dB; null while there is too little sound. */
  lowMidDb: z.number().nullable(),
  /** Newest samples of the output, left and right interleaved, for a goniometer. */
  pairs: curve,
  /** Peaks of input and output in each of the last intervals of 50 ms, oldest first. */
  waveBefore: curve,
  waveAfter: curve,
});
export type AnalysisReport = z.infer<typeof analysisReportSchema>;

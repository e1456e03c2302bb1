/** A piece's pulse: quarter-note beats per minute and how many quarter-note beats make a bar (6/8 has 3). */
export interface Tempo {
  /** Quarter notes per minute, 20-300. */
  readonly bpm: number;
  /** Length of a bar in quarter notes. */
  readonly beatsPerBar: number;
}

export const MIN_BPM = 20;
export const MAX_BPM = 300;

export const secondsPerBeat = (tempo: Tempo): number => 60 / tempo.bpm;

export const beatsToSeconds = (beats: number, tempo: Tempo): number => (beats * 60) / tempo.bpm;

export const secondsToBeats = (seconds: number, tempo: Tempo): number => (seconds * tempo.bpm) / 60;

/** The nearest whole sample; what was placed from a sample comes back to the same sample. */
export const beatsToSamples = (beats: number, tempo: Tempo, sampleRate: number): number =>
  Math.round((beats * 60 * sampleRate) / tempo.bpm);

export const samplesToBeats = (samples: number, tempo: Tempo, sampleRate: number): number =>
  (samples * tempo.bpm) / (60 * sampleRate);

/** Tap times in seconds, oldest first, to bpm: the median of the last gaps, so one late tap does no harm. */
export function bpmFromTaps(tapSeconds: readonly number[]): number | null {
  const recent = tapSeconds.slice(-9);
  const gaps = recent.slice(1).map((time, i) => time - (recent[i] ?? time)).filter((gap) => gap > 0);
  if (gaps.length === 0) return null;
  gaps.sort((a, b) => a - b);
  const middle = gaps.length >> 1;
  const upper = gaps[middle] ?? 1;
  const median = gaps.length % 2 === 1 ? upper : ((gaps[middle - 1] ?? upper) + upper) / 2;
  return Math.min(MAX_BPM, Math.max(MIN_BPM, 60 / median));
}

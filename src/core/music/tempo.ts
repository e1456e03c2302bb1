/** A tempo map: segments of constant tempo, from beat 0 on; the last has no end. Ramps are many short ones. */
export interface TempoMap {
  /** Where each begins, in beats and in seconds. */
  readonly beats: Float64Array;
  readonly seconds: Float64Array;
  /** Quarter notes per minute. */
  readonly bpm: Float64Array;
}

/** How long a bar is, and by which note it is counted. */
export interface Metre {
  /** Length of a bar in quarter notes: 3 for 6/8. */
  readonly beatsPerBar: number;
  /** The note that is counted: 8 in 6/8. */
  readonly unit: number;
}

/** A metre from a beat on, which begins a bar. */
export interface MetreChange extends Metre {
  readonly beat: number;
}

/** A piece's tempo and metre: quarter-note beats per minute and how many quarter-note beats make a bar (6/8 has 3). */
export interface Tempo {
  /** Quarter notes per minute, 20-300; what note values are shown by, and the tempo itself where it does not change. */
  readonly bpm: number;
  /** Length of a bar in quarter notes. */
  readonly beatsPerBar: number;
  /** The note that is counted, 4 when left out: 8 in 6/8. */
  readonly unit?: number | undefined;
  /** Other metres from beats on, rising; positions counted from the beginning of the piece ignore them. */
  readonly metres?: readonly MetreChange[];
  /**
   * Left out where it does not change. Only positions use it, never lengths: the duration of a length in beats depends
   * on its position.
   */
  readonly map?: TempoMap;
}

export const MIN_BPM = 20;
export const MAX_BPM = 300;

export const secondsPerBeat = (tempo: Tempo): number => 60 / tempo.bpm;

export const beatsToSeconds = (beats: number, tempo: Tempo): number => (beats * 60) / tempo.bpm;

export const secondsToBeats = (seconds: number, tempo: Tempo): number => (seconds * tempo.bpm) / 60;

/** Index of the last figure at or under `value`, 0 when there is none. */
export function lastAtOrUnder(figures: Float64Array, value: number): number {
  let low = 0;
  let high = figures.length;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (figures[middle]! <= value) low = middle;
    else high = middle;
  }
  return low;
}

/** Seconds from the beginning of the piece to a position in beats. */
export function placeSeconds(beat: number, tempo: Tempo): number {
  const { map } = tempo;
  if (!map) return (beat * 60) / tempo.bpm;
  const at = lastAtOrUnder(map.beats, beat);
  return map.seconds[at]! + ((beat - map.beats[at]!) * 60) / map.bpm[at]!;
}

/** The position in beats at a time in seconds from the beginning of the piece. */
export function placeBeat(seconds: number, tempo: Tempo): number {
  const { map } = tempo;
  if (!map) return (seconds * tempo.bpm) / 60;
  const at = lastAtOrUnder(map.seconds, seconds);
  return map.beats[at]! + ((seconds - map.seconds[at]!) * map.bpm[at]!) / 60;
}

/** Quarter notes per minute at a position in beats. */
export const bpmAt = (beat: number, tempo: Tempo): number =>
  tempo.map ? tempo.map.bpm[lastAtOrUnder(tempo.map.beats, beat)]! : tempo.bpm;

/** Number of beats in a number of seconds from a position in beats on. */
export const beatsFrom = (beat: number, seconds: number, tempo: Tempo): number =>
  tempo.map ? placeBeat(placeSeconds(beat, tempo) + seconds, tempo) - beat : secondsToBeats(seconds, tempo);

/** The nearest sample of a position; a position converted from a sample gives the same sample. */
export const beatsToSamples = (beats: number, tempo: Tempo, sampleRate: number): number =>
  Math.round(tempo.map ? placeSeconds(beats, tempo) * sampleRate : (beats * 60 * sampleRate) / tempo.bpm);

/** The position in beats of a sample of the piece. */
export const samplesToBeats = (samples: number, tempo: Tempo, sampleRate: number): number =>
  tempo.map ? placeBeat(samples / sampleRate, tempo) : (samples * tempo.bpm) / (60 * sampleRate);

/** Tap times in seconds, oldest first, to bpm: the median of the last gaps, so that one late tap has no influence. */
export function bpmFromTaps(tapSeconds: readonly number[]): number | null {
  const recent = tapSeconds.slice(-9);
  const gaps = recent
    .slice(1)
    .map((time, i) => time - (recent[i] ?? time))
    .filter((gap) => gap > 0);
  if (gaps.length === 0) return null;
  gaps.sort((a, b) => a - b);
  const middle = gaps.length >> 1;
  const upper = gaps[middle] ?? 1;
  const median = gaps.length % 2 === 1 ? upper : ((gaps[middle - 1] ?? upper) + upper) / 2;
  return Math.min(MAX_BPM, Math.max(MIN_BPM, 60 / median));
}

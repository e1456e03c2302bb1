import type { Tempo } from './tempo';

/** Bar and beat as a player counts them, both from 1. */
export interface BarBeat {
  readonly bar: number;
  readonly beat: number;
}

/** The playhead stands on whole samples, so it may stand half of one before the beat it was set to. */
const SLACK_BEATS = 1e-4;

export function toBarBeat(beats: number, tempo: Tempo): BarBeat {
  const bar = Math.floor((beats + SLACK_BEATS) / tempo.beatsPerBar);
  const beat = Math.floor(beats + SLACK_BEATS - bar * tempo.beatsPerBar);
  return { bar: bar + 1, beat: beat + 1 };
}

/** The first beat of a bar counted from 1. */
export const barStart = (bar: number, tempo: Tempo): number => (bar - 1) * tempo.beatsPerBar;

/** The nearest line of a grid of `step` beats; a step of 0 leaves the place free. */
export const snapBeats = (beats: number, step: number): number => (step > 0 ? Math.round(beats / step) * step : beats);

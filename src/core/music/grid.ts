import { metreAt, metreSpans, SLACK_BEATS } from './metre';
import type { Tempo } from './tempo';

/** Bar and beat as a player counts them, both from 1; a beat is the note that the metre counts by. */
export interface BarBeat {
  readonly bar: number;
  readonly beat: number;
}

export function toBarBeat(beats: number, tempo: Tempo): BarBeat {
  const span = metreAt(beats, tempo);
  const within = beats + SLACK_BEATS - span.beat;
  const bar = Math.floor(within / span.beatsPerBar);
  return {
    bar: span.firstBar + bar,
    beat: Math.floor(((within - bar * span.beatsPerBar) * span.unit) / 4) + 1,
  };
}

/** The first beat of a bar counted from 1; bars before the first go on to the left. */
export function barStart(bar: number, tempo: Tempo): number {
  const spans = metreSpans(tempo);
  let at = spans.length - 1;
  while (at > 0 && spans[at]!.firstBar > bar) at -= 1;
  const span = spans[at]!;
  return span.beat + (bar - span.firstBar) * span.beatsPerBar;
}

/** How many bars there are up to a beat, a last one that is cut short among them. */
export const barsUpTo = (beat: number, tempo: Tempo): number =>
  beat <= 0 ? 0 : toBarBeat(beat - 2 * SLACK_BEATS, tempo).bar;

/** The nearest line of a grid of `step` beats; a step of 0 leaves the place free. */
export const snapBeats = (beats: number, step: number): number => (step > 0 ? Math.round(beats / step) * step : beats);

/**
 * The first line of a grid at or after a beat, counted from where the metre began; where the next metre begins there is
 * one too.
 * @param grid beats from line to line; 0 for the beat itself
 */
export function gridLine(beat: number, grid: number, tempo: Tempo): number {
  if (grid <= 0) return beat;
  const span = metreAt(beat, tempo);
  return Math.min(span.end, span.beat + Math.ceil((beat - span.beat) / grid - 1e-6) * grid);
}

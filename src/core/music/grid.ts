import { metreAt, metreSpans, SLACK_BEATS, spanAt, type MetreSpan } from './metre';
import type { Tempo } from './tempo';

/** Bar and beat as a player counts them, both from 1; a beat is the note that the metre counts by. */
export interface BarBeat {
  readonly bar: number;
  readonly beat: number;
}

export function toBarBeat(beats: number, tempo: Tempo): BarBeat {
  const { bar, beat } = exactBarBeat(beats, tempo);
  const { unit } = metreAt(beats, tempo);
  return { bar, beat: Math.floor(beat + (SLACK_BEATS * unit) / 4) };
}

/** Bar and beat with the fraction of the beat: 2.5 is half way through the second. */
export function exactBarBeat(beats: number, tempo: Tempo): BarBeat {
  const span = metreAt(beats, tempo);
  const within = beats - span.beat;
  const bar = Math.floor((within + SLACK_BEATS) / span.beatsPerBar);
  return { bar: span.firstBar + bar, beat: ((within - bar * span.beatsPerBar) * span.unit) / 4 + 1 };
}

/** Bars counted from 1 up to a beat, with the fraction of the bar: 3.5 is half way through bar 3. */
export const barNumber = (beat: number, tempo: Tempo): number => barOf(beat, metreAt(beat, tempo));

const barOf = (beat: number, span: MetreSpan): number => span.firstBar + (beat - span.beat) / span.beatsPerBar;

/** A range in bars, to a hundredth: "bars 3 to 5". */
export function barsText(fromBeat: number, toBeat: number, tempo: Tempo): string {
  const bar = (beat: number): string => String(Math.round(barNumber(beat, tempo) * 100) / 100);
  return `bars ${bar(fromBeat)} to ${bar(toBeat)}`;
}

/** The beat of a bar counted from 1, 3.5 being half way through bar 3; bars before the first go on to the left. */
export const barStart = (bar: number, tempo: Tempo): number => barStartIn(bar, metreSpans(tempo));

/** The bar line after a beat, or the one before it; never before the start. */
export function nextBarLine(beat: number, way: 1 | -1, tempo: Tempo): number {
  const { bar } = toBarBeat(beat, tempo);
  const isOnLine = Math.abs(barStart(bar, tempo) - beat) < 1e-3;
  return Math.max(0, barStart(way > 0 ? bar + 1 : isOnLine ? bar - 1 : bar, tempo));
}

function barStartIn(bar: number, spans: readonly MetreSpan[]): number {
  let at = spans.length - 1;
  while (at > 0 && spans[at]!.firstBar > bar) at -= 1;
  const span = spans[at]!;
  return Math.min(span.end, span.beat + (bar - span.firstBar) * span.beatsPerBar);
}

/** The beat so many bars after another, or before it for a count under nought, by the metres between. */
export const barsLater = (beat: number, bars: number, tempo: Tempo): number =>
  barStart(barNumber(beat, tempo) + bars, tempo);

/** Bars from a beat to another, with parts of a bar. */
export const barsBetween = (fromBeat: number, toBeat: number, tempo: Tempo): number =>
  barNumber(toBeat, tempo) - barNumber(fromBeat, tempo);

/**
 * A beat as it would be if every bar were as long as the piece's own: for modulators with rates in bars. It is the beat
 * itself where there is one metre.
 */
export const placeByBars = (beat: number, spans: readonly MetreSpan[], beatsPerBar: number): number =>
  spans.length === 1 ? beat : (barOf(beat, spanAt(beat, spans)) - 1) * beatsPerBar;

/** The beat at which a place by bars is: `placeByBars` the other way round. */
export const beatOfBarPlace = (place: number, spans: readonly MetreSpan[], beatsPerBar: number): number =>
  spans.length === 1 ? place : barStartIn(place / beatsPerBar + 1, spans);

/** How many bars there are up to a beat, a last one that is cut short among them. */
export const barsUpTo = (beat: number, tempo: Tempo): number =>
  beat <= 0 ? 0 : toBarBeat(beat - 2 * SLACK_BEATS, tempo).bar;

/** The nearest line of a grid of `step` beats; a step of 0 leaves the position unchanged. */
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

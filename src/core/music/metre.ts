import type { Metre, MetreChange, Tempo } from './tempo';

/** A range with one metre. */
export interface MetreSpan extends MetreChange {
  /** Number of its first bar, from 1. */
  readonly firstBar: number;
  /** Where the next metre begins; Infinity for the last. */
  readonly end: number;
}

/** A position may be slightly before the beat it was set to: the playhead is on whole samples. */
export const SLACK_BEATS = 1e-4;
const QUARTERS = 4;

/** Metres that can be chosen. */
export const METRES: readonly (readonly [count: number, unit: number])[] = [
  [2, 4],
  [3, 4],
  [4, 4],
  [5, 4],
  [6, 4],
  [7, 4],
  [5, 8],
  [6, 8],
  [7, 8],
  [9, 8],
  [12, 8],
];

export const metreOf = (count: number, unit: number): Metre => ({ beatsPerBar: (count * QUARTERS) / unit, unit });
export const countOf = ({ beatsPerBar, unit }: Metre): number => (beatsPerBar * unit) / QUARTERS;
/** "6/8" */
export const metreName = (metre: Metre): string => `${countOf(metre)}/${metre.unit}`;

const NONE: readonly MetreChange[] = [];
const known = new WeakMap<readonly MetreChange[], { readonly base: Metre; readonly spans: readonly MetreSpan[] }>();

/** The metres of a piece one after another; a bar that a change cuts short counts as one. */
export function metreSpans({ beatsPerBar, unit = QUARTERS, metres = NONE }: Tempo): readonly MetreSpan[] {
  const kept = known.get(metres);
  if (kept && kept.base.beatsPerBar === beatsPerBar && kept.base.unit === unit) return kept.spans;
  const base = { beatsPerBar, unit };
  const first = metres[0] && metres[0].beat <= SLACK_BEATS ? [] : [{ ...base, beat: 0 }];
  const changes = [...first, ...metres];
  let firstBar = 1;
  const spans = changes.map((change, i): MetreSpan => {
    const end = changes[i + 1]?.beat ?? Infinity;
    const span = { ...change, firstBar, end };
    firstBar += Math.ceil((end - change.beat) / change.beatsPerBar - SLACK_BEATS);
    return span;
  });
  known.set(metres, { base, spans });
  return spans;
}

/** The metre at a beat, of some one after another. */
export function spanAt(beat: number, spans: readonly MetreSpan[]): MetreSpan {
  let at = spans.length - 1;
  while (at > 0 && spans[at]!.beat > beat + SLACK_BEATS) at -= 1;
  return spans[at]!;
}

/** The metre at a beat. */
export const metreAt = (beat: number, tempo: Tempo): MetreSpan => spanAt(beat, metreSpans(tempo));

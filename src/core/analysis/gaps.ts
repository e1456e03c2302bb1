/** A range, in beats or in seconds. */
export interface Span {
  readonly start: number;
  readonly end: number;
}

/**
 * Spans in which a sound is above a level, in seconds from the beginning of the span that is examined.
 * @param peaks peak level of each of equal intervals  @param secondsPerPeak length of an interval
 * @param floor level under which an interval counts as silent
 * @param holdSeconds a shorter silence does not end a span
 */
export function soundingSpans(
  peaks: Float32Array,
  secondsPerPeak: number,
  { start, end }: Span,
  floor: number,
  holdSeconds: number,
): Span[] {
  const spans: { start: number; end: number }[] = [];
  const first = Math.max(0, Math.floor(start / secondsPerPeak));
  const last = Math.min(peaks.length, Math.ceil(end / secondsPerPeak));
  for (let i = first; i < last; i += 1) {
    if (peaks[i]! < floor) continue;
    const from = Math.max(0, i * secondsPerPeak - start);
    const to = Math.min(end, (i + 1) * secondsPerPeak) - start;
    const open = spans[spans.length - 1];
    if (open && from - open.end <= holdSeconds) open.end = to;
    else spans.push({ start: from, end: to });
  }
  return spans;
}

/** Gaps between spans, which may overlap and be in any order. @param least length of the shortest gap that counts */
export function gapsBetween(spans: readonly Span[], length: number, least: number): Span[] {
  const gaps: Span[] = [];
  let free = 0;
  for (const { start, end } of [...spans].sort((a, b) => a.start - b.start)) {
    if (start - free >= least) gaps.push({ start: free, end: start });
    free = Math.max(free, end);
  }
  if (length - free >= least) gaps.push({ start: free, end: length });
  return gaps;
}

/** The longest span within a gap that begins and ends on grid lines; null if there is none. */
export function gapOnGrid({ start, end }: Span, grid: number): Span | null {
  const [from, to] = [Math.ceil(start / grid - 1e-6) * grid, Math.floor(end / grid + 1e-6) * grid];
  return to > from ? { start: from, end: to } : null;
}

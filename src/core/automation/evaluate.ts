const HOLD = 1;
const CURVE = 2;

/** A lane prepared for evaluation: times (samples or beats) ascending, positions 0-1 on the parameter's own scale. */
export interface LaneTrack {
  readonly times: Float64Array;
  readonly positions: Float64Array;
  /** The same as numbers of the engine, exactly as they were set. */
  readonly numbers: Float64Array;
  /** Index in SHAPES of the segment that begins at each point. */
  readonly shapes: Uint8Array;
  readonly bends: Float64Array;
}

const slowness = (bend: number): number => (bend > 0 ? 1 - 0.98 * bend : 1 / (1 + 0.98 * bend));
const bendOf = (k: number): number => (k < 1 ? (1 - k) / 0.98 : (1 / k - 1) / 0.98);

/**
 * Share of a curved segment covered at `t` (0-1). The curve of -bend is its inverse. Rational, so that it is equal in
 * every engine.
 */
export function applyBend(t: number, bend: number): number {
  if (bend === 0) return t;
  return t / (t + slowness(bend) * (1 - t));
}

/** The bend with which a curved segment passes through `share` at `t`, both between 0 and 1 without them. */
export function bendThrough(t: number, share: number): number {
  const bend = bendOf((t * (1 - share)) / (share * (1 - t)));
  return bend < -1 ? -1 : bend > 1 ? 1 : bend;
}

/**
 * The bends of the two parts of a curved segment cut at `t`, which together run exactly as the whole did: such curves
 * are Möbius maps, and so are their parts.
 */
export function splitBend(bend: number, t: number): [number, number] {
  const k = slowness(bend);
  const rest = t + k * (1 - t);
  return [bendOf(k / rest), bendOf(rest)];
}

/** Index of the last point at or before `place`, from a guess that is usually right; -1 before the first. */
export function segmentAt(track: LaneTrack, place: number, guess: number): number {
  const { times: places } = track;
  const last = places.length - 1;
  let at = guess > last ? last : guess;
  if (at >= 0 && places[at]! > place) {
    let low = -1;
    let high = at;
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (places[middle]! <= place) low = middle;
      else high = middle;
    }
    return low;
  }
  if (at < 0) at = -1;
  let stepsLeft = 8;
  while (at < last && places[at + 1]! <= place) {
    at += 1;
    stepsLeft -= 1;
    if (stepsLeft === 0) return searchFrom(places, at, last, place);
  }
  return at;
}

function searchFrom(places: Float64Array, from: number, last: number, place: number): number {
  let low = from;
  let high = last + 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (places[middle]! <= place) low = middle;
    else high = middle;
  }
  return low;
}

/** Position 0-1 at `place`, given its segment. Before the first point the first holds, after the last the last. */
export function positionAt(track: LaneTrack, place: number, segment: number): number {
  const { times: places, positions, shapes, bends } = track;
  if (segment < 0) return positions[0]!;
  const here = positions[segment]!;
  if (segment >= places.length - 1 || shapes[segment] === HOLD) return here;
  const length = places[segment + 1]! - places[segment]!;
  if (length <= 0) return here;
  const t = (place - places[segment]!) / length;
  const share = shapes[segment] === CURVE ? applyBend(t, bends[segment]!) : t;
  return here + (positions[segment + 1]! - here) * share;
}

/**
 * The engine's number where a lane is constant: in a held segment, before the first point and after the last; NaN
 * elsewhere.
 */
export function heldNumberAt({ numbers, shapes }: LaneTrack, segment: number): number {
  if (segment < 0) return numbers[0]!;
  return segment >= numbers.length - 1 || shapes[segment] === HOLD ? numbers[segment]! : NaN;
}

/** Whether a lane jumps to another value where a segment begins. */
export function jumpsAt({ times: places, numbers, shapes }: LaneTrack, segment: number): boolean {
  if (segment <= 0) return false;
  if (places[segment - 1] === places[segment]) return true;
  return shapes[segment - 1] === HOLD && numbers[segment - 1] !== numbers[segment];
}

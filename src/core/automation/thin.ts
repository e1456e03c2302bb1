/** One recorded value of a rail. */
export interface Reading {
  readonly beat: number;
  /** 0-1 on the parameter's scale. */
  readonly position: number;
  /** The engine's number, where the engine reported it. */
  readonly number?: number;
}

/**
 * The smallest subset of readings whose linear interpolation is within `tolerance` of all the others. Shortest path
 * over all admissible segments, each tested by narrowing a cone of slopes.
 * Source: H. Imai and M. Iri, "Polygonal approximations of a curve" (1988); error measured along the value.
 * @param readings places strictly ascending
 */
export function thin(readings: readonly Reading[], tolerance: number): Reading[] {
  const count = readings.length;
  if (count <= 2) return [...readings];
  const steps = new Int32Array(count).fill(count + 1);
  const cameFrom = new Int32Array(count).fill(-1);
  steps[0] = 0;
  for (let from = 0; from < count - 1; from += 1) reach(readings, from, tolerance, steps, cameFrom);
  const kept: Reading[] = [];
  for (let at = count - 1; at >= 0; at = cameFrom[at]!) kept.push(readings[at]!);
  return kept.reverse();
}

function reach(
  readings: readonly Reading[],
  from: number,
  tolerance: number,
  steps: Int32Array,
  cameFrom: Int32Array,
): void {
  const start = readings[from]!;
  const next = steps[from]! + 1;
  let lowest = -Infinity;
  let highest = Infinity;
  for (let to = from + 1; to < readings.length; to += 1) {
    const reading = readings[to]!;
    const run = reading.beat - start.beat;
    const slope = (reading.position - start.position) / run;
    if (slope >= lowest && slope <= highest && next < steps[to]!) {
      steps[to] = next;
      cameFrom[to] = from;
    }
    lowest = Math.max(lowest, (reading.position - tolerance - start.position) / run);
    highest = Math.min(highest, (reading.position + tolerance - start.position) / run);
    if (lowest > highest) return;
  }
}

/** Keeps the last of readings at the same place and drops any that go back in time. */
export function inOrder(readings: readonly Reading[]): Reading[] {
  const kept: Reading[] = [];
  for (const reading of readings) {
    const last = kept[kept.length - 1];
    if (last && reading.beat < last.beat) continue;
    if (last && reading.beat - last.beat < 1e-6) kept.pop();
    kept.push(reading);
  }
  return kept;
}

import { tanhRational } from '../../dsp/approx';
import type { Shaper } from '../../dsp/oversampler';
import { CURVES, DRAWN_POINTS } from './params';

const SOFT = CURVES.indexOf('soft');
const TUBE = CURVES.indexOf('tube');
const TAPE = CURVES.indexOf('tape');
const TRANSISTOR = CURVES.indexOf('transistor');
const HARD = CURVES.indexOf('hard');
const FOLD = CURVES.indexOf('fold');
const WRAP = CURVES.indexOf('wrap');

/**
 * Output of a curve given by a formula, slope 1 at 0.
 * @param kind index in CURVES, other than `drawn`
 * @param x any input
 */
export function curveAt(kind: number, x: number): number {
  if (kind === SOFT) return x / Math.sqrt(1 + x * x);
  if (kind === TUBE) return x > 0 ? tanhRational(x) : x / (1 - 0.35 * x);
  if (kind === TAPE) return tanhRational(x);
  if (kind === TRANSISTOR) return x / Math.sqrt(Math.sqrt(1 + x * x * x * x));
  if (kind === HARD) return x > 1 ? 1 : x < -1 ? -1 : x;
  if (kind === FOLD) {
    const turns = 0.25 * (x + 1) - Math.floor(0.25 * (x + 1));
    return turns < 0.5 ? 4 * turns - 1 : 3 - 4 * turns;
  }
  if (kind === WRAP) return x - 2 * Math.floor(0.5 * (x + 1));
  return x;
}

/** Intervals of the table of a drawn curve. */
const TABLE = 1024;
/** Drawn heights in a stretch of 1. */
const PER_HEIGHT = (DRAWN_POINTS - 1) / 2;

/**
 * A curve through the drawn heights that never overshoots them, constant outside.
 * Source: F. N. Fritsch and R. E. Carlson, "Monotone Piecewise Cubic Interpolation" (1980).
 */
export class DrawnCurve {
  private readonly table = new Float64Array(TABLE + 2);
  /** Version: it changes with each curve that is drawn. */
  version = 0;
  private readonly heights = new Float64Array(DRAWN_POINTS).fill(NaN);
  private readonly slopes = new Float64Array(DRAWN_POINTS);

  /** Copies heights from an array of values from `at` on; does nothing while they are unchanged. */
  take(values: Float64Array, at: number): void {
    const { heights } = this;
    let same = true;
    for (let i = 0; i < DRAWN_POINTS; i += 1) {
      if (heights[i] === values[at + i]) continue;
      heights[i] = values[at + i]!;
      same = false;
    }
    if (!same) this.draw();
  }

  private draw(): void {
    this.version += 1;
    const { heights, slopes, table } = this;
    const last = DRAWN_POINTS - 1;
    for (let i = 0; i <= last; i += 1) {
      const before = i === 0 ? 0 : heights[i]! - heights[i - 1]!;
      const after = i === last ? 0 : heights[i + 1]! - heights[i]!;
      slopes[i] =
        i === 0 ? after : i === last ? before : before * after <= 0 ? 0 : (2 * before * after) / (before + after);
    }
    for (let k = 0; k <= TABLE + 1; k += 1) {
      const x = (Math.min(k, TABLE) / TABLE) * last;
      const i = x >= last ? last - 1 : Math.floor(x);
      const t = x - i;
      const s = 1 - t;
      table[k] =
        s * s * (1 + 2 * t) * heights[i]! +
        t * s * s * slopes[i]! +
        t * t * (3 - 2 * t) * heights[i + 1]! -
        t * t * s * slopes[i + 1]!;
    }
  }

  copyTable(to: Float32Array): void {
    for (let k = 0; k < this.table.length; k += 1) to[k] = this.table[k]!;
  }

  /** What the slope changes by at a drawn height, upwards: the ends alone have corners. */
  slopeChange(point: number): number {
    return point === 0
      ? PER_HEIGHT * this.slopes[0]!
      : point === DRAWN_POINTS - 1
        ? -PER_HEIGHT * this.slopes[point]!
        : 0;
  }

  /** What the curvature changes by at a drawn height, upwards. */
  curvatureChange(point: number): number {
    const { heights, slopes } = this;
    const last = DRAWN_POINTS - 1;
    const before =
      point === 0 ? 0 : 6 * (heights[point - 1]! - heights[point]!) + 2 * slopes[point - 1]! + 4 * slopes[point]!;
    const after =
      point === last ? 0 : 6 * (heights[point + 1]! - heights[point]!) - 4 * slopes[point]! - 2 * slopes[point + 1]!;
    return PER_HEIGHT * PER_HEIGHT * (after - before);
  }

  at(x: number): number {
    const place = 0.5 * (x + 1) * TABLE;
    if (place <= 0) return this.table[0]!;
    if (place >= TABLE) return this.table[TABLE]!;
    const k = place | 0;
    return this.table[k]! + (this.table[k + 1]! - this.table[k]!) * (place - k);
  }
}

/** Any of the curves, the drawn one included, without anti-aliasing. */
export class CurveShaper implements Shaper {
  readonly latency = 0;
  readonly drawn = new DrawnCurve();
  kind = 0;

  shape(cells: Float32Array | Float64Array, at: number, n: number, drive: number, step: number): void {
    const { kind, drawn } = this;
    let level = drive;
    const end = at + n;
    if (kind === CURVES.length - 1) {
      for (let i = at; i < end; i += 1) {
        level += step;
        cells[i] = drawn.at(cells[i]! * level);
      }
      return;
    }
    for (let i = at; i < end; i += 1) {
      level += step;
      cells[i] = curveAt(kind, cells[i]! * level);
    }
  }
}

import { STEP_FRAMES } from '../../dsp/blocks';
import { addCorner, CORNER_FRAMES } from '../../dsp/bandlimitedCorner';
import type { KernelRoom } from '../../dsp/kernels/load';
import { SHAPER_LATENCY, type Shaper } from '../../dsp/oversampler';
import { CornerKernel } from './cornerKernel';
import type { DrawnCurve } from './curves';
import { CURVES, DRAWN_POINTS } from './params';

const HARD = CURVES.indexOf('hard');
const FOLD = CURVES.indexOf('fold');
const WRAP = CURVES.indexOf('wrap');
const DRAWN = CURVES.indexOf('drawn');
/** The same, in the order the kernel counts them. */
const CORNERED = [HARD, FOLD, WRAP, DRAWN];
const MAX_FACTOR = 8;
/** Maximum number of corners that are corrected between two samples. */
const MAX_CORNERS = 12;
const NEWTON_STEPS = 2;
/**
 * Slope per sample up to which changes of curvature are corrected: beyond, several drawn points are between two
 * samples.
 */
const MAX_SPEED = 1.5;
/** Drawn heights in a segment of 1. */
const PER_HEIGHT = (DRAWN_POINTS - 1) / 2;

/** True for the curves that have corners or jumps. @param kind index in CURVES */
export const hasCorners = (kind: number): boolean => CORNERED.includes(kind);

/**
 * State of one channel: input after the last three samples, output after the last four, and the segments of the last
 * two inputs.
 */
class Side {
  readonly x = new Float64Array(SHAPER_LATENCY + MAX_FACTOR * STEP_FRAMES);
  readonly y = new Float64Array(CORNER_FRAMES + MAX_FACTOR * STEP_FRAMES);
  segmentBefore = 0;
  segment = 0;
}

/**
 * Curves with corners at any sample rate, with every corner band-limited for the rate. Between two corners the curve
 * adds no harmonics, so that nothing else aliases. The time of a corner is found on a cubic through four samples.
 */
export class AntialiasedShaper implements Shaper {
  readonly latency = SHAPER_LATENCY;
  /** None where the kernel keeps them. */
  private readonly sides: readonly Side[];
  private readonly kernel: CornerKernel | null;
  private kind = HARD;

  /** @param room in the memory of the oversampler; null leaves all work to TypeScript, which tests compare */
  constructor(
    private readonly drawn: DrawnCurve,
    room: KernelRoom | null,
  ) {
    this.kernel = room && CornerKernel.join(room);
    this.sides = this.kernel ? [] : [new Side(), new Side()];
  }

  clear(): void {
    this.kernel?.clear();
    for (const side of this.sides) {
      side.x.fill(0);
      side.y.fill(0);
      side.segmentBefore = side.segment = this.segmentOf(0);
    }
  }

  /** @param kind index in CURVES, of one that has corners */
  aim(kind: number): void {
    if (kind === this.kind) return;
    this.kind = kind;
    for (const side of this.sides) {
      side.segmentBefore = this.segmentOf(side.x[1]!);
      side.segment = this.segmentOf(side.x[2]!);
    }
  }

  shape(cells: Float32Array, at: number, n: number, drive: number, step: number, which: 0 | 1): void {
    if (this.kernel) {
      if (this.kind === DRAWN) this.kernel.takeDrawn(this.drawn);
      this.kernel.shape(which, at, CORNERED.indexOf(this.kind), n, drive, step);
    } else this.shapeReference(this.sides[which]!, cells, at, n, drive, step);
  }

  private shapeReference(side: Side, cells: Float32Array, at: number, n: number, drive: number, step: number): void {
    const { x, y } = side;
    let level = drive;
    for (let i = 0; i < n; i += 1) {
      level += step;
      x[i + SHAPER_LATENCY] = cells[at + i]! * level;
    }
    if (this.kind === HARD) this.clip(side, n);
    else if (this.kind === DRAWN) this.follow(side, n);
    else if (this.kind === FOLD) this.foldOrWrap(side, n, -1);
    else this.foldOrWrap(side, n, 1);
    for (let i = 0; i < n; i += 1) cells[at + i] = y[i + 1]!;
    for (let k = 0; k < SHAPER_LATENCY; k += 1) x[k] = x[n + k]!;
    for (let k = 0; k < CORNER_FRAMES; k += 1) y[k] = y[n + k]!;
  }

  /** Corners between two samples are corrected once the sample after them is known. */
  private clip(side: Side, n: number): void {
    const { x, y } = side;
    let { segment, segmentBefore } = side;
    for (let i = 0; i < n; i += 1) {
      const now = x[i + SHAPER_LATENCY]!;
      y[i + CORNER_FRAMES] = now > 1 ? 1 : now < -1 ? -1 : now;
      if (segment !== segmentBefore) this.correctCorners(x, y, i, segmentBefore, segment);
      segmentBefore = segment;
      segment = now > 1 ? 2 : now < -1 ? 0 : 1;
    }
    side.segment = segment;
    side.segmentBefore = segmentBefore;
  }

  /** @param odd what every second segment is multiplied by: -1 folds, 1 wraps */
  private foldOrWrap(side: Side, n: number, odd: number): void {
    const { x, y } = side;
    let { segment, segmentBefore } = side;
    for (let i = 0; i < n; i += 1) {
      const now = x[i + SHAPER_LATENCY]!;
      const entered = Math.floor(0.5 * (now + 1)) | 0;
      const rest = now - 2 * entered;
      y[i + CORNER_FRAMES] = entered & 1 ? odd * rest : rest;
      if (segment !== segmentBefore) this.correctCorners(x, y, i, segmentBefore, segment);
      segmentBefore = segment;
      segment = entered;
    }
    side.segment = segment;
    side.segmentBefore = segmentBefore;
  }

  private follow(side: Side, n: number): void {
    const { x, y } = side;
    const { drawn } = this;
    let { segment, segmentBefore } = side;
    for (let i = 0; i < n; i += 1) {
      const now = x[i + SHAPER_LATENCY]!;
      y[i + CORNER_FRAMES] = drawn.at(now);
      if (segment !== segmentBefore) this.correctCorners(x, y, i, segmentBefore, segment);
      segmentBefore = segment;
      segment = now < -1 ? -1 : now >= 1 ? DRAWN_POINTS - 1 : (PER_HEIGHT * (now + 1)) | 0;
    }
    side.segment = segment;
    side.segmentBefore = segmentBefore;
  }

  /** Index of the curve's segment at an input; corner c is the lower end of segment c. */
  private segmentOf(x: number): number {
    if (this.kind === HARD) return x > 1 ? 2 : x < -1 ? 0 : 1;
    if (this.kind !== DRAWN) return Math.floor(0.5 * (x + 1));
    return x < -1 ? -1 : x >= 1 ? DRAWN_POINTS - 1 : (PER_HEIGHT * (x + 1)) | 0;
  }

  private heightOfCorner(corner: number): number {
    if (this.kind === HARD) return 2 * corner - 3;
    return this.kind === DRAWN ? corner / PER_HEIGHT - 1 : 2 * corner - 1;
  }

  /** Corrects the corners between the second and the third of the four samples from `at` on. */
  private correctCorners(x: Float64Array, y: Float64Array, at: number, before: number, now: number): void {
    const up = now > before;
    const from = up ? before + 1 : now + 1;
    const to = up ? now : before;
    if (to - from >= MAX_CORNERS) return;
    for (let corner = from; corner <= to; corner += 1) this.correctCorner(x, y, at, corner, up ? 1 : -1);
  }

  private correctCorner(x: Float64Array, y: Float64Array, at: number, corner: number, sign: number): void {
    const start = x[at + 1]!;
    const rise = x[at + 2]! - start;
    let first = x[at + 2]! - x[at]! / 3 - start / 2 - x[at + 3]! / 6;
    let second = 0.5 * (x[at]! + x[at + 2]!) - start;
    let third = (x[at + 3]! - x[at]!) / 6 + 0.5 * (start - x[at + 2]!);
    const ends = first + 2 * second + 3 * third;
    const middle = first + second + 0.75 * third;
    // A cubic that is not monotonic between its samples does not give one crossing: linear interpolation is used.
    if (!(sign * first > 0 && sign * middle > 0 && sign * ends > 0)) {
      first = rise;
      second = third = 0;
    }
    const height = this.heightOfCorner(corner);
    let t = (height - start) / rise;
    for (let k = 0; k < NEWTON_STEPS; k += 1) {
      t -= (start + t * (first + t * (second + t * third)) - height) / (first + t * (2 * second + 3 * t * third));
      t = t < 0 ? 0 : t > 1 ? 1 : t;
    }
    const speed = first + t * (2 * second + 3 * t * third);
    const turn = sign * this.slopeChange(corner);
    let curvature = turn * (2 * second + 6 * t * third);
    if (speed < MAX_SPEED && speed > -MAX_SPEED) curvature += sign * this.curvatureChange(corner) * speed * speed;
    addCorner(y, at + 1, 1 - t, this.kind === WRAP ? -2 * sign : 0, turn * speed, curvature);
  }

  /** What the curve's slope changes by at a corner, upwards. */
  private slopeChange(corner: number): number {
    if (this.kind === HARD) return corner === 1 ? 1 : -1;
    if (this.kind === FOLD) return corner & 1 ? -2 : 2;
    return this.kind === DRAWN ? this.drawn.slopeChange(corner) : 0;
  }

  private curvatureChange(corner: number): number {
    return this.kind === DRAWN ? this.drawn.curvatureChange(corner) : 0;
  }
}

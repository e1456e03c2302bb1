/** Bins of a bar; each keeps the highest peak level in it. */
export const BINS = 24;
/** Bins of the window that are before the start of a hold. */
const BINS_BEFORE_START = 18;
/** When the read head leaves the window, the window moves by this many bins. */
const WINDOW_STEP = 12;
const KEPT_BINS = 256;
const HEAD_POSITIONS = 5;
/** The picture is scaled to the highest level in the window, but never to less than this. */
const MIN_SCALE = 0.02;
/** Least height of a bar in pixels, and of the read head as a share of the picture's height. */
const MIN_BAR_PX = 1.5;
const MIN_HEAD_SHARE = 0.2;

/**
 * Peak levels of the input of a hold and positions of its read head, for a picture of one bar. Time is counted in bins
 * (BINS a bar) from any origin.
 */
export class HoldTrace {
  /** First bin of the window. */
  from = 0;
  private readonly levels = new Float32Array(KEPT_BINS);
  private latest = -1;
  /** The newest first; NaN for none. */
  private readonly heads = new Float64Array(HEAD_POSITIONS).fill(NaN);

  /** Adds the input's peak level at a time, 1 for full scale. */
  addLevel(now: number, level: number): void {
    const bin = Math.floor(now);
    if (bin < this.latest || bin > this.latest + KEPT_BINS) this.clear(bin);
    while (this.latest < bin) {
      this.latest += 1;
      this.levels[this.latest % KEPT_BINS] = 0;
    }
    const at = bin % KEPT_BINS;
    if (level > this.levels[at]!) this.levels[at] = level;
  }

  private clear(bin: number): void {
    this.levels.fill(0);
    this.latest = bin;
  }

  /** Places the window round the start of a hold, and drops the head's earlier positions. */
  begin(now: number): void {
    this.from = Math.floor(now) - BINS_BEFORE_START;
    this.heads.fill(NaN);
  }

  /** Adds a position of the read head, and moves the window where it would be outside. */
  followHead(head: number): void {
    while (head < this.from) this.from -= WINDOW_STEP;
    while (head >= this.from + BINS) this.from += WINDOW_STEP;
    this.heads.copyWithin(1, 0);
    this.heads[0] = head;
  }

  /** Level of a bin of the window, from 0 at its left; 0 for bins in the future or older than `KEPT_BINS`. */
  levelAt(index: number): number {
    const bin = this.from + index;
    return bin < 0 || bin > this.latest || bin <= this.latest - KEPT_BINS ? 0 : this.levels[bin % KEPT_BINS]!;
  }

  /** Level that has the full height: the highest in the window, at least `MIN_SCALE`. */
  get scale(): number {
    let highest = MIN_SCALE;
    for (let i = 0; i < BINS; i += 1) highest = Math.max(highest, this.levelAt(i));
    return highest;
  }

  /** The head's last positions as shares of the window, 0-1, the newest first; without those outside. */
  headPositions(): number[] {
    return [...this.heads].map((head) => (head - this.from) / BINS).filter((share) => share >= 0 && share < 1);
  }
}

/** SVG path of a bar for each bin. @param width and height of the picture in pixels */
export function barsPath(trace: HoldTrace, width: number, height: number): string {
  const { scale } = trace;
  const bars = Array.from({ length: BINS }, (_, i) => {
    const size = Math.max(MIN_BAR_PX, (trace.levelAt(i) / scale) * height);
    const x = ((i + 0.5) * width) / BINS;
    return `M${x.toFixed(1)} ${(0.5 * (height - size)).toFixed(1)}v${size.toFixed(1)}`;
  });
  return bars.join('');
}

/** SVG path of the read head, a line whose height is the output's peak level, and of points at its earlier positions. */
export function headPath(trace: HoldTrace, outputLevel: number, width: number, height: number): string {
  const size = Math.max(MIN_HEAD_SHARE, Math.min(1, outputLevel / trace.scale)) * height;
  return trace
    .headPositions()
    .map((share, i) => {
      const x = (share * width).toFixed(1);
      return i === 0
        ? `M${x} ${(0.5 * (height - size)).toFixed(1)}v${size.toFixed(1)}`
        : `M${x} ${(0.5 * height).toFixed(1)}v0.1`;
    })
    .join('');
}

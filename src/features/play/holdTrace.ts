/** Parts of a bar of which the loudest moment is kept. */
export const PARTS = 24;
/** Where a hold begins, in parts from the left of what is shown: most of it is what has passed. */
const BEGINS_AT = 18;
/** A head that leaves what is shown turns it by so many parts. */
const TURNS_BY = 12;
const KEPT = 256;
const FAINT = 0.02;
/** Least height of a bar, and of the head as a share of the picture's. */
const MIN_BAR = 1.5;
const MIN_HEAD = 0.2;
const HEADS = 5;

/**
 * What passed a hold lately and where the hold reads in it, over the length of a bar. Time is counted in parts of a bar,
 * from any beginning.
 */
export class HoldTrace {
  /** First part that is shown. */
  from = 0;
  private readonly levels = new Float32Array(KEPT);
  private latest = -1;
  private readonly heads = new Float64Array(HEADS).fill(NaN);

  /** Takes in what passes now. @param level of its peak, 1 for full scale */
  note(now: number, level: number): void {
    const part = Math.floor(now);
    if (part < this.latest || part > this.latest + KEPT) this.clear(part);
    while (this.latest < part) {
      this.latest += 1;
      this.levels[this.latest % KEPT] = 0;
    }
    const at = part % KEPT;
    if (level > this.levels[at]!) this.levels[at] = level;
  }

  private clear(part: number): void {
    this.levels.fill(0);
    this.latest = part;
  }

  /** A hold begins. */
  begin(now: number): void {
    this.from = Math.floor(now) - BEGINS_AT;
    this.heads.fill(NaN);
  }

  /** Takes in where the hold reads, and turns what is shown so that it is seen. */
  follow(head: number): void {
    while (head < this.from) this.from -= TURNS_BY;
    while (head >= this.from + PARTS) this.from += TURNS_BY;
    this.heads.copyWithin(1, 0);
    this.heads[0] = head;
  }

  /** Level of a part that is shown, 0 at the left; 0 for what has not passed or is not kept any more. */
  levelOf(shown: number): number {
    const part = this.from + shown;
    return part < 0 || part > this.latest || part <= this.latest - KEPT ? 0 : this.levels[part % KEPT]!;
  }

  /** Loudest part that is shown; never less than what is hardly heard. */
  get loudest(): number {
    let most = FAINT;
    for (let i = 0; i < PARTS; i += 1) most = Math.max(most, this.levelOf(i));
    return most;
  }

  /** Where the hold has read, as shares of what is shown: now, and at the moments before. */
  *headsShown(): Iterable<number> {
    for (const head of this.heads) {
      const share = (head - this.from) / PARTS;
      if (share >= 0 && share < 1) yield share;
    }
  }
}

/** Bars of what passed, the loudest that is shown as tall as the picture. @param width and height of the picture */
export function barsPath(trace: HoldTrace, width: number, height: number): string {
  const loudest = trace.loudest;
  const bars = Array.from({ length: PARTS }, (_, i) => {
    const size = Math.max(MIN_BAR, (trace.levelOf(i) / loudest) * height);
    const x = ((i + 0.5) * width) / PARTS;
    return `M${x.toFixed(1)} ${(0.5 * (height - size)).toFixed(1)}v${size.toFixed(1)}`;
  });
  return bars.join('');
}

/** The head as a line, the taller the more is heard of it, and points where it has just been. */
export function headPath(trace: HoldTrace, heard: number, width: number, height: number): string {
  const size = Math.max(MIN_HEAD, Math.min(1, heard / trace.loudest)) * height;
  return [...trace.headsShown()]
    .map((share, i) => {
      const x = (share * width).toFixed(1);
      return i === 0
        ? `M${x} ${(0.5 * (height - size)).toFixed(1)}v${size.toFixed(1)}`
        : `M${x} ${(0.5 * height).toFixed(1)}v0.1`;
    })
    .join('');
}

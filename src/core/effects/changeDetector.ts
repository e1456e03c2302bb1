/** A row of values as it was when it was looked at last: what stands still need not be worked out again. */
export class ChangeDetector {
  private readonly seen: Float64Array;

  /** @param length of the rows */
  constructor(length: number) {
    this.seen = new Float64Array(length);
    this.invalidate();
  }

  /** Takes any row for new. */
  invalidate(): void {
    this.seen.fill(Number.NaN);
  }

  /** True when a value is not what it was the last time. */
  update(values: Float64Array): boolean {
    const { seen } = this;
    let moved = false;
    for (let i = 0; i < seen.length; i += 1) {
      if (seen[i] === values[i]) continue;
      seen[i] = values[i]!;
      moved = true;
    }
    return moved;
  }
}

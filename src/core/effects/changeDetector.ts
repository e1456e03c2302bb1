/** Detects whether any of an array of values has changed since the last call, so that derived values can be kept. */
export class ChangeDetector {
  private readonly seen: Float64Array;

  /** @param length of the arrays */
  constructor(length: number) {
    this.seen = new Float64Array(length);
    this.invalidate();
  }

  /** Makes the next update report a change. */
  invalidate(): void {
    this.seen.fill(Number.NaN);
  }

  /** Compares and stores the values. @returns true when one differs from the last call's */
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

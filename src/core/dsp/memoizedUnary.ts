/**
 * A costly function of one figure, worked out again only when the figure has changed: what stands still needs no sine
 * at every step.
 */
export class MemoizedUnary {
  private x = Number.NaN;
  private y = 0;

  constructor(private readonly of: (x: number) => number) {}

  at(x: number): number {
    if (x !== this.x) {
      this.x = x;
      this.y = this.of(x);
    }
    return this.y;
  }
}

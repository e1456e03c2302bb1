/** Remembers the last argument and result of a costly function, such as a sine of a parameter that rarely changes. */
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

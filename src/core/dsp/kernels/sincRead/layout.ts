/** Addresses are bytes. */
export interface SincWork {
  read(
    left: number,
    right: number,
    mask: number,
    table: number,
    start: number,
    speed: number,
    growth: number,
    outLeft: number,
    outRight: number,
    from: number,
    to: number,
  ): void;
}

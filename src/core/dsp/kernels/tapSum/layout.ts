/** Addresses are bytes. */
export interface TapWork {
  addWhole(left: number, right: number, levels: number, sums: number): void;
  addBetween(left: number, right: number, kernel: number, levels: number, sums: number): void;
}

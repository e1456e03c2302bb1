/** Addresses are bytes; `table` tells where the rows of a channel are. */
export interface OversampleWork {
  rise(base: number, table: number, count: number, kind: number, from: number, step: number): void;
  fall(base: number, table: number, count: number): void;
}

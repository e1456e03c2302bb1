/** A repeatable stream of numbers in [0, 1). Algorithm: mulberry32 (Tommy Ettinger, 2017, public domain). */
export function makeRandom(start: number): () => number {
  let state = start >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/**
 * A number between -1 and 1 for each whole number, the same for the same roll. Algorithm: the finaliser of MurmurHash3
 * (Austin Appleby, 2011).
 */
export function randomAt(index: number, roll: number): number {
  let x = (Math.imul(index, 0x9e3779b1) ^ roll) >>> 0;
  x = Math.imul(x ^ (x >>> 16), 0x85ebca6b);
  x = Math.imul(x ^ (x >>> 13), 0xc2b2ae35);
  x = (x ^ (x >>> 16)) >>> 0;
  return x / 0x7fffffff - 1;
}

/**
 * Added to the state of a recursion and taken away again, it turns what is far below audibility into zero (what is below
 * about 1e-31; all else is rounded to a multiple of 2e-31 or finer), so that a decaying state never reaches denormal
 * numbers, with which processors compute many times slower. Written out where it is used: as a function it costs a loop
 * up to a fifth more time (docs/decisions/doubles-and-floats.md).
 */
export const DENORMAL_GUARD = 1e-15;

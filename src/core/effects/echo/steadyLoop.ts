import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import type { DelayLine } from '../../dsp/delayLine';
import type { StateVariable } from '../../dsp/stateVariable';
import type { LoopColour } from './loopTone';
import { DENORMAL_GUARD } from '../../dsp/denormals';

/** Gains into a line: of the input of this side and of the other, of the repeats of this side and of the other. */
export interface SteadyGains {
  ownLeft: number;
  otherLeft: number;
  ownRight: number;
  otherRight: number;
  stays: number;
  goesOver: number;
}

/** The repeats of one side: single-precision samples, contiguous from `at`. */
export interface Source {
  samples: Float32Array;
  at: number;
}

/** True when there is crossfeed between the sides. */
export const crosses = ({ otherLeft, otherRight, goesOver }: SteadyGains): boolean =>
  otherLeft !== 0 || otherRight !== 0 || goesOver !== 0;

/** Far below hearing and far above denormals: a step that is quieter is zeroed. */
const NOTHING = 1e-18;

export function flushed(peak: number, left: DelayLine, right: DelayLine): number {
  if (peak >= NOTHING) return peak;
  left.ring.fill(0, left.place, left.place + STEP_FRAMES);
  right.ring.fill(0, right.place, right.place + STEP_FRAMES);
  return 0;
}

/**
 * One step of a loop with steady values: filter, mix and write in one pass. The reference of the WebAssembly kernel,
 * and what runs where there is none. Needs delays of at least a step, and STEP_FRAMES of room in both rings before they
 * wrap.
 * @returns the highest level written, which the guard may still have to limit
 */
export function steadyLoop(
  left: Source,
  right: Source,
  a: StateVariable,
  b: StateVariable,
  colour: LoopColour,
  filtered: boolean,
  gains: SteadyGains,
  input: StereoBlock,
  wet: StereoBlock,
  lineLeft: DelayLine,
  lineRight: DelayLine,
): number {
  const { g, k, direct, band, low } = colour;
  const { ownLeft, otherLeft, ownRight, otherRight, stays, goesOver } = gains;
  const crossing = crosses(gains);
  const fromLeft = left.samples,
    fromRight = right.samples;
  const ringLeft = lineLeft.ring,
    ringRight = lineRight.ring;
  const inLeft = input.left,
    inRight = input.right;
  const outLeft = wet.left,
    outRight = wet.right;
  const readLeft = left.at,
    readRight = right.at;
  const writeLeft = lineLeft.place,
    writeRight = lineRight.place;
  const a1 = 1 / (1 + g * (g + k));
  const a2 = g * a1;
  let { s1, s2 } = a;
  let { s1: t1, s2: t2 } = b;
  let peak = 0;
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    let yl = fromLeft[readLeft + i]!;
    let yr = fromRight[readRight + i]!;
    if (filtered) {
      const v1 = a1 * s1 + a2 * (yl - s2);
      const w1 = a1 * t1 + a2 * (yr - t2);
      const v2 = s2 + g * v1;
      const w2 = t2 + g * w1;
      s1 = v1 + v1 - s1;
      t1 = w1 + w1 - t1;
      s2 = v2 + v2 - s2;
      t2 = w2 + w2 - t2;
      yl = direct * yl + band * v1 + low * v2;
      yr = direct * yr + band * w1 + low * w2;
    }
    outLeft[i] = yl;
    outRight[i] = yr;
    const xl = inLeft[i]!;
    const xr = inRight[i]!;
    let l = ownLeft * xl + stays * yl;
    let r = ownRight * xr + stays * yr;
    if (crossing) {
      l += otherLeft * xr + goesOver * yr;
      r += otherRight * xl + goesOver * yl;
    }
    ringLeft[writeLeft + i] = l;
    ringRight[writeRight + i] = r;
    const lp = l < 0 ? -l : l;
    const rp = r < 0 ? -r : r;
    if (lp > peak) peak = lp;
    if (rp > peak) peak = rp;
  }
  a.s1 = s1 + DENORMAL_GUARD - DENORMAL_GUARD;
  a.s2 = s2 + DENORMAL_GUARD - DENORMAL_GUARD;
  b.s1 = t1 + DENORMAL_GUARD - DENORMAL_GUARD;
  b.s2 = t2 + DENORMAL_GUARD - DENORMAL_GUARD;
  return peak;
}

import { NETWORK_LINES } from '../../dsp/kernels/network/layout';
import { SPACES } from './params';

/** Transition of the decay from lows to middle and from middle to highs, whatever both are set to. */
export interface DecayContour {
  /** Midpoint of the low shelf, and its Q: up to 0.707. */
  readonly lowHz: number;
  readonly lowQ: number;
  /** Midpoint of the high shelf, as a multiple of the set frequency, and its Q. */
  readonly highs: number;
  readonly highQ: number;
}

/** Constants of a space. Times in seconds at size 1. */
export interface Space {
  /** Shortest and longest line of the network. */
  readonly shortest: number;
  readonly longest: number;
  /** Stages of the mixing matrix; fewer keep the lines apart, so that single echoes remain audible. */
  readonly stages: number;
  /** The allpass sections that diffuse the input, longest last. */
  readonly smear: readonly [number, number, number, number];
  /** Width, depth and height in metres of the box that makes the early reflections; null for none. */
  readonly box: readonly [number, number, number] | null;
  /** Sections of the dispersive allpass cascade, as of a spring; 0 for none. */
  readonly coil: number;
  readonly contour: DecayContour;
}

/** Soft walls absorb from 2 kHz on. The decay of each contour in every octave: accuracy/spaces.ts. */
const SOFT: DecayContour = { lowHz: 300, lowQ: 0.7, highs: 0.55, highQ: 0.7 };
/** Hard walls: the low mids decay slowly. */
const STONE: DecayContour = { lowHz: 420, lowQ: 0.7, highs: 0.75, highQ: 0.65 };
/** Little absorption up to 4 kHz, then rising with every octave, as by air. */
const AIR: DecayContour = { lowHz: 340, lowQ: 0.7, highs: 1, highQ: 0.7 };
/** An even slope over all octaves. */
const METAL: DecayContour = { lowHz: 300, lowQ: 0.7, highs: 0.8, highQ: 0.6 };
const COIL: DecayContour = { lowHz: 300, lowQ: 0.7, highs: 1, highQ: 0.7 };
const OPEN: DecayContour = { lowHz: 330, lowQ: 0.7, highs: 0.9, highQ: 0.65 };

const FIGURES: Readonly<Record<(typeof SPACES)[number], Space>> = {
  room: {
    shortest: 0.0083,
    longest: 0.0613,
    stages: 4,
    smear: [0.0019, 0.0031, 0.0047, 0.0062],
    box: [5.2, 6.9, 2.7],
    coil: 0,
    contour: SOFT,
  },
  chamber: {
    shortest: 0.0137,
    longest: 0.0473,
    stages: 4,
    smear: [0.0031, 0.0049, 0.0071, 0.0098],
    box: [8.4, 11.1, 4.3],
    coil: 0,
    contour: STONE,
  },
  hall: {
    shortest: 0.0051,
    longest: 0.0853,
    stages: 4,
    smear: [0.0041, 0.0067, 0.0109, 0.0151],
    box: [19.3, 31.7, 12.1],
    coil: 0,
    contour: AIR,
  },
  plate: {
    shortest: 0.0047,
    longest: 0.0797,
    stages: 4,
    smear: [0.0023, 0.0037, 0.0059, 0.0083],
    box: null,
    coil: 0,
    contour: METAL,
  },
  spring: {
    shortest: 0.0337,
    longest: 0.0611,
    stages: 2,
    smear: [0.0007, 0.0011, 0.0017, 0.0023],
    box: null,
    coil: 64,
    contour: COIL,
  },
  cloud: {
    shortest: 0.0411,
    longest: 0.1093,
    stages: 4,
    smear: [0.0113, 0.0197, 0.0331, 0.0523],
    box: null,
    coil: 0,
    contour: OPEN,
  },
};

export const spaceAt = (index: number): Space => FIGURES[SPACES[index] ?? 'hall'];
export const SPACE_COUNT = SPACES.length;
/** Longest line of any space at the largest size, with its motion. */
export const LONGEST_LINE_SECONDS = 0.1093 * 2 + 0.004;

/**
 * Lengths of the sixteen lines in samples: spread evenly by ratio, each moved to the next prime so that no two share a
 * period (M. R. Schroeder, "Natural Sounding Artificial Reverberation", 1962). Neighbours in the matrix are far apart.
 */
function makeLengths(space: Space, sampleRate: number): Float64Array {
  const ratio = Math.pow(space.longest / space.shortest, 1 / (NETWORK_LINES - 1));
  const sorted = Array.from({ length: NETWORK_LINES }, (_, i) =>
    nextPrime(Math.round(space.shortest * sampleRate * Math.pow(ratio, i))),
  );
  return Float64Array.from({ length: NETWORK_LINES }, (_, line) => sorted[(line * 7) & (NETWORK_LINES - 1)]!);
}

const lengthsAt = new Map<number, readonly Float64Array[]>();

/** Lengths of the lines of every space; computed once per rate, since effects are created on the audio thread. */
export function lineLengths(sampleRate: number): readonly Float64Array[] {
  const known =
    lengthsAt.get(sampleRate) ?? Array.from({ length: SPACE_COUNT }, (_, i) => makeLengths(spaceAt(i), sampleRate));
  lengthsAt.set(sampleRate, known);
  return known;
}

function nextPrime(from: number): number {
  let candidate = from | 1;
  while (!isPrime(candidate)) candidate += 2;
  return candidate;
}

function isPrime(n: number): boolean {
  for (let k = 3; k * k <= n; k += 2) if (n % k === 0) return false;
  return true;
}

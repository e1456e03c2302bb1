import { STEP_FRAMES, makeStereoBlock } from '../dsp/blocks';
import { makeRandom } from '../dsp/random';
import { EFFECTS } from '../effects/catalogue';
import { implementationOf } from '../effects/implementations';
import { type EffectDefinition } from '../effects/define';
import type { ParamValue } from '../params/param';
import { fromEngineNumber, paramAtPosition, toEngineNumber } from '../params/resolve';

/** One effect with random values, which is fed a second of sound and then silence. */
export interface DecayCase {
  readonly effect: EffectDefinition;
  readonly values: Readonly<Record<string, ParamValue>>;
  readonly sampleRate: number;
  readonly bpm: number;
  readonly input: 'noise' | 'sine' | 'clicks' | 'offset';
  readonly hz: number;
}

export interface DecayReading {
  /**
   * Energy of the loudest half second of the last ten seconds against that of the ten before, in dB; -Infinity once all
   * is silent.
   */
  readonly growthDb: number;
  /** Offset of the last ten seconds, in dB below full scale, and against that of the ten before. */
  readonly offsetDb: number;
  readonly offsetGrowthDb: number;
  /** Highest level after the effect said that it is silent, in dB below full scale. */
  readonly afterSilentDb: number;
  /** Growth that this case may measure although nothing grows. */
  readonly toleranceDb: number;
}

/** Effects with feedback or memory: the ones that could grow. */
export const WITH_MEMORY = [
  'echo',
  'taps',
  'doubling',
  'sideDelay',
  'grains',
  'reverb',
  'phaser',
  'chorus',
  'flanger',
  'shifter',
  'placer',
  'filter',
  'eq',
  'grit',
  'pitch',
  'widener',
];

const RATES = [44_100, 48_000, 32_000, 37_800] as const;
const INPUTS = ['noise', 'sine', 'clicks', 'offset'] as const;
const HOLDS = ['hold', 'freeze'];
const PLAYED_SECONDS = 1;
const WINDOW_SECONDS = 10;
/** The loudest half second is found to the twentieth of a second: a repeat does not fall on a grid. */
const PART_SECONDS = 0.05;
const LOUDEST_PARTS = 10;
/** Power below this, -90 dBFS, is ignored: the last bits of single-precision lines, and single late grains. */
const INAUDIBLE = 1e-9;

/**
 * Draws a case: every parameter anywhere on its rail or at an end of it, feedback anywhere below 100 %, nothing frozen
 * or held.
 */
export function decayCase(number: number, among: readonly string[] = WITH_MEMORY): DecayCase {
  const random = makeRandom(number);
  for (let i = 0; i < 8; i += 1) random();
  const pick = <T>(from: readonly T[]): T => from[Math.min(from.length - 1, Math.floor(random() * from.length))]!;
  const id = pick(among);
  const effect = EFFECTS.find((each) => each.id === id)!;
  const sampleRate = pick(RATES);
  const values: Record<string, ParamValue> = {};
  for (const paramId of effect.paramIds) {
    const param = effect.params[paramId]!;
    const edge = random();
    const position = edge < 0.12 ? 0 : edge > 0.88 ? 1 : random();
    const drawn = paramAtPosition(param, position);
    const below = paramId === 'feedback' ? Math.max(-0.99, Math.min(0.99, drawn)) : drawn;
    values[paramId] = HOLDS.includes(paramId)
      ? param.kind === 'choice'
        ? param.options[0]!.id
        : false
      : fromEngineNumber(param, below);
  }
  return {
    effect,
    values,
    sampleRate,
    bpm: 40 + 180 * random(),
    input: pick(INPUTS),
    hz: 30 * Math.pow(300, random()),
  };
}

/** Describes a case in one line. */
export const describeCase = ({ effect, values, sampleRate, bpm, input, hz }: DecayCase): string =>
  `${effect.id} at ${sampleRate} Hz, ${bpm.toFixed(2)} BPM, ${input} ${hz.toFixed(1)} Hz: ${JSON.stringify(values)}`;

/** Longest time of a case: no loop is longer. */
function longestSeconds({ effect }: DecayCase, row: Float64Array): number {
  let longest = 0;
  let stretch = 1;
  effect.paramIds.forEach((id, i) => {
    const param = effect.params[id]!;
    if (param.kind === 'number' && param.unit === 'ms') longest = Math.max(longest, row[i]! / 1000);
    // A pattern of taps is scaled as a whole, and its swing moves a tap by up to half a gap.
    if (id === 'stretch') stretch = 1.5 * row[i]!;
  });
  return longest * stretch;
}

function inputOf({ input, hz, sampleRate }: DecayCase): (index: number) => number {
  const random = makeRandom(4711);
  if (input === 'noise') return () => random() - 0.5;
  if (input === 'sine') return (i) => 0.5 * Math.sin((2 * Math.PI * hz * i) / sampleRate);
  if (input === 'offset') return () => 0.3 + 0.2 * random();
  const gap = Math.ceil(sampleRate / hz);
  return (i) => (i % gap === 0 ? 0.8 : 0);
}

/** Largest sum of so many parts side by side that are in `[from, to)`. */
function loudestSum(parts: Float64Array, from: number, to: number): number {
  let [sum, largest] = [0, 0];
  for (let i = from; i < Math.min(to, parts.length); i += 1) {
    sum += parts[i]! - (i >= from + LOUDEST_PARTS ? parts[i - LOUDEST_PARTS]! : 0);
    largest = Math.max(largest, sum);
  }
  return largest;
}

/** Size of the mean of samples, of whose parts the sums and counts are given, over a window of so many seconds. */
function meanOf(sums: Float64Array, counts: Float64Array, from: number, window: number): number {
  const total = (parts: Float64Array): number =>
    parts
      .subarray(Math.round(from / PART_SECONDS), Math.round((from + window) / PART_SECONDS))
      .reduce((sum, x) => sum + x, 0);
  return Math.abs(total(sums)) / Math.max(1, total(counts));
}

/** Growth over ten seconds, offset and what is heard after silence was announced: limits of all cases, in dB. */
export const DECAY_LIMITS = { growthDb: 0.1, offsetDb: -60, afterSilentDb: -90 };
/**
 * A remaining DC offset was in the input, or is a tone that was shifted there: it decays with its loop, by no less than
 * this.
 */
const OFFSET_FALL_DB = -0.05;
/**
 * A reversed tap reads slice after slice: which part of a sound coincides with a fade changes from pass to pass of the
 * loop.
 */
const REVERSED_TOLERANCE_DB = 3;

export const decays = ({ growthDb, offsetDb, offsetGrowthDb, afterSilentDb, toleranceDb }: DecayReading): boolean =>
  growthDb < DECAY_LIMITS.growthDb + toleranceDb &&
  (offsetDb < DECAY_LIMITS.offsetDb || offsetGrowthDb < OFFSET_FALL_DB) &&
  afterSilentDb < DECAY_LIMITS.afterSilentDb;

/**
 * Runs a case: a second of sound, then silence for two windows of ten seconds, longer where a loop takes longer than
 * five. Only the wet signal is measured. Ends early after silence as long as the loop.
 */
export function readDecay(drawn: DecayCase): DecayReading {
  const { effect, values, sampleRate, bpm } = drawn;
  const isReversed = effect.paramIds.some((id) => id.startsWith('reverse') && values[id] === true);
  const toleranceDb = isReversed ? REVERSED_TOLERANCE_DB : 0;
  const context = { tempo: { bpm, beatsPerBar: 4 }, sampleRate };
  const row = Float64Array.from(effect.paramIds, (id) => toEngineNumber(effect.params[id]!, values[id]!, context));
  const longest = longestSeconds(drawn, row);
  const window = Math.max(WINDOW_SECONDS, 2 * longest);
  const warm = PLAYED_SECONDS + 2 * longest;
  const until = (warm + 2 * window) * sampleRate;
  const processor = implementationOf(effect.id).createProcessor(sampleRate);
  processor.reset(0, row);
  const sample = inputOf(drawn);
  const [dry, wet] = [makeStereoBlock(), makeStereoBlock()];
  const parts = new Float64Array(Math.ceil((warm + 2 * window) / PART_SECONDS) + 1);
  const [sums, counts] = [new Float64Array(parts.length), new Float64Array(parts.length)];
  let [afterSilent, quietFrames, silentFrames] = [0, 0, 0];
  for (
    let at = 0;
    at < until && !(quietFrames > (longest + 1) * sampleRate && silentFrames > sampleRate);
    at += STEP_FRAMES
  ) {
    const playing = at < PLAYED_SECONDS * sampleRate;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      dry.left[i] = playing ? sample(at + i) : 0;
      dry.right[i] = playing ? 0.7 * dry.left[i]! : 0;
    }
    silentFrames = !playing && processor.silent ? silentFrames + STEP_FRAMES : 0;
    processor.process(dry, wet, row);
    const part = Math.floor(at / sampleRate / PART_SECONDS);
    let peak = 0;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const [l, r] = [wet.left[i]!, wet.right[i]!];
      parts[part] = parts[part]! + l * l + r * r;
      sums[part] = sums[part]! + l + r;
      peak = Math.max(peak, Math.abs(l), Math.abs(r));
    }
    counts[part] = counts[part]! + 2 * STEP_FRAMES;
    quietFrames = !playing && peak * peak < INAUDIBLE ? quietFrames + STEP_FRAMES : 0;
    if (silentFrames > STEP_FRAMES) afterSilent = Math.max(afterSilent, peak);
    if (!Number.isFinite(peak))
      return { growthDb: Infinity, offsetDb: Infinity, offsetGrowthDb: Infinity, afterSilentDb: Infinity, toleranceDb };
  }
  const loudest = (from: number): number =>
    loudestSum(parts, Math.round(from / PART_SECONDS), Math.round((from + window) / PART_SECONDS));
  const [before, after] = [loudest(warm), loudest(warm + window)];
  const inaudible = INAUDIBLE * LOUDEST_PARTS * PART_SECONDS * sampleRate;
  const [offsetBefore, offset] = [meanOf(sums, counts, warm, window), meanOf(sums, counts, warm + window, window)];
  return {
    growthDb: after < inaudible ? -Infinity : 10 * Math.log10(after / Math.max(before, inaudible)),
    offsetDb: 20 * Math.log10(offset),
    offsetGrowthDb: 20 * Math.log10(offset / offsetBefore),
    afterSilentDb: 20 * Math.log10(afterSilent),
    toleranceDb,
  };
}

import { shapeAt } from '../dsp/lfo';
import { randomAt } from '../dsp/random';
import { placeByBars } from '../music/grid';
import { metreSpans } from '../music/metre';
import { isInBars, noteBeats } from '../music/noteValue';
import { beatsToSeconds } from '../music/tempo';
import type { ValueContext } from '../params/param';
import { resolveNumber, syncedNote } from '../params/resolve';
import {
  MODULATOR_KINDS,
  MODULATOR_SHAPES,
  modulatorParams,
  RUN_KIND,
  START_FORM,
  type Drift,
  type Lfo,
  type Modulator,
  type Run,
  type Steps,
} from './modulator';

const RANDOM = MODULATOR_SHAPES.indexOf('random');
const DRAWN = MODULATOR_SHAPES.indexOf('drawn');
/** Share of a cycle over which a random value glides to the next, so that it never clicks. */
const RANDOM_GLIDE = 0.02;

/** A modulator prepared for evaluation at any sample. */
export interface ModulatorTrack {
  /** Index in MODULATOR_KINDS. */
  readonly kind: number;
  readonly turnsPerSample: number;
  /** Its rate is a note value: positions are counted in beats. */
  readonly byBeat: boolean;
  /** Its rate is a number of bars: positions are counted in bars. */
  readonly byBar: boolean;
  /** Index in MODULATOR_SHAPES. */
  readonly shape: number;
  readonly form: Float64Array;
  readonly phase: number;
  readonly glide: number;
  readonly steps: Float64Array;
  readonly roll: number;
  readonly chance: number;
  /**
   * Sample at which its single cycle begins, counted as its positions are; -1 if it repeats.
   */
  readonly onceFrom: number;
  /** Index of the channel that a follower measures, or that has the hold of a run; -1 for none. */
  readonly source: number;
  /** Of a run: index of its hold among all effects of that channel; -1 for none. */
  readonly sourceSlot: number;
  /** Time constants of a follower. */
  readonly attackMs: number;
  readonly releaseMs: number;
}

/** What a follower measures, or the hold with which a run begins, as indices of a plan; -1 for none. */
export interface ModulatorSource {
  readonly channel: number;
  readonly slot: number;
}
export const NO_SOURCE: ModulatorSource = { channel: -1, slot: -1 };

const NO_NUMBERS = new Float64Array(0);

/** Prepares a modulator. @param source of a follower or a run */
export function modulatorTrack(
  modulator: Modulator,
  context: ValueContext,
  source: ModulatorSource = NO_SOURCE,
): ModulatorTrack {
  const defaults: ModulatorTrack = {
    kind: MODULATOR_KINDS.indexOf(modulator.kind),
    turnsPerSample: 0,
    byBeat: false,
    byBar: false,
    shape: 0,
    form: NO_NUMBERS,
    phase: 0,
    glide: 0,
    steps: NO_NUMBERS,
    roll: 0,
    chance: 1,
    onceFrom: -1,
    source: -1,
    sourceSlot: -1,
    attackMs: 0,
    releaseMs: 0,
  };
  switch (modulator.kind) {
    case 'lfo':
      return {
        ...defaults,
        ...phaseRate(modulator, context),
        shape: MODULATOR_SHAPES.indexOf(modulator.shape),
        form: Float64Array.from(modulator.form ?? START_FORM),
        phase: modulator.phase,
        onceFrom: onceFromSample(modulator, context),
      };
    case 'steps':
      return {
        ...defaults,
        ...phaseRate(modulator, context),
        glide: modulator.glide,
        steps: Float64Array.from(modulator.steps),
        chance: modulator.chance,
        onceFrom: onceFromSample(modulator, context),
      };
    case 'drift':
      return { ...defaults, ...phaseRate(modulator, context) };
    case 'macro':
      return defaults;
    case 'follower':
      return { ...defaults, source: source.channel, attackMs: modulator.attackMs, releaseMs: modulator.releaseMs };
    case 'run':
      return {
        ...defaults,
        ...phaseRate(modulator, context),
        glide: modulator.glide,
        steps: Float64Array.from(modulator.steps, (value, i) =>
          modulator.on && !modulator.off.includes(i) ? value : 0,
        ),
        chance: modulator.chance,
        onceFrom: modulator.once ? 0 : -1,
        source: source.channel,
        sourceSlot: source.slot,
      };
  }
}

function phaseRate(
  { rate, roll }: Lfo | Steps | Drift | Run,
  context: ValueContext,
): Pick<ModulatorTrack, 'turnsPerSample' | 'byBeat' | 'byBar' | 'roll'> {
  const note = syncedNote(rate);
  const hz = note
    ? 1 / beatsToSeconds(noteBeats(note, context.tempo.beatsPerBar), context.tempo)
    : resolveNumber(modulatorParams.rate, rate, context);
  return {
    turnsPerSample: hz / context.sampleRate,
    byBeat: note !== null,
    byBar: note !== null && isInBars(note),
    roll,
  };
}

function onceFromSample({ onceFrom, rate }: Lfo | Steps, { tempo, sampleRate }: ValueContext): number {
  if (onceFrom === undefined) return -1;
  const note = syncedNote(rate);
  const place = note && isInBars(note) ? placeByBars(onceFrom, metreSpans(tempo), tempo.beatsPerBar) : onceFrom;
  return beatsToSeconds(place, tempo) * sampleRate;
}

/**
 * Output of a modulator, -1 to 1, at a sample of the piece; of a run at a number of samples since its hold began. It
 * depends on the position alone, so that playing from anywhere sounds as from the start. Not for macros and followers.
 */
export function modulatorAt(track: ModulatorTrack, sample: number): number {
  const turns = turnsAt(track, sample);
  if (track.kind === 0)
    return track.shape === RANDOM
      ? randomValueAt(track.roll, turns)
      : track.shape === DRAWN
        ? formAt(track.form, turns)
        : shapeAt(track.shape, turns);
  const step = Math.floor(turns);
  const within = turns - step;
  if (track.kind === 1 || track.kind === RUN_KIND) {
    const { glide } = track;
    const here = stepAt(track, step);
    const isFirst = step === 0 && (track.onceFrom >= 0 || track.kind === RUN_KIND);
    if (within >= glide || isFirst) return here;
    const before = stepAt(track, step - 1);
    return before + (here - before) * (within / glide);
  }
  // Drift: smoothstep between random values, one for each cycle.
  const share = within * within * (3 - 2 * within);
  const from = randomAt(step, track.roll);
  return from + (randomAt(step + 1, track.roll) - from) * share;
}

/** Index of a sequence's step at a sample; of a run at a number of samples since its hold began. */
export function stepIndexAt(track: ModulatorTrack, sample: number): number {
  const count = track.steps.length;
  const step = Math.floor(turnsAt(track, sample));
  return ((step % count) + count) % count;
}

/** A random value for each cycle, held until the next. */
function randomValueAt(roll: number, turns: number): number {
  const turn = Math.floor(turns);
  const here = randomAt(turn, roll);
  const share = (turns - turn) / RANDOM_GLIDE;
  if (share >= 1) return here;
  const before = randomAt(turn - 1, roll);
  return before + (here - before) * share;
}

/** Linear interpolation between the points of a drawn form, from its last point to its first. */
function formAt(form: Float64Array, turns: number): number {
  const at = (turns - Math.floor(turns)) * form.length;
  const index = Math.min(form.length - 1, Math.floor(at));
  const from = form[index]!;
  const to = form[index === form.length - 1 ? 0 : index + 1]!;
  return from + (to - from) * (at - index);
}

/** Most steps to look back for one that was not left out by chance. */
const LONGEST_WAIT = 64;

/** Value at a step: its own, or that of the last step that was not left out by chance. */
function stepAt({ steps, chance, roll }: ModulatorTrack, step: number): number {
  const count = steps.length;
  let at = step;
  for (let waited = 0; chance < 1 && waited < LONGEST_WAIT && 0.5 + 0.5 * randomAt(at, roll) >= chance; waited += 1)
    at -= 1;
  return steps[((at % count) + count) % count]!;
}

/** Cycles up to a sample; of a modulator that runs once, from its beginning on and limited to one. */
function turnsAt({ kind, onceFrom, turnsPerSample, phase, steps }: ModulatorTrack, sample: number): number {
  if (onceFrom < 0 || (kind > 1 && kind !== RUN_KIND)) return sample * turnsPerSample + phase;
  const turns = (sample - onceFrom) * turnsPerSample;
  // Afterwards a sequence keeps its last value, an LFO its initial one.
  const whole = kind === 0 ? 1 : steps.length - 1e-9;
  return (turns < 0 ? 0 : turns > whole ? whole : turns) + phase;
}

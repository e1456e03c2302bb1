import * as z from 'zod';
import { LFO_SHAPES, shapeAt } from '../dsp/lfo';
import { randomAt } from '../dsp/random';
import { noteBeats } from '../music/noteValue';
import { beatsToSeconds } from '../music/tempo';
import { choice, figure, rate, ratio } from '../params/make';
import type { Params, ValueContext } from '../params/param';
import { resolveNumber, syncedNote } from '../params/resolve';
import { paramSchema } from '../params/schema';

/** What every modulator is set by; which of them count depends on its kind. */
export const modulatorParams = {
  rate: rate({
    label: 'Rate',
    group: 'Modulator',
    hint: 'How fast it turns: a whole turn, a step, or a new goal, in Hz or as a note value.',
    initial: '1/2',
  }),
  shape: choice({
    label: 'Shape',
    group: 'Modulator',
    hint: 'The form of one turn.',
    initial: 'sine',
    options: [
      { id: 'sine', label: 'Sine' },
      { id: 'triangle', label: 'Triangle' },
      { id: 'square', label: 'Square' },
      { id: 'fall', label: 'Fall' },
      { id: 'rise', label: 'Rise' },
      { id: 'random', label: 'Random' },
      { id: 'drawn', label: 'Drawn' },
    ],
  }),
  phase: ratio({
    label: 'Phase',
    group: 'Modulator',
    hint: 'How far into its turn it stands at the start of the piece.',
    initial: 0,
  }),
  glide: ratio({
    label: 'Glide',
    group: 'Modulator',
    hint: 'The share of a step in which it comes from the one before.',
    initial: 0.1,
  }),
  chance: ratio({
    label: 'Chance',
    group: 'Modulator',
    hint: 'How likely each step is to come; one that does not come leaves the one before standing.',
    initial: 1,
  }),
  attack: figure({
    label: 'Attack',
    group: 'Modulator',
    hint: 'How quickly it rises when the track gets louder.',
    unit: 'ms',
    min: 0.5,
    max: 2000,
    initial: 10,
    taper: { kind: 'log' },
  }),
  release: figure({
    label: 'Release',
    group: 'Modulator',
    hint: 'How slowly it falls when the track gets quieter.',
    unit: 'ms',
    min: 5,
    max: 5000,
    initial: 250,
    taper: { kind: 'log' },
  }),
} satisfies Params;

/** Those of every LFO, then a value thrown for each turn, and a form drawn by hand. */
export const MODULATOR_SHAPES = [...LFO_SHAPES, 'random', 'drawn'] as const;
const RANDOM = MODULATOR_SHAPES.indexOf('random');
const DRAWN = MODULATOR_SHAPES.indexOf('drawn');
/** A thrown value is reached in this share of a turn, so that it never clicks. */
const RANDOM_GLIDE = 0.02;
/** A drawn form before anything was drawn. */
export const START_FORM: readonly number[] = [0, 0.7, 1, 0.7, 0, -0.3, -1, -0.3];

export const MODULATOR_KINDS = ['lfo', 'steps', 'drift', 'macro', 'follower'] as const;
export const MACRO_KIND = MODULATOR_KINDS.indexOf('macro');
export const FOLLOWER_KIND = MODULATOR_KINDS.indexOf('follower');
export type ModulatorKind = (typeof MODULATOR_KINDS)[number];
export const MAX_STEPS = 64;

const id = z.string().min(1).max(64);

const named = { id, name: z.string().trim().min(1).max(120) };
const rateSchema = paramSchema(modulatorParams.rate) as z.ZodType<number | string>;
/** Chooses among all rows of drawn values there are. */
const rollSchema = z.number().int().min(0).max(0xffffffff);
/** The beat from which it goes through once; again and again when left out. */
const onceFrom = z.number().min(0).optional();

/** One form, turned again and again. */
const lfoSchema = z.strictObject({
  ...named,
  kind: z.literal('lfo'),
  rate: rateSchema,
  shape: z.enum(MODULATOR_SHAPES),
  /** Positions of one turn of a drawn form, -1 to 1, joined by lines. */
  form: z.array(z.number().min(-1).max(1)).min(2).max(MAX_STEPS).optional(),
  phase: z.number().min(0).max(1),
  roll: rollSchema,
  onceFrom,
});

/** A row of values, one a step. */
const stepsSchema = z.strictObject({
  ...named,
  kind: z.literal('steps'),
  rate: rateSchema,
  /** The value at each step, -1 to 1. */
  steps: z.array(z.number().min(-1).max(1)).min(2).max(MAX_STEPS),
  glide: z.number().min(0).max(1),
  /** How likely a step is to come. The same each time it is played. */
  chance: z.number().min(0).max(1),
  roll: rollSchema,
  onceFrom,
});

/** A random walk between values drawn for each turn. */
const driftSchema = z.strictObject({ ...named, kind: z.literal('drift'), rate: rateSchema, roll: rollSchema });

/** A rail that turns all that is linked to it. */
const macroSchema = z.strictObject({
  ...named,
  kind: z.literal('macro'),
  /** Its position, 0-1, when no hand and no lane says otherwise. */
  level: z.number().min(0).max(1),
});

/** An envelope follower of a track's level. */
export const followerSchema = z.strictObject({
  ...named,
  kind: z.literal('follower'),
  /** The track; none before one is chosen. */
  follows: id.optional(),
  attackMs: z.number().min(0.5).max(2000),
  releaseMs: z.number().min(5).max(5000),
});

const schemas = [lfoSchema, stepsSchema, driftSchema, macroSchema, followerSchema] as const;

/** A source of modulation; links tie it to what it turns. */
export const modulatorSchema = z.discriminatedUnion('kind', schemas);

/** Fields of modulators to be changed, of whichever kind. */
export const modulatorChangeSchema = z
  .strictObject({
    ...lfoSchema.shape,
    ...stepsSchema.shape,
    ...macroSchema.shape,
    ...followerSchema.shape,
    kind: z.enum(MODULATOR_KINDS),
  })
  .omit({ id: true })
  .partial();
export type ModulatorChange = z.infer<typeof modulatorChangeSchema>;

export type Modulator = z.infer<typeof modulatorSchema>;
export type Lfo = z.infer<typeof lfoSchema>;
export type Steps = z.infer<typeof stepsSchema>;
export type Drift = z.infer<typeof driftSchema>;
export type Macro = z.infer<typeof macroSchema>;
export type Follower = z.infer<typeof followerSchema>;

/** What a modulator begins with before anything of it was set. */
const START = {
  rate: '1/2',
  shape: 'sine',
  phase: 0,
  roll: 1,
  steps: [1, -0.2, 0.4, -0.6, 0.8, 0, 0.4, -1],
  glide: 0.2,
  chance: 1,
  level: 0,
  attackMs: 10,
  releaseMs: 250,
} as const;

/**
 * A modulator of a kind.
 * @param fields what is to be other than at the start; fields that the kind has not are left out
 */
export function makeModulator(kind: ModulatorKind, fields: ModulatorChange & { readonly id: string }): Modulator {
  const { shape } = schemas.find((schema) => schema.shape.kind.value === kind)!;
  const all = { ...START, ...fields, kind };
  return modulatorSchema.parse(
    Object.fromEntries(Object.entries(all).filter(([field]) => Object.hasOwn(shape, field))),
  );
}

/** A modulator made ready to be read at any sample. */
export interface ModulatorTrack {
  /** Index in MODULATOR_KINDS. */
  readonly kind: number;
  readonly turnsPerSample: number;
  /** It turns by note values, so it is asked for places by the beat. */
  readonly byBeat: boolean;
  /** Index in MODULATOR_SHAPES. */
  readonly shape: number;
  readonly form: Float64Array;
  readonly phase: number;
  readonly glide: number;
  readonly steps: Float64Array;
  readonly roll: number;
  readonly chance: number;
  /**
   * Sample from which it goes through once, by the same count as the places it is asked for; -1 for again and again.
   */
  readonly onceFrom: number;
  /** Of a follower: index of the channel it hears, -1 for none, and its time constants. */
  readonly source: number;
  readonly attackMs: number;
  readonly releaseMs: number;
}

const NO_NUMBERS = new Float64Array(0);

/** @param source index of the channel that a follower hears */
export function modulatorTrack(modulator: Modulator, context: ValueContext, source = -1): ModulatorTrack {
  const still: ModulatorTrack = {
    kind: MODULATOR_KINDS.indexOf(modulator.kind),
    turnsPerSample: 0,
    byBeat: false,
    shape: 0,
    form: NO_NUMBERS,
    phase: 0,
    glide: 0,
    steps: NO_NUMBERS,
    roll: 0,
    chance: 1,
    onceFrom: -1,
    source: -1,
    attackMs: START.attackMs,
    releaseMs: START.releaseMs,
  };
  switch (modulator.kind) {
    case 'lfo':
      return {
        ...still,
        ...turning(modulator, context),
        shape: MODULATOR_SHAPES.indexOf(modulator.shape),
        form: Float64Array.from(modulator.form ?? START_FORM),
        phase: modulator.phase,
        onceFrom: onceFromSample(modulator, context),
      };
    case 'steps':
      return {
        ...still,
        ...turning(modulator, context),
        glide: modulator.glide,
        steps: Float64Array.from(modulator.steps),
        chance: modulator.chance,
        onceFrom: onceFromSample(modulator, context),
      };
    case 'drift':
      return { ...still, ...turning(modulator, context) };
    case 'macro':
      return still;
    case 'follower':
      return { ...still, source, attackMs: modulator.attackMs, releaseMs: modulator.releaseMs };
  }
}

function turning(
  { rate, roll }: Lfo | Steps | Drift,
  context: ValueContext,
): Pick<ModulatorTrack, 'turnsPerSample' | 'byBeat' | 'roll'> {
  const note = syncedNote(rate);
  const hz = note
    ? 1 / beatsToSeconds(noteBeats(note, context.tempo.beatsPerBar), context.tempo)
    : resolveNumber(modulatorParams.rate, rate, context);
  return { turnsPerSample: hz / context.sampleRate, byBeat: note !== null, roll };
}

const onceFromSample = ({ onceFrom }: Lfo | Steps, { tempo, sampleRate }: ValueContext): number =>
  onceFrom === undefined ? -1 : beatsToSeconds(onceFrom, tempo) * sampleRate;

/**
 * Where it stands, -1 to 1, at a sample of the piece: of the place alone, so that playing from anywhere sounds as from
 * the start. A macro stands where hand and lane put it; for it this is not asked.
 */
export function modulatorAt(track: ModulatorTrack, sample: number): number {
  const turns = turnsAt(track, sample);
  if (track.kind === 0)
    return track.shape === RANDOM
      ? thrownAt(track.roll, turns)
      : track.shape === DRAWN
        ? formAt(track.form, turns)
        : shapeAt(track.shape, turns);
  const step = Math.floor(turns);
  const within = turns - step;
  if (track.kind === 1) {
    const { glide } = track;
    const here = stepAt(track, step);
    if (within >= glide || (track.onceFrom >= 0 && step === 0)) return here;
    const before = stepAt(track, step - 1);
    return before + (here - before) * (within / glide);
  }
  // Smooth between goals drawn for each whole turn.
  const share = within * within * (3 - 2 * within);
  const from = randomAt(step, track.roll);
  return from + (randomAt(step + 1, track.roll) - from) * share;
}

/** A value for each turn, held through it. */
function thrownAt(roll: number, turns: number): number {
  const turn = Math.floor(turns);
  const here = randomAt(turn, roll);
  const share = (turns - turn) / RANDOM_GLIDE;
  if (share >= 1) return here;
  const before = randomAt(turn - 1, roll);
  return before + (here - before) * share;
}

/** Along the lines of a drawn form, from its last place to its first again. */
function formAt(form: Float64Array, turns: number): number {
  const at = (turns - Math.floor(turns)) * form.length;
  const index = Math.min(form.length - 1, Math.floor(at));
  const from = form[index]!;
  const to = form[index === form.length - 1 ? 0 : index + 1]!;
  return from + (to - from) * (at - index);
}

/** Steps are looked back for no further than this. */
const LONGEST_WAIT = 64;

/** What stands at a step: its own value, or that of the last one that came. */
function stepAt({ steps, chance, roll }: ModulatorTrack, step: number): number {
  const count = steps.length;
  let at = step;
  for (let waited = 0; chance < 1 && waited < LONGEST_WAIT && 0.5 + 0.5 * randomAt(at, roll) >= chance; waited += 1)
    at -= 1;
  return steps[((at % count) + count) % count]!;
}

/** How often it has turned; of one that goes through once, from where that begins, and no more than once. */
function turnsAt({ kind, onceFrom, turnsPerSample, phase, steps }: ModulatorTrack, sample: number): number {
  if (onceFrom < 0 || kind > 1) return sample * turnsPerSample + phase;
  const turns = (sample - onceFrom) * turnsPerSample;
  // Steps stand at their last in the end, an LFO where it began.
  const whole = kind === 1 ? steps.length - 1e-9 : 1;
  return (turns < 0 ? 0 : turns > whole ? whole : turns) + phase;
}

/** By what curve a link follows its modulator. */
export const CURVE = figure({
  label: 'Curve',
  group: 'Link',
  hint: 'Above 0 it goes far at once and then little; below 0 it waits for the last of the way.',
  unit: 'ratio',
  min: -1,
  max: 1,
  initial: 0,
  notches: [0],
});

/** Share of the rail by which a link turns to either side. */
export const DEPTH = figure({
  label: 'Depth',
  group: 'Link',
  hint: 'How far it turns the parameter, from where its rail stands: to both sides, or by a macro to one; below zero the other way round.',
  unit: 'ratio',
  min: -1,
  max: 1,
  initial: 0.2,
  notches: [0],
});

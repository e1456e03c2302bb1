import * as z from 'zod';
import { LFO_SHAPES } from '../dsp/lfo';
import { choice, figure, rate, ratio } from '../params/make';
import type { Params } from '../params/param';
import { paramSchema } from '../params/schema';

/** Parameters of modulators; which of them apply depends on the kind. */
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
    hint: 'The form of one turn: round, straight, leaning to one side, or in jumps.',
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
    hint: 'The share of a step in which it comes from the one before: none jumps, all glides.',
    initial: 0.1,
  }),
  chance: ratio({
    label: 'Chance',
    group: 'Modulator',
    hint: 'How likely each step is to come; one that does not come leaves the one before standing.',
    initial: 1,
  }),
  roll: figure({
    label: 'Roll',
    group: 'Modulator',
    hint: 'The number by which steps come or stay away: the same number is the same row again.',
    unit: 'count',
    min: 0,
    max: 999,
    initial: 1,
    smoothingSeconds: 0,
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

/** The shapes of LFOs, then a random value for each cycle, and a form drawn by hand. */
export const MODULATOR_SHAPES = [...LFO_SHAPES, 'random', 'drawn'] as const;
/** A drawn form before anything was drawn. */
export const START_FORM: readonly number[] = [0, 0.7, 1, 0.7, 0, -0.3, -1, -0.3];

export const MODULATOR_KINDS = ['lfo', 'steps', 'drift', 'macro', 'follower', 'run'] as const;
export const MACRO_KIND = MODULATOR_KINDS.indexOf('macro');
export const FOLLOWER_KIND = MODULATOR_KINDS.indexOf('follower');
export const RUN_KIND = MODULATOR_KINDS.indexOf('run');
export type ModulatorKind = (typeof MODULATOR_KINDS)[number];
export const MAX_STEPS = 64;
export const MAX_RUN_STEPS = 32;

const id = z.string().min(1).max(64);

const named = { id, name: z.string().trim().min(1).max(120) };
const rateSchema = paramSchema(modulatorParams.rate) as z.ZodType<number | string>;
/** Selects the sequence of random values. */
const rollSchema = z.number().int().min(0).max(0xffffffff);
/** The beat from which it runs once; it repeats when left out. */
const onceFrom = z.number().min(0).optional();

/** A waveform that repeats. */
const lfoSchema = z.strictObject({
  ...named,
  kind: z.literal('lfo'),
  rate: rateSchema,
  shape: z.enum(MODULATOR_SHAPES),
  /** Points of one cycle of a drawn form, -1 to 1, joined by lines. */
  form: z.array(z.number().min(-1).max(1)).min(2).max(MAX_STEPS).optional(),
  phase: z.number().min(0).max(1),
  roll: rollSchema,
  onceFrom,
});

/** A sequence of values, one per step. */
const stepsSchema = z.strictObject({
  ...named,
  kind: z.literal('steps'),
  rate: rateSchema,
  /** The value at each step, -1 to 1. */
  steps: z.array(z.number().min(-1).max(1)).min(2).max(MAX_STEPS),
  glide: z.number().min(0).max(1),
  /** Probability of a step. The result is the same each time it is played. */
  chance: z.number().min(0).max(1),
  roll: rollSchema,
  onceFrom,
});

/** Interpolates between a random value for each cycle. */
const driftSchema = z.strictObject({ ...named, kind: z.literal('drift'), rate: rateSchema, roll: rollSchema });

/** A rail that moves all parameters linked to it. */
const macroSchema = z.strictObject({
  ...named,
  kind: z.literal('macro'),
  /** Its position, 0-1, where neither a hand nor a lane sets it. */
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

/** A sequence of values that starts whenever a hold starts. */
const runSchema = z.strictObject({
  ...named,
  kind: z.literal('run'),
  /** The id of the hold; none before one is chosen. */
  hold: id.optional(),
  /** Switched off, its targets keep their own values. */
  on: z.boolean(),
  rate: rateSchema,
  /** The value at each step, -1 to 1. */
  steps: z.array(z.number().min(-1).max(1)).min(1).max(MAX_RUN_STEPS),
  /** Indices of steps that are switched off: there its targets keep their own values. */
  off: z
    .array(
      z
        .number()
        .int()
        .min(0)
        .max(MAX_RUN_STEPS - 1),
    )
    .max(MAX_RUN_STEPS),
  glide: z.number().min(0).max(1),
  chance: z.number().min(0).max(1),
  roll: rollSchema,
  /** Runs once and stays at its last step; else it repeats. */
  once: z.boolean(),
  /** Shares number and length of steps with the other runs of its hold that do so; has its own when left out. */
  sharesLength: z.boolean().optional(),
});

const schemas = [lfoSchema, stepsSchema, driftSchema, macroSchema, followerSchema, runSchema] as const;

/** A source of modulation; links connect it to parameters. */
export const modulatorSchema = z.discriminatedUnion('kind', schemas);

/** Fields of modulators to be changed, of whichever kind. */
export const modulatorChangeSchema = z
  .strictObject({
    ...lfoSchema.shape,
    ...stepsSchema.shape,
    ...macroSchema.shape,
    ...followerSchema.shape,
    ...runSchema.shape,
    // A run may have fewer steps than a sequence: the limit depends on the kind.
    steps: stepsSchema.shape.steps.or(runSchema.shape.steps),
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
export type Run = z.infer<typeof runSchema>;

/** Initial values of a modulator. */
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
  on: true,
  off: [],
  once: false,
} as const;

/**
 * A modulator of a kind.
 * @param fields values other than the initial ones; fields that the kind does not have are ignored
 */
export function makeModulator(kind: ModulatorKind, fields: ModulatorChange & { readonly id: string }): Modulator {
  const { shape } = schemas.find((schema) => schema.shape.kind.value === kind)!;
  const given = { ...START, ...fields, kind };
  const all = { ...given, steps: stepsFor(kind, given.steps) };
  return modulatorSchema.parse(
    Object.fromEntries(Object.entries(all).filter(([field]) => Object.hasOwn(shape, field))),
  );
}

/** Limits of the number of steps: a run may have a single one, a sequence has at least two. */
function stepsFor(kind: ModulatorKind, steps: readonly number[]): readonly number[] {
  if (kind === 'run') return steps.slice(0, MAX_RUN_STEPS);
  return steps.length === 1 ? [steps[0]!, steps[0]!] : steps;
}

/** Curve by which a link follows its modulator. */
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

/** Depth of a link: share of the rail to either side. */
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

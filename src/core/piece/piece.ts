import * as z from 'zod';
import { MAX_STRANDS } from '../effects/braid/params';
import { findEffect } from '../effects/catalogue';
import { MAX_BPM, MIN_BPM } from '../music/tempo';
import { modulatorSchema } from '../automation/modulator';
import { pointSchema } from '../automation/point';
import { figure, gain, ratio, toggle } from '../params/make';
import type { Params } from '../params/param';
import { paramsSchema } from '../params/schema';
import { boundedList } from './boundedList';
import { hashSchema as hash, idSchema as id, nameSchema as name } from './fields';
import { fieldSchema, MAX_FIELDS } from './playField';
import { soundSchema } from './soundInfo';
import { targetSchema } from './target';

export { targetSchema, type EffectTarget, type SendTarget, type Target } from './target';

/** Parameters of every track and of the main output. */
export const channelParams = {
  gain: gain({ label: 'Level', group: 'Channel', hint: 'Level of this channel in the piece.', initial: 1 }),
  pan: figure({
    label: 'Pan',
    group: 'Channel',
    hint: 'Where this channel is heard between left and right.',
    unit: 'pan',
    min: -1,
    max: 1,
    initial: 0,
    notches: [0],
  }),
  mute: toggle({
    label: 'Mute',
    group: 'Channel',
    hint: 'Nothing of this channel is heard, and nothing goes to returns.',
    initial: false,
  }),
} satisfies Params;

export const MAIN = 'main';

/** The level of a send as a parameter. */
export const SEND_LEVEL = gain({
  label: 'Send',
  group: 'Sends',
  hint: 'How much of this channel goes to the return: more is more of its echo or space.',
  initial: 0,
});

/** The level of a macro as a parameter. */
export const MACRO_LEVEL = ratio({
  label: 'Macro',
  group: 'Macros',
  hint: 'Turns all that is linked to it at once, each over its own range.',
});

/** The switch of an effect as a parameter of it, beside those that its kind has. */
export const ON_PARAM = 'on';
export const EFFECT_ON = toggle({
  label: 'On',
  group: 'Effect',
  hint: 'Off lets the sound pass as it is; what rings rings out.',
  initial: true,
});

/** The tempo as a parameter: its moves change the time of the whole piece. */
export const TEMPO = figure({
  label: 'Tempo',
  group: 'Piece',
  hint: 'How fast the piece goes: note values, lanes and clips follow.',
  unit: 'bpm',
  min: MIN_BPM,
  max: MAX_BPM,
  initial: 100,
});

/** An effect of a chain. */
export interface Slot {
  id: string;
  effect: string;
  /** The preset it started from; null for none. */
  preset: string | null;
  on: boolean;
  values: Record<string, number | string | boolean>;
  /** The sound it works with, such as an impulse. */
  sound?: string | undefined;
  /** The track of its sidechain, if it has one. */
  side?: string | undefined;
  /** Effects on its wet sound alone. */
  wetPath?: Slot[] | undefined;
  /** The strands of a braid. */
  strands?: Strand[] | undefined;
}

/** A strand of a braid: its position tells which of the braid's parameters are its own. */
export interface Strand {
  place: number;
  name: string;
  chain: Slot[];
}

const chainSchema = z.lazy(() => z.array(effectSchema).max(32));

const strandSchema: z.ZodType<Strand> = z.strictObject({
  place: z.number().int().min(1).max(MAX_STRANDS),
  name,
  chain: chainSchema,
});

export const effectSchema: z.ZodType<Slot> = z
  .strictObject({
    id,
    effect: z.string(),
    preset: z.string().nullable(),
    on: z.boolean(),
    values: z.record(z.string(), z.union([z.number(), z.string(), z.boolean()])),
    sound: hash.optional(),
    side: id.optional(),
    wetPath: chainSchema.optional(),
    strands: z.array(strandSchema).max(MAX_STRANDS).optional(),
  })
  .superRefine((slot, context) => {
    const definition = findEffect(slot.effect);
    if (!definition) {
      context.addIssue({ code: 'custom', message: `unknown effect "${slot.effect}"`, path: ['effect'] });
      return;
    }
    const result = paramsSchema(definition.params).safeParse(slot.values);
    for (const issue of result.error?.issues ?? [])
      context.addIssue({ code: 'custom', message: issue.message, path: ['values', ...issue.path] });
  });

/** Curve of a fade: linear, equal power, or a smoothstep. */
export const FADE_SHAPES = ['line', 'power', 'soft'] as const;

/** One treatment of a clip's sound, done beforehand: it costs nothing while playing. */
export const stepSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('stretch'),
    id,
    on: z.boolean(),
    /** New length over old. */
    times: z.number().min(0.25).max(4),
    semitones: z.number().min(-24).max(24),
    /** False lets the pitch follow the length, as with tape. */
    keepPitch: z.boolean(),
    formants: z.enum(['keep', 'follow']),
    formantSemitones: z.number().min(-12).max(12),
  }),
  z.strictObject({
    kind: z.literal('chain'),
    id,
    on: z.boolean(),
    name,
    chain: chainSchema,
    /** Whether its tail is kept. */
    rings: z.boolean(),
  }),
]);
export type TreatStep = z.infer<typeof stepSchema>;

/** The source of a treated clip, and its steps: the source itself is never altered. */
export const treatedSchema = z.strictObject({
  sound: hash,
  offsetSeconds: z.number().min(0),
  lengthSeconds: z.number().positive(),
  /** Length of the part after the steps, without the tail. */
  bodySeconds: z.number().positive(),
  steps: z.array(stepSchema).min(1).max(32),
});

export const clipSchema = z.strictObject({
  id,
  name,
  sound: hash,
  /** Position in beats. */
  start: z.number().min(0),
  /** Where in the sound it begins, and how much of it is heard, in seconds. */
  offsetSeconds: z.number().min(0),
  lengthSeconds: z.number().positive(),
  gain: z.number().min(0).max(8),
  fadeInSeconds: z.number().min(0),
  fadeOutSeconds: z.number().min(0),
  /** Linear when left out. */
  fadeInShape: z.enum(FADE_SHAPES).optional(),
  fadeOutShape: z.enum(FADE_SHAPES).optional(),
  /** Its part of the sound is heard from the end to the beginning. */
  reversed: z.boolean().optional(),
  mute: z.boolean().optional(),
  treated: treatedSchema.optional(),
  /** The print it was placed from, drawn in plum. */
  print: id.nullable(),
});

/** A channel's send to a return. */
export const sendSchema = z.strictObject({
  to: id,
  level: z.number().min(0).max(2),
  /** Taken before or after the channel's own level and pan. */
  pre: z.boolean(),
});

export const MAX_KEPT = 8;

/** Stored chains of a channel, to be compared with its present one. */
const storedVariantsSchema = z.array(z.strictObject({ id, name, chain: chainSchema })).max(MAX_KEPT);

/** Common fields of tracks and returns. */
const channelShape = {
  id,
  name,
  gain: z.number().min(0).max(2),
  pan: z.number().min(-1).max(1),
  mute: z.boolean(),
  solo: z.boolean(),
  chain: chainSchema,
  sends: z.array(sendSchema).max(64),
  kept: storedVariantsSchema.optional(),
};

export const returnSchema = z.strictObject(channelShape);

export const trackSchema = z.strictObject({ ...channelShape, clips: boundedList(clipSchema, 2000) });

export const laneSchema = z.strictObject({
  id,
  target: targetSchema,
  /** `beats` for a time that follows the tempo, else the parameter's own unit. */
  unit: z.enum(['own', 'beats']),
  on: z.boolean(),
  points: boundedList(pointSchema, 100_000, 1),
  /** Whether points travel with the clips above them; else they belong to the track and stay. */
  travels: z.boolean().optional(),
});

/** Links a modulator to a parameter, which it moves to both sides of its lane or base value. */
export const linkSchema = z.strictObject({
  id,
  modulator: id,
  target: targetSchema,
  /** Depth as a share of the rail to either side; negative inverts. */
  depth: z.number().min(-1).max(1),
  /** -1 to 1: above 0 most of the offset comes early, below 0 late; linear when left out. */
  curve: z.number().min(-1).max(1).optional(),
  /** The range of the rail that it keeps the parameter within; the whole rail when left out. */
  range: z.strictObject({ low: z.number().min(0).max(1), high: z.number().min(0).max(1) }).optional(),
  /** Ranges in beats over which it is inactive: there it was converted to moves. */
  rests: z
    .array(z.strictObject({ start: z.number().min(0), end: z.number().positive() }))
    .max(200)
    .optional(),
});

/** A mapping of a controller's control to a parameter. */
export const controlSchema = z.strictObject({
  id,
  /** Number of its control-change messages, and their channel, from 0. */
  number: z.number().int().min(0).max(127),
  midiChannel: z.number().int().min(0).max(15),
  target: targetSchema,
});

export const MAX_CONTROLS = 256;

/** The values of a channel, or of all of the piece, at a moment. */
export const snapshotSchema = z.strictObject({
  id,
  name,
  /** Null for all of the piece. */
  channel: id.nullable(),
  values: boundedList(
    z.strictObject({ target: targetSchema, value: z.union([z.number(), z.string(), z.boolean()]) }),
    20_000,
  ),
});

export const MAX_SNAPSHOTS = 64;

/** A metre: length of a bar, and the note by which it is counted. */
export const metreSchema = z.strictObject({
  /** In quarter notes. */
  beatsPerBar: z.number().min(1).max(16),
  unit: z.union([z.literal(2), z.literal(4), z.literal(8), z.literal(16)]),
});

/** The beginning of a section of the piece. */
export const sectionSchema = z.strictObject({
  id,
  name,
  beat: z.number().min(0),
  /** The metre from here on; that of what comes before when left out. */
  metre: metreSchema.optional(),
});

export const soundInfoSchema = z.record(hash, soundSchema);

/** What is printed: a clip, a range of a track or only some hits of it, a return, or everything (the main output). */
export const printOrderSchema = z.strictObject({
  channel: id,
  clip: id.nullable(),
  fromBeat: z.number().min(0),
  toBeat: z.number().min(0),
  /** `mix` has dry and wet sound, `wet` and `dry` only one of them. */
  part: z.enum(['mix', 'wet', 'dry']),
  /** Bars of tail, or until silent when null. */
  tailBars: z.number().min(0).nullable(),
  /** The tail ends here instead: at the next hit. */
  untilBeat: z.number().min(0).optional(),
  /** Only the sound within these ranges is used. */
  hits: boundedList(z.strictObject({ from: z.number().min(0), to: z.number().positive() }), 2000).optional(),
  /** Only these effects of the channel are used; those that are on when left out. */
  effects: z.array(id).max(32).optional(),
  /**
   * Where it is placed beside the Shelf: at its source on a track for prints, or there instead of its clip, which is
   * muted.
   */
  goes: z.enum(['track', 'instead']).optional(),
});
export type PrintOrder = z.infer<typeof printOrderSchema>;

export const printSchema = z.strictObject({
  id,
  name,
  sound: hash,
  /** First sample of the print in the piece, at `sampleRate`. */
  startSample: z.number().int().min(0),
  sampleRate: z.number().int().positive(),
  madeAt: z.string(),
  from: z.strictObject({
    channel: id,
    channelName: z.string(),
    clip: id.nullable(),
    fromBeat: z.number(),
    toBeat: z.number(),
    part: z.enum(['mix', 'wet', 'dry']),
    tail: z.string(),
    bpm: z.number(),
    /** The order, so that it can be rendered again; old prints have none. */
    order: printOrderSchema.optional(),
  }),
});

export const pieceSchema = z.strictObject({
  version: z.literal(7),
  id,
  name,
  /** Sample rate for playing, printing and rendering. */
  sampleRate: z.number().int().min(44_100).max(96_000),
  tempo: z.strictObject({
    bpm: z.number().min(MIN_BPM).max(MAX_BPM),
    beatsPerBar: metreSchema.shape.beatsPerBar,
    unit: metreSchema.shape.unit.optional(),
  }),
  lengthBeats: z.number().positive().max(100_000),
  loop: z.strictObject({ on: z.boolean(), start: z.number().min(0), end: z.number().positive() }),
  tracks: boundedList(trackSchema, 200),
  returns: boundedList(returnSchema, 32),
  main: z.strictObject({ gain: z.number().min(0).max(2), chain: chainSchema, kept: storedVariantsSchema.optional() }),
  lanes: boundedList(laneSchema, 2000),
  modulators: boundedList(modulatorSchema, 256),
  links: boundedList(linkSchema, 2000),
  snapshots: boundedList(snapshotSchema, MAX_SNAPSHOTS),
  controls: boundedList(controlSchema, MAX_CONTROLS).optional(),
  sections: boundedList(sectionSchema, 200).optional(),
  fields: boundedList(fieldSchema, MAX_FIELDS).optional(),
  sounds: soundInfoSchema,
  prints: boundedList(printSchema, 5000),
});

export type Piece = z.infer<typeof pieceSchema>;
export type Track = z.infer<typeof trackSchema>;
export type StoredVariant = z.infer<typeof storedVariantsSchema>[number];
export type Return = z.infer<typeof returnSchema>;
export type Send = z.infer<typeof sendSchema>;
export type Clip = z.infer<typeof clipSchema>;
export type Treated = z.infer<typeof treatedSchema>;
export type Lane = z.infer<typeof laneSchema>;
export type Link = z.infer<typeof linkSchema>;
export type Control = z.infer<typeof controlSchema>;
export type Snapshot = z.infer<typeof snapshotSchema>;
export type Section = z.infer<typeof sectionSchema>;
export type Print = z.infer<typeof printSchema>;

/** A track at full level in the middle, without clips and effects unless `more` has some. */
export const newTrack = (id: string, name: string, more: Partial<Track> = {}): Track => ({
  id,
  name,
  gain: 1,
  pan: 0,
  mute: false,
  solo: false,
  clips: [],
  chain: [],
  sends: [],
  ...more,
});

/** A return at full level in the middle, without effects unless it is given some. */
export const newReturn = (id: string, name: string, chain: readonly Slot[] = []): Return => ({
  id,
  name,
  gain: 1,
  pan: 0,
  mute: false,
  solo: false,
  chain: [...chain],
  sends: [],
});

export function emptyPiece(pieceId: string, pieceName: string): Piece {
  return {
    version: 7,
    id: pieceId,
    name: pieceName,
    sampleRate: 48_000,
    tempo: { bpm: 100, beatsPerBar: 4 },
    lengthBeats: 64,
    loop: { on: false, start: 0, end: 16 },
    tracks: [],
    returns: [],
    main: { gain: 1, chain: [] },
    lanes: [],
    modulators: [],
    links: [],
    snapshots: [],
    sounds: {},
    prints: [],
  };
}

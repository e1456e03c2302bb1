import type { Draft } from 'immer';
import * as z from 'zod';
import { soundSeconds } from '../clipEdges';
import { defineEdit, EditRefused } from '../edit';
import { findClip } from '../find';
import { soundInfoSchema, stepSchema, type Clip, type Piece, type TreatStep } from '../piece';
import { makeRoom } from './channels';

const SLACK_SECONDS = 0.001;

/** A part of a sound that clips are made of. */
export interface SourcePart {
  readonly sound: string;
  readonly offsetSeconds: number;
  readonly lengthSeconds: number;
}

/** The source of a clip's steps: its sound before any. */
export const sourceOf = (clip: Clip): SourcePart =>
  clip.treated
    ? {
        sound: clip.treated.sound,
        offsetSeconds: clip.treated.offsetSeconds,
        lengthSeconds: clip.treated.lengthSeconds,
      }
    : { sound: clip.sound, offsetSeconds: clip.offsetSeconds, lengthSeconds: clip.lengthSeconds };

/** The whole sound of a clip, so that its edges can be extended after treatment. */
export const wholeSourceOf = (piece: Piece, clip: Clip): SourcePart => {
  const { sound } = sourceOf(clip);
  return { sound, offsetSeconds: 0, lengthSeconds: soundSeconds(piece, { sound }) };
};

/** Clips that play a sound, treated or not. */
export const clipsOfSound = (piece: Piece, sound: string): Clip[] =>
  piece.tracks.flatMap(({ clips }) => clips.filter((clip) => sourceOf(clip).sound === sound));

/** Describes steps in one line. */
export const sayStep = (step: TreatStep): string => {
  if (step.kind === 'chain') return step.name;
  const parts = [
    step.times === 1 ? '' : `${Number((100 * step.times).toFixed(1))} % long`,
    step.keepPitch && step.semitones !== 0
      ? `${step.semitones > 0 ? '+' : '\u2212'}${Math.abs(step.semitones)} st`
      : '',
    step.keepPitch ? '' : 'as tape',
  ];
  return parts.filter(Boolean).join(', ') || 'pitch and length';
};

/**
 * Sets the sounds of clips to the results of their steps; without steps, to the sources. What was trimmed stays
 * trimmed. `part` is a larger range of the source that was treated: the clip plays the same range, and can be extended.
 */
export const treatClips = defineEdit({
  name: 'treatClips',
  args: z.strictObject({
    steps: z.array(stepSchema).max(32),
    made: z
      .array(
        z.strictObject({
          clip: z.string(),
          sound: z.string(),
          bodySeconds: z.number().positive(),
          part: z.strictObject({ offsetSeconds: z.number().min(0), lengthSeconds: z.number().positive() }).optional(),
        }),
      )
      .min(1)
      .max(2000),
    sounds: soundInfoSchema,
  }),
  label: ({ steps, made }, before) => {
    const who = made.length === 1 ? (findClip(before, made[0]!.clip)?.clip.name ?? 'clip') : `${made.length} clips`;
    const on = steps.filter((step) => step.on);
    return on.length === 0 ? `Take all steps off ${who}` : `Treat ${who}: ${on.map(sayStep).join(', ')}`;
  },
  apply: (draft, { steps, made, sounds }) => {
    Object.assign(draft.sounds, sounds);
    for (const { clip: id, sound, bodySeconds, part } of made) {
      const clip = draft.tracks.flatMap(({ clips }) => clips).find((candidate) => candidate.id === id);
      if (!clip) throw new EditRefused('That clip is no longer in the piece.');
      if (!draft.sounds[sound]) throw new EditRefused('The treated sound is not in the piece.');
      setTreated(draft, clip, steps, { ...sourceOf(clip as Clip), ...part }, sound, bodySeconds);
      makeRoom(draft, [clip as Clip]);
    }
  },
});

function setTreated(
  draft: Draft<Piece>,
  clip: Draft<Clip>,
  steps: readonly TreatStep[],
  part: SourcePart,
  sound: string,
  bodySeconds: number,
): void {
  const source = sourceOf(clip as Clip);
  const restored = steps.length === 0;
  const before = clip.treated
    ? { body: clip.treated.bodySeconds, whole: soundSeconds(draft as Piece, clip), offset: clip.offsetSeconds }
    : { body: clip.lengthSeconds, whole: clip.lengthSeconds, offset: 0 };
  // Seconds of the source for one of the clip, as it was and as it will be.
  const times = source.lengthSeconds / before.body;
  const pace = (restored ? source.lengthSeconds : bodySeconds) / part.lengthSeconds;
  const whole = restored ? source.lengthSeconds : soundSeconds(draft as Piece, { sound });
  const begin = source.offsetSeconds + before.offset * times - part.offsetSeconds;
  const offset = Math.min(begin * pace, Math.max(0, whole - SLACK_SECONDS));
  const goesOn = part.offsetSeconds + part.lengthSeconds > source.offsetSeconds + source.lengthSeconds + SLACK_SECONDS;
  // In a larger part the sound that follows replaces the former tail.
  const heard = goesOn ? Math.min(clip.lengthSeconds, before.body - before.offset) : clip.lengthSeconds;
  const toEnd = !goesOn && before.offset + clip.lengthSeconds >= before.whole - SLACK_SECONDS;
  clip.lengthSeconds = toEnd ? whole - offset : Math.min(heard * times * pace, whole - offset);
  clip.offsetSeconds = restored ? source.offsetSeconds + offset : offset;
  clip.sound = restored ? source.sound : sound;
  clip.fadeInSeconds = Math.min(clip.fadeInSeconds, clip.lengthSeconds);
  clip.fadeOutSeconds = Math.min(clip.fadeOutSeconds, clip.lengthSeconds - clip.fadeInSeconds);
  if (restored) delete clip.treated;
  else clip.treated = { ...part, bodySeconds, steps: [...steps] };
}

/** Maximum fade of a clip that is cut short. */
const END_FADE_SECONDS = 0.5;

/** Cuts clips that a treatment has made longer after a number of seconds, with a fade-out. */
export const endFaded = defineEdit({
  name: 'endFaded',
  args: z.strictObject({
    ends: z
      .array(z.strictObject({ clip: z.string(), lengthSeconds: z.number().positive() }))
      .min(1)
      .max(2000),
  }),
  label: ({ ends }, before) => {
    const who = ends.length === 1 ? (findClip(before, ends[0]!.clip)?.clip.name ?? 'clip') : `${ends.length} clips`;
    return `Fade ${who} where it ended before`;
  },
  apply: (draft, { ends }) => {
    for (const { clip: id, lengthSeconds } of ends) {
      const clip = draft.tracks.flatMap(({ clips }) => clips).find((candidate) => candidate.id === id);
      if (!clip) throw new EditRefused('That clip is no longer in the piece.');
      clip.lengthSeconds = Math.min(clip.lengthSeconds, lengthSeconds);
      clip.fadeInSeconds = Math.min(clip.fadeInSeconds, clip.lengthSeconds / 2);
      clip.fadeOutSeconds = Math.min(END_FADE_SECONDS, clip.lengthSeconds / 2);
    }
  },
});

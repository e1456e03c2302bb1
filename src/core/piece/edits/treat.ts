import type { Draft } from 'immer';
import * as z from 'zod';
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

/** What the steps of a clip begin with: its sound as it was before any. */
export const sourceOf = (clip: Clip): SourcePart =>
  clip.treated ? { sound: clip.treated.sound, offsetSeconds: clip.treated.offsetSeconds, lengthSeconds: clip.treated.lengthSeconds } : { sound: clip.sound, offsetSeconds: clip.offsetSeconds, lengthSeconds: clip.lengthSeconds };

/** Clips that play a sound, as it is or treated. */
export const clipsOfSound = (piece: Piece, sound: string): Clip[] => piece.tracks.flatMap(({ clips }) => clips.filter((clip) => sourceOf(clip).sound === sound));

/** Steps as a line of words. */
export const sayStep = (step: TreatStep): string => {
  if (step.kind === 'chain') return step.name;
  const parts = [
    step.times === 1 ? '' : `${Number((100 * step.times).toFixed(1))} % long`,
    step.keepPitch && step.semitones !== 0 ? `${step.semitones > 0 ? '+' : '\u2212'}${Math.abs(step.semitones)} st` : '',
    step.keepPitch ? '' : 'as tape',
  ];
  return parts.filter(Boolean).join(', ') || 'pitch and length';
};

/** Gives clips the sounds that their steps make of their sources; no steps give the sources back. What was trimmed stays trimmed. */
export const treatClips = defineEdit({
  name: 'treatClips',
  args: z.strictObject({
    steps: z.array(stepSchema).max(32),
    made: z.array(z.strictObject({ clip: z.string(), sound: z.string(), bodySeconds: z.number().positive() })).min(1).max(2000),
    sounds: soundInfoSchema,
  }),
  label: ({ steps, made }, before) => {
    const who = made.length === 1 ? (findClip(before, made[0]!.clip)?.clip.name ?? 'clip') : `${made.length} clips`;
    const on = steps.filter((step) => step.on);
    return on.length === 0 ? `Take all steps off ${who}` : `Treat ${who}: ${on.map(sayStep).join(', ')}`;
  },
  apply: (draft, { steps, made, sounds }) => {
    Object.assign(draft.sounds, sounds);
    for (const { clip: id, sound, bodySeconds } of made) {
      const clip = draft.tracks.flatMap(({ clips }) => clips).find((candidate) => candidate.id === id);
      if (!clip) throw new EditRefused('That clip is no longer in the piece.');
      if (!draft.sounds[sound]) throw new EditRefused('The treated sound is not in the piece.');
      setTreated(draft, clip, steps, sound, bodySeconds);
      makeRoom(draft, [clip as Clip]);
    }
  },
});

function setTreated(draft: Draft<Piece>, clip: Draft<Clip>, steps: readonly TreatStep[], sound: string, bodySeconds: number): void {
  const source = sourceOf(clip as Clip);
  const secondsOf = (hash: string): number => (draft.sounds[hash]?.frames ?? 0) / (draft.sounds[hash]?.sampleRate ?? 1);
  const before = clip.treated ? { body: clip.treated.bodySeconds, whole: secondsOf(clip.sound), offset: clip.offsetSeconds } : { body: clip.lengthSeconds, whole: clip.lengthSeconds, offset: 0 };
  const restored = steps.length === 0;
  const ratio = (restored ? source.lengthSeconds : bodySeconds) / before.body;
  const whole = restored ? source.lengthSeconds : secondsOf(sound);
  const offset = Math.min(before.offset * ratio, Math.max(0, whole - SLACK_SECONDS));
  const reachedEnd = before.offset + clip.lengthSeconds >= before.whole - SLACK_SECONDS;
  clip.lengthSeconds = reachedEnd ? whole - offset : Math.min(clip.lengthSeconds * ratio, whole - offset);
  clip.offsetSeconds = restored ? source.offsetSeconds + offset : offset;
  clip.sound = restored ? source.sound : sound;
  clip.fadeInSeconds = Math.min(clip.fadeInSeconds, clip.lengthSeconds);
  clip.fadeOutSeconds = Math.min(clip.fadeOutSeconds, clip.lengthSeconds - clip.fadeInSeconds);
  if (restored) delete clip.treated;
  else clip.treated = { ...source, bodySeconds, steps: [...steps] };
}

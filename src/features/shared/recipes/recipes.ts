import type { SoundData } from '../../../core/dsp/soundData';
import { startPrint } from '../../../audio/printer';
import { compilePlan } from '../../../core/engine/compilePlan';
import type { PrintJob } from '../../../core/engine/print';
import { writeWav } from '../../../core/formats/writeWav';
import type { Hit } from '../../../core/piece/moves/throws';
import { applyEdit } from '../../../core/piece/edit';
import { layParts } from '../../../core/piece/edits/recipes';
import type { Piece, Track } from '../../../core/piece/piece';
import { sampleAt, settingsOf, type RecipeInput, type RecipeSound, type BeatRange } from '../../../core/recipes/recipe';
import { recipeEditArgs, recipeSoundInfo, recipeSoundName, type RecipeCall } from '../../../core/recipes/recipeEdit';
import { uploadSound } from '../../../data/api';
import { useOpenPiece } from '../../../data/openPiece';
import type { Studio } from '../../studio/studio';
import { newId } from '../../../data/newId';
import { barsLater } from '../../../core/music/grid';
import { tempoOf } from '../../../core/piece/tempoOf';

const HEARD = '4'.repeat(64);
/** Context that is heard with the range: beats before it, and seconds after it. */
const LEAD_BEATS = 1;
const TAIL_SECONDS = 2;

export const inputOf = (
  studio: Studio,
  piece: Piece,
  track: Track,
  range: BeatRange,
  hits: readonly Hit[],
): RecipeInput => ({
  piece,
  track,
  range,
  hits,
  sound: (hash) => studio.sounds.get(hash)?.channels,
  newId: () => newId(),
});

async function printed(
  job: PrintJob,
  sounds: readonly { readonly hash: string; readonly channels: SoundData }[],
): Promise<SoundData> {
  const made = await startPrint(job, sounds, () => undefined).result;
  if (!made) throw new Error('It was stopped.');
  return [made.left, made.right];
}

const soundsOf = (studio: Studio): { hash: string; channels: SoundData }[] =>
  [...studio.sounds.values()].map(({ hash, channels }) => ({ hash, channels }));

/** The sound that the recipe makes, rendered in a worker; null where it makes none. */
async function soundOf(studio: Studio, { recipe, input, values }: RecipeCall): Promise<RecipeSound | null> {
  const settings = settingsOf(recipe, values, input.piece);
  const work = recipe.renderJob?.(input, settings) ?? null;
  const rendered = work ? await printed(work.job, [...soundsOf(studio), ...work.sounds]) : null;
  return recipe.sound?.(input, settings, rendered) ?? null;
}

/** The range with the recipe applied, of the track and the new parts alone. */
export async function hearRecipe(studio: Studio, call: RecipeCall): Promise<SoundData> {
  const { piece, track, range } = call.input;
  const sound = await soundOf(studio, call);
  const info = sound && recipeSoundInfo(sound, 'heard', piece.sampleRate);
  const args = recipeEditArgs(call, info && { hash: HEARD, info });
  const changed = applyEdit(piece, layParts, args).piece;
  const heard = new Set([track.id, ...args.tracks.map(({ id }) => id)]);
  const alone: Piece = {
    ...changed,
    loop: { ...changed.loop, on: false },
    tracks: changed.tracks.map((other) => ({
      ...other,
      solo: heard.has(other.id),
      mute: heard.has(other.id) ? false : other.mute,
    })),
  };
  const end = Math.max(
    range.end,
    ...args.tracks.flatMap(({ clips }) =>
      clips.slice(0, 3).map(({ start }) => Math.min(barsLater(start, 1, tempoOf(piece)), piece.lengthBeats)),
    ),
  );
  const job: PrintJob = {
    plan: compilePlan(alone),
    fromSample: sampleAt(piece, Math.max(0, range.start - LEAD_BEATS)),
    toSample: sampleAt(piece, end),
    tail: { kind: 'seconds', seconds: TAIL_SECONDS },
    listening: undefined,
  };
  return printed(job, [...soundsOf(studio), ...(sound ? [{ hash: HEARD, channels: sound.channels }] : [])]);
}

/** Applies it to the piece, as one edit; nothing changes before all of it is rendered and stored. */
export async function makeRecipe(studio: Studio, call: RecipeCall): Promise<boolean> {
  const { sampleRate } = call.input.piece;
  const sound = await soundOf(studio, call);
  const { run } = useOpenPiece.getState();
  if (!sound) return run(layParts, recipeEditArgs(call, null));
  const bytes = writeWav({ sampleRate, channels: [...sound.channels] }, '32f');
  const stored = await uploadSound(new Blob([bytes as Uint8Array<ArrayBuffer>]), recipeSoundName(call));
  const info = recipeSoundInfo(sound, stored.name, sampleRate);
  return run(layParts, recipeEditArgs(call, { hash: stored.hash, info }));
}

import type { SoundData } from '../dsp/soundData';
import { render } from '../engine/render';
import type { Piece, Track } from '../piece/piece';
import type { ParamValues } from '../params/param';
import { settingsOf, type RecipeSound } from './recipe';
import { swellName, type MadeSwell, type RecipeCall } from './recipeEdit';
import { swellClip, swellJob, swellSettings, takeHit, type HitSource } from './reverseSwell';

type Sounds = ReadonlyMap<string, SoundData>;

/**
 * The sound that a recipe makes, rendered at once; null where it makes none.
 * @param sounds of the piece at its rate
 * @throws Error for the person to read
 */
export function renderRecipe({ recipe, input, values }: RecipeCall, sounds: Sounds): RecipeSound | null {
  const settings = settingsOf(recipe, values, input.piece);
  const work = recipe.renderJob?.(input, settings) ?? null;
  const extra = work?.sounds.map(({ hash, channels }) => [hash, channels] as const) ?? [];
  const rendered = work && render({ ...work.job, sounds: new Map([...sounds, ...extra]) });
  return recipe.sound?.(input, settings, rendered && [rendered.left, rendered.right]) ?? null;
}

/**
 * Swells into hits, rendered at once; hits without room before them are left out.
 * @param store keeps a sound and gives its hash  @param newId makes the id of a clip
 */
export function renderSwells(
  piece: Piece,
  track: Track,
  sources: readonly HitSource[],
  values: ParamValues,
  sounds: Sounds,
  { store, newId }: { readonly store: (channels: SoundData) => string; readonly newId: () => string },
): MadeSwell[] {
  const settings = swellSettings(values, piece);
  return sources.flatMap((source, i): MadeSwell[] => {
    const hit = takeHit(sounds.get(source.sound)!, source, piece.sampleRate);
    const { job, sounds: needed } = swellJob(piece, hit, source.beat, settings);
    const done = render({ ...job, sounds: new Map(needed.map(({ hash, channels }) => [hash, channels])) })!;
    const channels = [done.left, done.right];
    const hash = store(channels);
    const clip = swellClip(piece, source, channels, hit, settings, hash, newId());
    if (!clip) return [];
    const name = swellName(track, i);
    const info = { name, frames: done.left.length, sampleRate: piece.sampleRate, channels: 2 as const };
    return [{ clip: { ...clip, name }, info }];
  });
}

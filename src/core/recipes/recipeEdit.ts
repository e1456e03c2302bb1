import type { Args } from '../piece/edit';
import type { layParts } from '../piece/edits/recipes';
import type { SoundInfo } from '../piece/soundInfo';
import type { ParamValues } from '../params/param';
import { settingsOf, type Recipe, type RecipeInput, type RecipeSound } from './recipe';

/** A recipe with all that it needs, about to be made. */
export interface RecipeCall {
  readonly recipe: Recipe;
  readonly input: RecipeInput;
  readonly values: ParamValues;
}

/** What is to be known of a sound that a recipe made. */
export const recipeSoundInfo = ({ channels, loop }: RecipeSound, name: string, sampleRate: number): SoundInfo => ({
  name: name.slice(0, 120),
  frames: channels[0]!.length,
  sampleRate,
  channels: channels.length > 1 ? 2 : 1,
  ...(loop ? { loop: { ...loop } } : {}),
});

/** The name of that sound. */
export const recipeSoundName = ({ recipe, input }: RecipeCall): string =>
  `${recipe.name}, ${input.track.name}`.slice(0, 120);

/**
 * Arguments of the edit `layParts` that makes a recipe part of the piece.
 * @param sound what it made, with the hash that it is stored under; null for a recipe without a sound
 */
export function recipeEditArgs(
  { recipe, input, values }: RecipeCall,
  sound: { readonly hash: string; readonly info: SoundInfo } | null,
): Args<typeof layParts> {
  const { piece, track } = input;
  const result = recipe.apply(
    input,
    settingsOf(recipe, values, piece),
    sound && { hash: sound.hash, seconds: sound.info.frames / piece.sampleRate },
  );
  return {
    what: recipe.name,
    where: track.name,
    tracks: [...(result.tracks ?? [])],
    clips: (result.clips ?? []).map(({ track: id, clips }) => ({ track: id, clips: [...clips] })),
    slots: [...(result.slots ?? [])],
    lanes: [...(result.lanes ?? [])],
    modulators: [...(result.modulators ?? [])],
    links: [...(result.links ?? [])],
    sounds: sound ? { [sound.hash]: sound.info } : {},
  };
}

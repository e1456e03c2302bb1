import type { Args } from '../piece/edit';
import type { layParts } from '../piece/edits/recipes';
import type { SoundInfo } from '../piece/soundInfo';
import type { ParamValues } from '../params/param';
import { settingsOf, type Recipe, type RecipeInput, type RecipeSound } from './recipe';
import type { Clip, Track } from '../piece/piece';
import { plainTrack } from '../piece/plain';

/** A recipe with its input and settings. */
export interface RecipeCall {
  readonly recipe: Recipe;
  readonly input: RecipeInput;
  readonly values: ParamValues;
}

/** Description of a sound that a recipe made. */
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

/** A swell that was made: its clip, and its sound under the hash that the clip names. */
export interface MadeSwell {
  readonly clip: Clip;
  readonly info: SoundInfo;
}

/** Name of the swell into the hit of this index. */
export const swellName = (track: Track, index: number): string => `Swell ${index + 1} of ${track.name}`.slice(0, 120);

/** Arguments of the edit that puts swells on a track of their own. @param id of that track  @param gain its level */
export const swellEditArgs = (
  track: Track,
  swells: readonly MadeSwell[],
  id: string,
  gain = 1,
): Args<typeof layParts> => ({
  what: `Make ${swells.length} ${swells.length === 1 ? 'swell' : 'swells'}`,
  where: track.name,
  tracks: [
    plainTrack(
      id,
      `${track.name}, swells`.slice(0, 120),
      swells.map(({ clip }) => clip),
      [],
      gain,
    ),
  ],
  clips: [],
  slots: [],
  lanes: [],
  sounds: Object.fromEntries(swells.map(({ clip, info }) => [clip.sound, info])),
});

import { hashOf, RATE, type Scene } from '../piece/testing';
import type { SoundData } from '../dsp/soundData';
import { compilePlan } from '../engine/compilePlan';
import { render } from '../engine/render';
import type { Hit } from '../piece/moves/throws';
import type { ParamValues } from '../params/param';
import { applyEdit } from '../piece/edit';
import { layParts } from '../piece/edits/recipes';
import type { Piece, Track } from '../piece/piece';
import { RECIPES } from './all';
import { recipeEditArgs, recipeSoundInfo } from './recipeEdit';
import { sampleAt, settingsOf, type RecipeInput, type RecipeSound } from './recipe';

const MADE = hashOf(9);

/** What a recipe made of a scene. */
export interface Result {
  readonly piece: Piece;
  readonly sound: RecipeSound | null;
  readonly sounds: Map<string, SoundData>;
  /** The piece with only what the recipe laid, from its stretch on. */
  heard(from: number, to: number, onlyNew?: boolean): Float32Array;
}

interface Call {
  readonly id: string;
  /** Its place among the tracks. */
  readonly track: number;
  readonly start: number;
  readonly end: number;
  readonly values?: ParamValues;
  readonly hits?: readonly Hit[];
  readonly change?: (one: Track) => Track;
}

/** Makes a recipe as the sheet does, without workers and server. */
export function makeIn(
  { piece: plain, sounds }: Scene,
  { id, track, start, end, values = {}, hits = [], change = (one) => one }: Call,
): Result {
  const piece: Piece = { ...plain, tracks: plain.tracks.map((one, i) => (i === track ? change(one) : one)) };
  const recipe = RECIPES.find((one) => one.id === id)!;
  let count = 0;
  const input: RecipeInput = {
    piece,
    track: piece.tracks[track]!,
    range: { start, end },
    hits,
    sound: (hash) => sounds.get(hash),
    newId: () => `n${(count += 1)}`,
  };
  expect(recipe.unavailableReason(input)).toBeNull();
  const settings = settingsOf(recipe, values, piece);
  const work = recipe.renderJob?.(input, settings) ?? null;
  const done = work
    ? render({
        ...work.job,
        sounds: new Map([...sounds, ...work.sounds.map(({ hash, channels }) => [hash, channels] as const)]),
      })!
    : null;
  const sound = recipe.sound?.(input, settings, done && [done.left, done.right]) ?? null;
  const info = sound && recipeSoundInfo(sound, 'made', RATE);
  const args = recipeEditArgs({ recipe, input, values }, info && { hash: MADE, info });
  const edited = applyEdit(piece, layParts, args).piece;
  const all = new Map([...sounds, ...(sound ? [[MADE, sound.channels] as const] : [])]);
  return {
    piece: edited,
    sound,
    sounds: all,
    heard: (from, to, onlyNew = true) => {
      const fresh = new Set(args.tracks.map((one) => one.id));
      const alone = {
        ...edited,
        tracks: edited.tracks.map((one) => ({ ...one, solo: onlyNew ? fresh.has(one.id) : false })),
      };
      return render({
        plan: compilePlan(alone),
        sounds: all,
        fromSample: sampleAt(piece, from),
        toSample: sampleAt(piece, to),
        tail: { kind: 'seconds', seconds: 0 },
      })!.left;
    },
  };
}

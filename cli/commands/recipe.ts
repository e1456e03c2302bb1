import type { Command } from 'commander';
import { randomUUID } from 'node:crypto';
import { soundOnsets } from '../../src/core/analysis/onsets';
import type { SoundData } from '../../src/core/dsp/soundData';
import { BadData, readValue } from '../../src/core/exchange/chainFile';
import { soundsPlayed } from '../../src/core/files/parts';
import type { Params, ParamValues } from '../../src/core/params/param';
import { layParts } from '../../src/core/piece/edits/recipes';
import { contextOf } from '../../src/core/piece/find';
import { trackHits, type Hit } from '../../src/core/piece/moves/throws';
import type { Piece, Track } from '../../src/core/piece/piece';
import { RECIPES } from '../../src/core/recipes/all';
import {
  recipeEditArgs,
  recipeSoundInfo,
  recipeSoundName,
  swellEditArgs,
  type RecipeCall,
} from '../../src/core/recipes/recipeEdit';
import { renderRecipe, renderSwells } from '../../src/core/recipes/renderRecipe';
import { hitSources, SWELL } from '../../src/core/recipes/reverseSwell';
import {
  OUT_HELP,
  PIECE_HELP,
  UsageError,
  withBars,
  withExample,
  withFolders,
  type Bars,
  type Folders,
} from '../arguments';
import { beatsOfBars, loadSounds, trackNamed, type OpenedPiece } from '../pieces/openedPiece';
import { withPiece } from '../pieces/readPieceFrom';
import { edited, keepPiece, madeSound, type MadeSound } from '../pieces/writePiece';

interface Options extends Folders, Bars {
  readonly track: string;
  readonly set: readonly string[];
}

type Sounds = ReadonlyMap<string, SoundData>;

/** Settings of the form NAME=VALUE, read as a person would type them. @throws BadData, UsageError */
function readSettings(given: readonly string[], params: Params, piece: Piece): ParamValues {
  const values: Record<string, ParamValues[string]> = {};
  for (const setting of given) {
    const [, name, text] = /^([^=]+)=(.*)$/.exec(setting) ?? [];
    if (name === undefined) throw new UsageError(`--set takes NAME=VALUE; not "${setting}".`);
    const param = Object.hasOwn(params, name) ? params[name] : undefined;
    values[name] = readValue(param, name, text!, Object.keys(params), contextOf(piece));
  }
  return values;
}

const hitsOf = (piece: Piece, track: Track, sounds: Sounds): Hit[] =>
  trackHits(piece, track, (hash) => soundOnsets(sounds.get(hash) ?? [], piece.sampleRate));

/** What recipes throw is meant for people. */
function orBadData<T>(act: () => T): T {
  try {
    return act();
  } catch (error) {
    throw error instanceof Error ? new BadData(error.message) : error;
  }
}

function makeRecipe(opened: OpenedPiece, call: RecipeCall, sounds: Sounds): OpenedPiece {
  const { piece } = opened;
  const reason = call.recipe.unavailableReason(call.input);
  if (reason !== null) throw new BadData(reason);
  const sound = orBadData(() => renderRecipe(call, sounds));
  const made = sound && madeSound(sound.channels, piece.sampleRate);
  const stored = sound &&
    made && { hash: made.hash, info: recipeSoundInfo(sound, recipeSoundName(call), piece.sampleRate) };
  return edited(opened, layParts, recipeEditArgs(call, stored), made ? [made] : []);
}

/** Swells into every hit of a stretch, on a track of their own. */
function makeSwells(
  opened: OpenedPiece,
  track: Track,
  range: { start: number; end: number },
  values: ParamValues,
  sounds: Sounds,
): OpenedPiece {
  const { piece } = opened;
  const hits = hitsOf(piece, track, sounds);
  const chosen = hits.flatMap(({ beat }, i) => (beat >= range.start && beat < range.end ? [i] : []));
  const sources = hitSources(piece, track, hits, chosen, values.clear === true ? 'every' : 'chosen');
  const made: MadeSound[] = [];
  const store = (channels: SoundData): string => {
    const sound = madeSound(channels, piece.sampleRate);
    made.push(sound);
    return sound.hash;
  };
  const swells = renderSwells(piece, track, sources, values, sounds, { store, newId: () => randomUUID() });
  if (swells.length === 0)
    throw new BadData('No hit of that stretch has room before it for a swell. Take another stretch.');
  return edited(opened, layParts, swellEditArgs(track, swells, randomUUID()), made);
}

const alike = (recipe: { readonly id: string; readonly name: string }, word: string): boolean =>
  recipe.id === word || recipe.name.toLowerCase() === word.toLowerCase();

function make(opened: OpenedPiece, word: string, options: Options): OpenedPiece {
  const { piece } = opened;
  const track = trackNamed(piece, options.track);
  const range = beatsOfBars(piece, options);
  const recipe = RECIPES.find((one) => alike(one, word));
  if (!recipe && !alike(SWELL, word))
    throw new UsageError(
      `There is no recipe "${word}". There are: ${[SWELL, ...RECIPES].map(({ id }) => id).join(', ')}.`,
    );
  const values = readSettings(options.set, (recipe ?? SWELL).params, piece);
  const sounds = loadSounds(opened, new Set([...soundsPlayed(piece), ...track.clips.map(({ sound }) => sound)]));
  if (!recipe) return makeSwells(opened, track, range, values, sounds);
  const hits = recipe.ofHits ? hitsOf(piece, track, sounds) : [];
  const input = { piece, track, range, hits, sound: (hash: string) => sounds.get(hash), newId: () => randomUUID() };
  return makeRecipe(opened, { recipe, input, values }, sounds);
}

export function addRecipe(program: Command): void {
  const command = program
    .command('recipe')
    .description('Makes a recipe of a stretch of a track: riser, frozen bed, reverse swells and the rest.')
    .argument('<NAME>', 'Name or id of the recipe, as `recipes --json` lists them.')
    .argument('<PIECE>', PIECE_HELP)
    .argument('[OUT]', OUT_HELP)
    .requiredOption('--track <name>', 'The track that it is made of.')
    .option(
      '--set <NAME=VALUE>',
      'A setting of the recipe, as a person would type it; again for each.',
      (text: string, before: readonly string[]) => [...before, text],
      [] as readonly string[],
    )
    .action(async (name: string, word: string, out: string | undefined, options: Options) =>
      withPiece(word, options, async (opened) => {
        const changed = make(opened, name, options);
        await keepPiece(changed, out ?? null, options);
        process.stdout.write(`${changed.history.entries.at(-1)!.label}\n`);
      }),
    );
  withBars(command, 'The whole piece when left out.');
  withFolders(command);
  withExample(
    command,
    'npm run -s cli -- recipe riser salt-pier risen.zip --track Crates --from 5 --to 9 --set source=tone',
  );
}

import MiniSearch from 'minisearch';
import { searchEffects } from '../../../core/effects/searchEffects';
import { addEffect, newSlot } from '../../../core/piece/edits/chain';
import { chainOf, channelName } from '../../../core/piece/find';
import { RECIPES } from '../../../core/recipes/all';
import { newId } from '../../../data/newId';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';
import type { Command, CommandContext } from './command';
import { COMMANDS, openRecipe } from './commands';

/** Something that was found: a command, an effect to be added, a recipe to be opened. */
export interface FoundCommand {
  readonly id: string;
  readonly name: string;
  /** What it is, or what one hears. */
  readonly note: string;
  /** What it is looked for by, beside its name. */
  readonly words?: string;
  /** The command whose key can be told and changed. */
  readonly command?: Command;
  run(context: CommandContext): void;
}

/** Effects are many: so many of the likeliest are shown. */
const MAX_EFFECTS = 12;

const recipes: readonly FoundCommand[] = RECIPES.map(({ id, name, purpose, searchWords }) => ({
  id: `recipe-${id}`,
  name: `Make: ${name}`,
  note: purpose,
  words: searchWords,
  run: (context) => openRecipe(context, id),
}));
const commands: readonly FoundCommand[] = COMMANDS.map((command) => ({
  id: command.id,
  name: command.name,
  note: command.group,
  ...(command.words && { words: command.words }),
  command,
  run: command.run,
}));

const known = new Map([...commands, ...recipes].map((found) => [found.id, found]));
const index = new MiniSearch<{ id: string; name: string; words: string; note: string }>({
  fields: ['name', 'words', 'note'],
  searchOptions: {
    boost: { name: 4, words: 3 },
    combineWith: 'AND',
    prefix: true,
    fuzzy: (term) => (term.length > 4 ? 0.2 : false),
  },
});
index.addAll([...known.values()].map(({ id, name, note, words = '' }) => ({ id, name, note, words })));

/** Adds an effect to the end of the chain in view, and opens it. */
function effectCommand({ effect, preset }: ReturnType<typeof searchEffects>[number]): FoundCommand {
  const { piece } = useOpenPiece.getState();
  const { channel } = useView.getState();
  return {
    id: `effect-${effect.id}-${preset.id}`,
    name: `Add ${effect.name}: ${preset.name}`,
    note: `${preset.purpose}${piece ? ` To ${channelName(piece, channel)}.` : ''}`,
    run: ({ go }) => {
      const open = useOpenPiece.getState();
      const slot = newSlot(newId(), effect.id, preset.id);
      if (!open.piece || !open.run(addEffect, { channel, slot, at: chainOf(open.piece, channel).length })) return;
      useView.setState({ slot: slot.id });
      go('chain');
    },
  };
}

/** Commands, recipes and effects that the words lead to, likeliest first within each; all commands without words. */
export function searchCommands(words: string): readonly FoundCommand[] {
  if (words.trim() === '') return commands;
  const told = index.search(words).map(({ id }) => known.get(String(id))!);
  return [...told, ...searchEffects(words).slice(0, MAX_EFFECTS).map(effectCommand)];
}

import { searchEffects } from '../../../core/effects/searchEffects';
import { searchIndex } from '../../../core/searchIndex';
import type { Block } from '../../../core/piece/block';
import { searchBlocks } from '../../../core/piece/searchBlocks';
import { placeBlock } from '../../../core/piece/edits/blocks';
import { addEffect, newSlot } from '../../../core/piece/edits/chain';
import { chainOf, channelName } from '../../../core/piece/find';
import { RECIPES } from '../../../core/recipes/all';
import { newId } from '../../../data/newId';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';
import { saysBlock } from '../blocks/BlockList';
import type { Command, CommandContext } from './command';
import { COMMANDS, openRecipe } from './commands';

/** A search result: a command, an effect to add, or a recipe to open. */
export interface FoundCommand {
  readonly id: string;
  readonly name: string;
  /** Description: what it does, or what one hears. */
  readonly note: string;
  /** Search words beside its name. */
  readonly words?: string;
  /** The command whose key is shown and can be changed. */
  readonly command?: Command;
  run(context: CommandContext): void;
}

/** Maximum number of effects in the results. */
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

const search = searchIndex([...commands, ...recipes], {
  name: [4, ({ name }) => name],
  words: [3, ({ words = '' }) => words],
  note: [1, ({ note }) => note],
});

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

/** Adds a block to the end of the chain in view, and opens its first effect. */
function blockCommand(block: Block): FoundCommand {
  return {
    id: `block-${block.id}`,
    name: `Add block ${block.name}`,
    note: saysBlock(block),
    run: ({ go }) => {
      const { piece, run } = useOpenPiece.getState();
      const { channel } = useView.getState();
      const id = newId();
      if (!piece || !run(placeBlock, { channel, block, at: chainOf(piece, channel).length, id })) return;
      useView.setState({ slot: `${id}-0` });
      go('chain');
    },
  };
}

/** Commands, recipes, blocks and effects that match the words, best first within each; all commands without words. */
export function searchCommands(words: string, blocks: readonly Block[] = []): readonly FoundCommand[] {
  if (words.trim() === '') return commands;
  const told = search(words).map(({ entry }) => entry);
  const own = searchBlocks(blocks, words).map(blockCommand);
  return [...told, ...own, ...searchEffects(words).slice(0, MAX_EFFECTS).map(effectCommand)];
}

import { effectOf } from '../effects/catalogue';
import { searchIndex, type SearchFields } from '../searchIndex';
import type { Block } from './block';
import { slotsIn } from './find';
import type { Slot } from './piece';

const effects = (text: (slot: Slot) => string) => (block: Block) => slotsIn(block.slots).map(text).join(' ');

const FIELDS: SearchFields<Block> = {
  name: [6, ({ name }) => name],
  effectNames: [3, effects(({ effect }) => effectOf(effect).name)],
  effectWords: [2, effects(({ effect }) => `${effectOf(effect).searchWords} ${effectOf(effect).family}`)],
  presets: [
    2,
    effects(({ effect, preset }) => {
      const from = effectOf(effect).presets.find(({ id }) => id === preset);
      return from ? `${from.name} ${from.searchWords ?? ''}` : '';
    }),
  ],
};

/**
 * Blocks that match every one of the words, by their name or their effects and presets; best first. Without words all
 * of them, in the given order.
 */
export const searchBlocks = (blocks: readonly Block[], words: string): readonly Block[] =>
  words.trim() === '' ? blocks : searchIndex(blocks, FIELDS)(words).map(({ entry }) => entry);

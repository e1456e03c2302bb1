import type { Block } from './block';
import { newSlot } from './edits/chain';
import { searchBlocks } from './searchBlocks';

const block = (name: string, ...effects: readonly (readonly [effect: string, preset: string])[]): Block => ({
  id: name,
  name,
  slots: effects.map(([effect, preset], i) => newSlot(`${name} ${i}`, effect, preset)),
  sounds: {},
});
const BLOCKS = [
  block('Harbour wall', ['echo', 'hullSlap'], ['reverb', 'neutral']),
  block('Radio hut', ['filter', 'neutral']),
  block('Night', ['compressor', 'pressed']),
];
const found = (words: string): readonly string[] => searchBlocks(BLOCKS, words).map(({ name }) => name);

test.each([
  ['harbour', ['Harbour wall']],
  ['wall HARB', ['Harbour wall']],
  ['harbor', ['Harbour wall']],
  ['slapback', ['Harbour wall']],
  ['echo reverb', ['Harbour wall']],
  ['harbour reverb', ['Harbour wall']],
  ['telephone', ['Radio hut']],
  ['glue', ['Night']],
  ['stutter', []],
])('"%s" leads to %j', (words, names) => expect(found(words)).toEqual(names));

test('without words all of them come, as they are', () => expect(found('  ')).toEqual(BLOCKS.map(({ name }) => name)));

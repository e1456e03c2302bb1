import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { newSlot } from '../../../core/piece/edits/chain';
import { COMMANDS, SECOND_KEYS } from './commands';
import { keyOf, keyText } from './keys';
import { searchCommands } from './searchCommands';

const pressed = (key: string, held: Partial<KeyboardEvent> = {}): string =>
  keyOf({ key, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...held } as KeyboardEvent);

test('blocks are found beside commands, by what is in them', () => {
  const slots = [newSlot('s', 'reverb', 'neutral')];
  const block = { id: 'b', name: 'Harbour wall', slots, sounds: {} };
  expect(searchCommands('harbour wall', [block])).toMatchObject([
    { id: 'block-b', name: 'Add block Harbour wall', note: 'Reverb' },
  ]);
  expect(searchCommands('ambience', [block]).map(({ id }) => id)).toContain('block-b');
});

test('a key is told with what is held, the same on every keyboard', () => {
  expect(pressed('z', { ctrlKey: true })).toBe('Mod+z');
  expect(pressed('Z', { metaKey: true, shiftKey: true })).toBe('Mod+Shift+z');
  expect(pressed('?', { shiftKey: true })).toBe('?');
  expect(pressed(' ')).toBe('Space');
  expect(pressed('ArrowLeft', { altKey: true, shiftKey: true })).toBe('Alt+Shift+ArrowLeft');
  expect(pressed('Shift', { shiftKey: true })).toBe('');
  expect(keyText('Mod+Shift+z')).toBe('Ctrl Shift Z');
});

test('no two commands have one id or begin with one key', () => {
  const keys = [...COMMANDS.flatMap(({ key }) => key ?? []), ...Object.keys(SECOND_KEYS)];
  expect(new Set(keys).size).toBe(keys.length);
  expect(new Set(COMMANDS.map(({ id }) => id)).size).toBe(COMMANDS.length);
  for (const command of Object.values(SECOND_KEYS)) expect(COMMANDS.map(({ id }) => id)).toContain(command);
});

test.each([
  ['mute', 'mute'],
  ['solo', 'solo'],
  ['import', 'addSounds'],
  ['delete', 'remove'],
  ['dark', 'night'],
  ['rename', 'piece'],
  ['riser', 'recipe-riser'],
  ['tape stop', 'recipe-tapeStop'],
  ['tape stop', 'effect-tapeStop-neutral'],
  ['slapback', 'effect-echo-hullSlap'],
  ['reverb neutral', 'effect-reverb-neutral'],
  ['shimmer', 'recipe-octave'],
  ['live set', 'new-live'],
])('"%s" leads to %s', (words, id) => {
  expect(searchCommands(words).map((found) => found.id)).toContain(id);
});

/** Files that listen to keys and have a reason of their own to. */
const LISTENERS: Readonly<Record<string, string>> = {
  'features/shared/commands/CommandKeys.tsx': 'the keys of all commands',
  'features/shared/commands/playKeys.ts': 'keys that are held in Play, listed with the commands',
  'features/play/useFieldHand.ts': 'arrows move the field of Play',
  'features/shell/CompareButton.tsx': 'what is held by a key ends when it is let go',
  'ui/frame.ts': 'draws for as long as a key is down',
  'ui/Sheet.tsx': 'Escape closes the uppermost sheet',
  'ui/keyCapture.ts': 'a figure that is typed, and a key that is to be changed',
  'ui/pointer.ts': 'keys of what has the focus, as its role says',
  'ui/roleKeys.ts': 'Space presses what is a button by its role',
  'ui/rovingFocus.ts': 'arrows move the focus within a group that is one stop of the Tab key',
};

test('nothing listens to keys but what is listed', () => {
  const root = join(__dirname, '../../..');
  const files = readdirSync(root, { recursive: true, encoding: 'utf8' }).filter(
    (file) => /\.tsx?$/.test(file) && !/\.test\.tsx?$/.test(file),
  );
  const listening = files.filter((file) =>
    /'key(down|up)'|onKeyDown|onKeyUp/.test(readFileSync(join(root, file), 'utf8')),
  );
  expect(listening.sort()).toEqual(Object.keys(LISTENERS).sort());
});

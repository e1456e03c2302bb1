import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useView } from '../../../data/view';
import { Button } from '../../../ui/Button';
import { useKeyCapture } from '../../../ui/keyCapture';
import { Chip } from '../../../ui/Chip';
import { ListItem } from '../../../ui/ListItem';
import { SearchField } from '../../../ui/SearchField';
import { Sheet } from '../../../ui/Sheet';
import { Text } from '../../../ui/Text';
import { useBlocks } from '../blocks/ownPresets';
import { useCommandContext } from './CommandKeys';
import { COMMANDS } from './commands';
import { COMMAND_GROUPS } from './command';
import { keyOf, keyText, useCommandKeys } from './keys';
import { isFreeCode, keyName, PLAY_CONTROLS, usePlayKeys, type PlayControl } from './playKeys';
import { searchCommands, type FoundCommand } from './searchCommands';

/** The list of all commands, with effects and recipes: to be searched, run, and given other keys. */
export function CommandSheet() {
  const open = useView((view) => view.sheet === 'commands');
  const close = (): void => useView.setState({ sheet: null });
  return (
    <Sheet title="Commands and keys" visible={open} onClose={close}>
      {open ? <Commands onDone={close} /> : null}
    </Sheet>
  );
}

function Commands({ onDone }: { readonly onDone: () => void }) {
  const context = useCommandContext();
  const [words, setWords] = useState('');
  const [changing, setChanging] = useState(false);
  const found = searchCommands(words, useBlocks());
  const run = (one: FoundCommand): void => {
    onDone();
    one.run(context);
  };
  return (
    <View style={styles.all}>
      <SearchField
        label="Search commands, effects and recipes"
        placeholder="Search: riser, slapback, mute, undo …"
        words={words}
        onWords={setWords}
        focused
        onSubmit={() => found[0] && run(found[0])}
      />
      <View style={styles.row}>
        <Chip role="switch" chosen={changing} onPress={() => setChanging(!changing)}>
          Change keys
        </Chip>
        {changing ? (
          <Button mode="text" onPress={useCommandKeys.getState().reset}>
            Back to the keys at the start
          </Button>
        ) : null}
      </View>
      <ScrollView style={styles.list} keyboardShouldPersistTaps="handled">
        {changing ? <KeyList words={words} /> : <CommandList found={found} grouped={words.trim() === ''} onRun={run} />}
      </ScrollView>
    </View>
  );
}

interface CommandListProps {
  readonly found: readonly FoundCommand[];
  readonly grouped: boolean;
  readonly onRun: (one: FoundCommand) => void;
}

function CommandList({ found, grouped, onRun }: CommandListProps) {
  const changed = useCommandKeys((state) => state.changed);
  const row = (one: FoundCommand) => {
    const { command } = one;
    const key = command ? (changed[command.id] ?? command.key ?? '') : '';
    const said = key ? `${one.name}, key ${keyText(key)}` : one.name;
    return (
      <View key={one.id} style={styles.item}>
        <ListItem
          title={one.name}
          note={grouped ? undefined : one.note}
          label={said}
          style={styles.name}
          onPress={() => onRun(one)}
        />
        {key ? (
          <Text variant="bodySmall" aria-hidden>
            {keyText(key)}
          </Text>
        ) : null}
      </View>
    );
  };
  if (found.length === 0)
    return <Text variant="bodySmall">Nothing is called or made for that. Try another word of the trade.</Text>;
  if (!grouped) return found.map(row);
  return (
    <>
      {COMMAND_GROUPS.map((group) => (
        <View key={group} role="group" aria-label={group}>
          <Text variant="headlineSmall" style={styles.group}>
            {group}
          </Text>
          {found.filter(({ command }) => command?.group === group).map(row)}
        </View>
      ))}
      <View role="group" aria-label="Held in Play">
        <Text variant="headlineSmall" style={styles.group}>
          Held in Play
        </Text>
        <PlayKeyList />
      </View>
    </>
  );
}

/** The keys of Play, for reference: they do nothing elsewhere. */
function PlayKeyList() {
  const codes = usePlayKeys((state) => state.codes);
  return PLAY_CONTROLS.map(({ control, name }) => (
    <View key={control} style={styles.item}>
      <Text style={styles.name}>{name}</Text>
      <Text variant="bodySmall">{keyName(codes[control] ?? '')}</Text>
    </View>
  ));
}

type Waiting = { readonly command: string } | { readonly control: PlayControl };

/** All keys, to be changed: choose one, then press the new key. */
function KeyList({ words }: { readonly words: string }) {
  const { changed, assign } = useCommandKeys();
  const { codes, assign: assignPlay } = usePlayKeys();
  const [waiting, setWaiting] = useState<Waiting | null>(null);
  const take = (event: KeyboardEvent): boolean => {
    const key = keyOf(event);
    if (key === '' || waiting === null) return false;
    if ('control' in waiting) {
      if (isFreeCode(event.code)) assignPlay(waiting.control, event.code);
    } else if (key !== 'Escape') assignCommand(waiting.command, key, changed, assign);
    setWaiting(null);
    return true;
  };
  useKeyCapture(waiting && take);
  const wanted = (name: string): boolean => name.toLowerCase().includes(words.trim().toLowerCase());
  const row = (id: string, name: string, key: string, isWaiting: boolean, wait: Waiting) =>
    wanted(name) ? (
      <View key={id} style={styles.item}>
        <Text style={styles.name}>{name}</Text>
        <Button
          label={`${name}: ${isWaiting ? 'press a key' : `key ${key || 'none'}, change it`}`}
          mode={isWaiting ? 'contained' : 'outlined'}
          onPress={() => setWaiting(isWaiting ? null : wait)}
        >
          {isWaiting ? 'press a key' : key || 'none'}
        </Button>
      </View>
    ) : null;
  return (
    <>
      {COMMANDS.map(({ id, name, key = '' }) =>
        row(id, name, keyText(changed[id] ?? key), waiting !== null && 'command' in waiting && waiting.command === id, {
          command: id,
        }),
      )}
      {PLAY_CONTROLS.map(({ control, name }) =>
        row(
          control,
          `In Play: ${name}`,
          keyName(codes[control] ?? ''),
          waiting !== null && 'control' in waiting && waiting.control === control,
          { control },
        ),
      )}
    </>
  );
}

/** Assigns a key to a command; the command that had it gets the other one's, so that none is lost. */
function assignCommand(
  command: string,
  key: string,
  changed: Readonly<Record<string, string>>,
  assign: (command: string, key: string) => void,
): void {
  const keyNow = (id: string): string => changed[id] ?? COMMANDS.find((one) => one.id === id)?.key ?? '';
  const holder = COMMANDS.find(({ id }) => id !== command && keyNow(id) === key);
  if (holder) assign(holder.id, keyNow(command));
  assign(command, key);
}

const styles = StyleSheet.create({
  all: { gap: 8 },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 },
  list: { maxHeight: 520 },
  group: { marginTop: 10 },
  item: { flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: 44 },
  name: { flex: 1, minWidth: 0, paddingHorizontal: 0, alignItems: 'flex-start' },
});

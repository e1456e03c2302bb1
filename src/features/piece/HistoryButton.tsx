import { ScrollView, StyleSheet, View } from 'react-native';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { useView } from '../../data/view';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { ListItem } from '../../ui/ListItem';

export function HistoryButton() {
  return (
    <>
      <Button icon="clock" mode="text" onPress={() => useView.setState({ sheet: 'history' })}>
        History
      </Button>
      <HistorySheet />
    </>
  );
}

/** Every edit by name; tap one to go there, and later ones stay to be gone back to. */
export function HistorySheet() {
  const open = useView((view) => view.sheet === 'history');
  const onClose = (): void => useView.setState({ sheet: null });
  const { entries, cursor, goTo, takeOut } = useOpenPiece();
  return (
    <>
      <Sheet title="History" visible={open} onClose={onClose}>
        <ScrollView style={styles.list}>
          {entries.length === 0 ? (
            <Text variant="bodySmall">
              Nothing has been changed yet. Every edit will be listed here, across reloads.
            </Text>
          ) : null}
          {[...entries]
            .map((_, i) => entries.length - 1 - i)
            .map((index) => {
              const entry = entries[index]!;
              const now = index === cursor - 1;
              return (
                <View key={entry.id} style={styles.row}>
                  <ListItem
                    role="radio"
                    title={entry.label}
                    note={`${new Date(entry.at).toLocaleTimeString()}${now ? '  ·  now' : index >= cursor ? '  ·  undone' : ''}`}
                    label={`${entry.label}${now ? ', now' : index >= cursor ? ', undone' : ''}`}
                    chosen={now}
                    tone={index >= cursor ? 'mute' : 'ink'}
                    titleStyle={index >= cursor ? styles.undone : undefined}
                    style={styles.item}
                    onPress={() => goTo(index + 1)}
                  />
                  {index < cursor - 1 ? (
                    <IconButton
                      icon="scissors"
                      label={`Take out ${entry.label} alone`}
                      tone="mute"
                      onPress={() => takeOut(index)}
                    />
                  ) : null}
                </View>
              );
            })}
          {entries.length > 0 ? (
            <ListItem
              role="radio"
              title="As it was at first"
              chosen={cursor === 0}
              style={styles.item}
              onPress={() => goTo(0)}
            />
          ) : null}
        </ScrollView>
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  list: { maxHeight: 520 },
  row: { flexDirection: 'row', alignItems: 'center' },
  item: { flex: 1, alignItems: 'flex-start', paddingHorizontal: 4, paddingVertical: 6, borderRadius: 8 },
  undone: { textDecorationLine: 'line-through' },
});

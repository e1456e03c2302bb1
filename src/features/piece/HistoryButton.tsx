import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';

/** Every edit by name; tap one to go there, and later ones stay to be gone back to. */
export function HistoryButton() {
  const [open, setOpen] = useState(false);
  const { entries, cursor, goTo, takeOut } = useOpenPiece();
  return (
    <>
      <Tap plain icon="clock" label="History" onPress={() => setOpen(true)} />
      <Sheet title="History" visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={styles.list}>
          {entries.length === 0 ? (
            <Words kind="small">Nothing has been changed yet. Every edit will be listed here, across reloads.</Words>
          ) : null}
          {[...entries]
            .map((_, i) => entries.length - 1 - i)
            .map((index) => {
              const entry = entries[index]!;
              const now = index === cursor - 1;
              return (
                <View key={entry.id} style={styles.row}>
                  <Tap
                    plain
                    role="radio"
                    chosen={now}
                    label={`${entry.label}${now ? ', now' : index >= cursor ? ', undone' : ''}`}
                    onPress={() => goTo(index + 1)}
                    style={styles.item}
                  >
                    <Words
                      kind={now ? 'strong' : 'body'}
                      tone={index >= cursor ? 'mute' : 'ink'}
                      style={index >= cursor ? styles.undone : undefined}
                    >
                      {entry.label}
                    </Words>
                    <Words kind="small">{`${new Date(entry.at).toLocaleTimeString()}${now ? '  ·  now' : index >= cursor ? '  ·  undone' : ''}`}</Words>
                  </Tap>
                  {index < cursor - 1 ? (
                    <Tap
                      plain
                      icon="scissors"
                      tone="mute"
                      label={`Take out ${entry.label} alone`}
                      onPress={() => takeOut(index)}
                    />
                  ) : null}
                </View>
              );
            })}
          {entries.length > 0 ? (
            <Tap
              plain
              role="radio"
              chosen={cursor === 0}
              label="As it was at first"
              onPress={() => goTo(0)}
              style={styles.item}
            >
              <Words kind={cursor === 0 ? 'strong' : 'body'}>As it was at first</Words>
            </Tap>
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

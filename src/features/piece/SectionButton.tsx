import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { toBarBeat } from '../../core/music/grid';
import { tempoOf } from '../../core/piece/tempoOf';
import { metreName } from '../../core/music/metre';
import { putSection, removeSection, setSectionMetre } from '../../core/piece/edits/sections';
import { useOpenPiece } from '../../data/openPiece';
import { NameField } from '../../ui/NameField';
import { Sheet } from '../../ui/Sheet';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { ListItem } from '../../ui/ListItem';
import { MetreChips } from '../shared/time/MetreChips';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { newId } from '../../data/newId';

/** Names parts of the piece: each is shown on the ruler, and written into files as a marker. */
export function SectionButton({ beat }: { readonly beat: number }) {
  const piece = usePiece();
  const { studio } = useStudio();
  const [open, setOpen] = useState(false);
  const { run } = useOpenPiece.getState();
  const sections = piece.sections ?? [];
  const here = sections.find((section) => Math.abs(section.beat - beat) < 1e-6);
  const say = (at: number): string => {
    const { bar, beat: within } = toBarBeat(at, tempoOf(piece));
    return within === 1 ? `bar ${bar}` : `bar ${bar}.${within}`;
  };
  const put = (name: string): void => {
    if (run(putSection, { id: here?.id ?? newId(), name, beat })) setOpen(false);
  };
  return (
    <>
      <Button label="Sections of the piece" icon="flag" onPress={() => setOpen(true)}>
        Section …
      </Button>
      <Sheet title="Sections" visible={open} onClose={() => setOpen(false)}>
        <NameField
          label={`Name of the section at ${say(beat)}`}
          initial=""
          placeholder={`Begins at ${say(beat)} …`}
          action={here ? 'Rename' : 'Put'}
          actionLabel="Put the section there"
          onName={put}
        />
        {sections.length === 0 ? (
          <Text variant="bodySmall">
            None yet. Sections stand on the ruler and become markers in the files you write.
          </Text>
        ) : null}
        {here ? (
          <MetreChips
            name={`Metre from ${here.name} on`}
            chosen={here.metre ?? null}
            none="as before"
            onChoose={(metre) => run(setSectionMetre, { section: here.id, metre })}
          />
        ) : null}
        {sections.map((section) => (
          <View key={section.id} style={styles.row}>
            <ListItem
              title={section.name}
              note={section.metre ? `${say(section.beat)}, ${metreName(section.metre)}` : say(section.beat)}
              label={`Go to ${section.name}`}
              variant="titleSmall"
              style={styles.item}
              onPress={() => studio.locate(section.beat)}
            />
            <IconButton
              icon="trash-2"
              label={`Remove the section ${section.name}`}
              tone="mute"
              onPress={() => run(removeSection, { section: section.id })}
            />
          </View>
        ))}
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: 8, marginBottom: 6 },
  item: { flex: 1, alignItems: 'flex-start', paddingHorizontal: 0 },
});

import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { noteBeats, type NoteBase } from '../../../core/music/noteValue';
import type { Snap } from '../../../core/automation/snap';
import { useView } from '../../../data/view';
import { Sheet } from '../../../ui/Sheet';
import { Button } from '../../../ui/Button';
import { Chip } from '../../../ui/Chip';
import { Text } from '../../../ui/Text';
import { usePiece } from '../../studio/StudioProvider';

const GRIDS: readonly NoteBase[] = ['1/1', '1/2', '1/4', '1/8', '1/16', '1/32'];

/** What points fall on while they are dragged, added or drawn. */
export function SnapButton() {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const snap = useView((view) => view.snap);
  const beats = (note: NoteBase): number => noteBeats({ base: note, feel: 'straight' }, piece.tempo.beatsPerBar);
  const choices: readonly { readonly name: string; readonly snap: Snap }[] = [
    { name: 'off', snap: { kind: 'off' } },
    { name: 'hits', snap: { kind: 'hits' } },
    ...GRIDS.map((note) => ({ name: note, snap: { kind: 'grid' as const, beats: beats(note) } })),
  ];
  const isChosen = (one: Snap): boolean =>
    one.kind === snap.kind && (one.kind !== 'grid' || snap.kind !== 'grid' || one.beats === snap.beats);
  const chosen = choices.find((choice) => isChosen(choice.snap))?.name ?? 'grid';
  return (
    <>
      <Button label={`Points fall on: ${chosen}. Change`} tone="coralInk" onPress={() => setOpen(true)}>
        {chosen === 'off' ? 'snap' : `snap ${chosen}`}
      </Button>
      <Sheet title="Points fall on" visible={open} onClose={() => setOpen(false)}>
        <View role="radiogroup" aria-label="Points fall on" style={styles.chips}>
          {choices.map(({ name, snap: one }) => (
            <Chip
              key={name}
              role="radio"
              label={`Points fall on ${name}`}
              chosen={isChosen(one)}
              tone="coralInk"
              onPress={() => useView.setState({ snap: one })}
            >
              {name}
            </Chip>
          ))}
        </View>
        <Text variant="bodySmall" style={styles.says}>
          Moves fall on the hits of the channel’s own clips. A clip falls with its first hit on a hit of another, and is
          trimmed at its own. The ruler and drawing in steps go by the grid too.
        </Text>
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  chips: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  says: { marginTop: 12 },
});

import { ScrollView, StyleSheet } from 'react-native';
import { GRIDS } from '../../core/effects/hold/params';
import { Chip } from '../../ui/Chip';
import { ChipGroup } from '../../ui/ChipGroup';
import { Sheet } from '../../ui/Sheet';
import { Text } from '../../ui/Text';
import { usePiece } from '../studio/StudioProvider';
import { SmallPrint } from './SmallPrint';
import { PAD_KINDS, usePlayState, type PadKind } from './playState';

const KINDS: Readonly<Record<PadKind, { readonly name: string; readonly does: string }>> = {
  throws: { name: 'Throws', does: 'A pad opens a send of one track for as long as you hold it.' },
  freezes: { name: 'Freezes', does: 'A pad freezes what an echo or a space holds.' },
  mutes: { name: 'Mutes', does: 'A pad silences a track or a return, or opens one that is muted.' },
  strands: { name: 'Strands', does: 'A pad takes one strand of a braid while its pattern waits.' },
  snapshots: { name: 'Snapshots', does: 'A pad goes to a snapshot: every value as it was then.' },
};

/** What the pads in the middle do, whom they throw, when they start, and whether they are held or tapped. */
export function PadSheet({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  const piece = usePiece();
  const { pads, grid, latched, thrown, set } = usePlayState();
  const track = piece.tracks.find(({ id }) => id === thrown) ?? piece.tracks[0];
  const latches = latched.includes(pads);
  return (
    <Sheet title="Pads" visible={open} onClose={onClose}>
      <ScrollView style={styles.list}>
        <ChipGroup name="What they play" role="radiogroup">
          {PAD_KINDS.map((kind) => (
            <Chip key={kind} role="radio" chosen={kind === pads} onPress={() => set({ pads: kind })}>
              {KINDS[kind].name}
            </Chip>
          ))}
        </ChipGroup>
        <Text variant="bodySmall" style={styles.does}>
          {KINDS[pads].does}
        </Text>
        {pads === 'throws' ? (
          <ChipGroup name="Track that is thrown" role="radiogroup">
            {piece.tracks.map(({ id, name }) => (
              <Chip key={id} role="radio" chosen={id === track?.id} onPress={() => set({ thrown: id })}>
                {name}
              </Chip>
            ))}
          </ChipGroup>
        ) : null}
        <ChipGroup name="Start and end on" role="radiogroup">
          {GRIDS.map((id) => (
            <Chip key={id} role="radio" chosen={id === grid} onPress={() => set({ grid: id })}>
              {id === 'free' ? 'at once' : id}
            </Chip>
          ))}
        </ChipGroup>
        {pads === 'snapshots' ? null : (
          <ChipGroup name="A pad is" role="radiogroup">
            <Chip
              role="radio"
              chosen={!latches}
              onPress={() => set({ latched: latched.filter((kind) => kind !== pads) })}
            >
              held
            </Chip>
            <Chip
              role="radio"
              chosen={latches}
              onPress={() => set({ latched: [...latched.filter((kind) => kind !== pads), pads] })}
            >
              tapped on and off
            </Chip>
          </ChipGroup>
        )}
        <SmallPrint />
      </ScrollView>
    </Sheet>
  );
}

const styles = StyleSheet.create({ list: { maxHeight: 560 }, does: { marginTop: 8 } });

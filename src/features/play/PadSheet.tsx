import { ScrollView, StyleSheet } from 'react-native';
import { GRIDS } from '../../core/effects/hold/params';
import { Chip } from '../../ui/Chip';
import { ChipGroup } from '../../ui/ChipGroup';
import { Sheet } from '../../ui/Sheet';
import { Text } from '../../ui/Text';
import { usePiece } from '../studio/StudioProvider';
import { SmallPrint } from './SmallPrint';
import { PAD_KINDS, usePlayState, type PadKind } from './playState';
import { RadioChips } from '../../ui/RadioChips';

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
        <RadioChips
          name="What they play"
          options={PAD_KINDS.map((kind) => ({
            text: KINDS[kind].name,
            chosen: kind === pads,
            choose: () => set({ pads: kind }),
          }))}
        />
        <Text variant="bodySmall" style={styles.does}>
          {KINDS[pads].does}
        </Text>
        {pads === 'throws' ? (
          <RadioChips
            name="Track that is thrown"
            options={piece.tracks.map(({ id, name }) => ({
              text: name,
              chosen: id === track?.id,
              choose: () => set({ thrown: id }),
            }))}
          />
        ) : null}
        <RadioChips
          name="Start and end on"
          options={GRIDS.map((id) => ({
            text: id === 'free' ? 'at once' : id,
            chosen: id === grid,
            choose: () => set({ grid: id }),
          }))}
        />
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

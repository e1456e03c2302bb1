import { useState } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { EFFECTS } from '../../core/effects/catalogue';
import { addEffect, newSlot } from '../../core/piece/edits/chain';
import { chainOf, channelIds, channelName } from '../../core/piece/find';
import { MAIN } from '../../core/piece/piece';
import { newId } from '../../data/newId';
import { useOpenPiece } from '../../data/openPiece';
import { Chip } from '../../ui/Chip';
import { ChipGroup } from '../../ui/ChipGroup';
import { ListItem } from '../../ui/ListItem';
import { Sheet } from '../../ui/Sheet';
import { usePiece } from '../studio/StudioProvider';
import { HoldOrder } from './HoldOrder';
import { usePlayState } from './playState';

const HOLDS = EFFECTS.filter(({ family }) => family === 'hold');

/** Adds a hold to the end of a channel's chain: one tap, and it is a stone. Those that are there can be sorted. */
export function AddHold({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  const piece = usePiece();
  const [channel, setChannel] = useState<string>(MAIN);
  const on = channelIds(piece).includes(channel) ? channel : MAIN;
  const ids = channelIds(piece);
  const add = (effect: (typeof HOLDS)[number]): void => {
    const id = newId();
    // The one after the neutral one starts on the grid.
    const preset = effect.presets[1]!.id;
    const at = chainOf(piece, on).length;
    if (useOpenPiece.getState().run(addEffect, { channel: on, slot: newSlot(id, effect.id, preset), at }))
      usePlayState.getState().set({ hold: id });
    onClose();
  };
  return (
    <Sheet title="Add a hold" visible={open} onClose={onClose}>
      <ScrollView style={styles.list}>
        <ChipGroup name="Where it is played" role="radiogroup">
          {[ids[ids.length - 1]!, ...ids.slice(0, -1)].map((id) => (
            <Chip key={id} role="radio" chosen={id === on} onPress={() => setChannel(id)}>
              {channelName(piece, id)}
            </Chip>
          ))}
        </ChipGroup>
        {HOLDS.map((effect) => (
          <ListItem
            key={effect.id}
            title={effect.name}
            note={effect.purpose}
            label={`Add ${effect.name}. ${effect.purpose}`}
            variant="headlineSmall"
            style={styles.item}
            onPress={() => add(effect)}
          />
        ))}
        <HoldOrder channel={on} />
      </ScrollView>
    </Sheet>
  );
}

const styles = StyleSheet.create({ list: { maxHeight: 580 }, item: { alignItems: 'flex-start', paddingVertical: 8 } });

import { useState } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { choosePreset } from '../../core/piece/edits/chain';
import type { Slot } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { Text } from '../../ui/Text';
import { ListItem } from '../../ui/ListItem';
import { Touchable } from '../../ui/Touchable';

/**
 * The preset an effect started from; opens the list of all, each with its purpose. Choosing is heard at once and can be
 * undone.
 */
export function PresetButton({ channel, slot }: { readonly channel: string; readonly slot: Slot }) {
  const [open, setOpen] = useState(false);
  const { presets, name } = effectOf(slot.effect);
  const chosen = presets.find((preset) => preset.id === slot.preset);
  return (
    <>
      <Touchable
        label={`Preset: ${chosen?.name ?? 'own'}`}
        mode="outlined"
        style={styles.button}
        onPress={() => setOpen(true)}
      >
        <Text numberOfLines={1} style={styles.name}>
          {chosen?.name ?? 'Own setting'} ▾
        </Text>
      </Touchable>
      <Sheet title={`${name}: start from`} visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={styles.list}>
          {presets.map((preset) => (
            <ListItem
              key={preset.id}
              role="radio"
              title={preset.id === slot.preset ? `${preset.name}  ·  now` : preset.name}
              note={preset.purpose}
              label={`${preset.name}. ${preset.purpose}`}
              chosen={preset.id === slot.preset}
              variant="headlineSmall"
              style={styles.item}
              onPress={() => {
                useOpenPiece.getState().run(choosePreset, { channel, slot: slot.id, preset: preset.id });
                setOpen(false);
              }}
            />
          ))}
        </ScrollView>
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  button: { flexShrink: 1 },
  name: { fontSize: 14 },
  list: { maxHeight: 520 },
  item: { alignItems: 'flex-start', paddingVertical: 8 },
});

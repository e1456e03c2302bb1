import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { choosePreset } from '../../core/piece/edits/chain';
import type { Slot } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';

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
      <Tap label={`Preset: ${chosen?.name ?? 'own'}`} onPress={() => setOpen(true)} style={styles.button}>
        <Words numberOfLines={1} style={styles.name}>
          {chosen?.name ?? 'Own setting'} ▾
        </Words>
      </Tap>
      <Sheet title={`${name}: start from`} visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={styles.list}>
          {presets.map((preset) => (
            <Tap
              key={preset.id}
              role="radio"
              label={`${preset.name}. ${preset.purpose}`}
              chosen={preset.id === slot.preset}
              plain
              onPress={() => {
                useOpenPiece.getState().run(choosePreset, { channel, slot: slot.id, preset: preset.id });
                setOpen(false);
              }}
              style={styles.item}
            >
              <View>
                <Words kind="water">{preset.id === slot.preset ? `${preset.name}  ·  now` : preset.name}</Words>
                <Words kind="small">{preset.purpose}</Words>
              </View>
            </Tap>
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

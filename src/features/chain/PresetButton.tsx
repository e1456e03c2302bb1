import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { choosePreset, takeOwnPreset } from '../../core/piece/edits/chain';
import type { Slot } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { NameField } from '../../ui/NameField';
import { Sheet } from '../../ui/Sheet';
import { Text } from '../../ui/Text';
import { ListItem } from '../../ui/ListItem';
import { Touchable } from '../../ui/Touchable';
import { ownPresets, useBlocks, useKeepPreset } from '../shared/blocks/ownPresets';

/**
 * The preset an effect started from; opens the list of all, each with its purpose, and those of one's own. Choosing is
 * heard at once and can be undone.
 */
export function PresetButton({ channel, slot }: { readonly channel: string; readonly slot: Slot }) {
  const [open, setOpen] = useState(false);
  const { presets, name } = effectOf(slot.effect);
  const chosen = presets.find((preset) => preset.id === slot.preset);
  const close = (): void => setOpen(false);
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
      <Sheet title={`${name}: start from`} visible={open} onClose={close}>
        {open ? (
          <ScrollView style={styles.list}>
            <OwnPresets channel={channel} slot={slot} onDone={close} />
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
                  close();
                }}
              />
            ))}
          </ScrollView>
        ) : null}
      </Sheet>
    </>
  );
}

interface OwnPresetsProps {
  readonly channel: string;
  readonly slot: Slot;
  readonly onDone: () => void;
}

/** Settings that a person has kept of this kind of effect, in any piece, and the way to keep this one. */
function OwnPresets({ channel, slot, onDone }: OwnPresetsProps) {
  const own = ownPresets(useBlocks(), slot.effect);
  const [naming, setNaming] = useState(false);
  const { keep, remove } = useKeepPreset(slot);
  const { name } = effectOf(slot.effect);
  return (
    <View role="group" aria-label="Presets of your own">
      {naming ? (
        <NameField
          label="Name of the preset"
          initial={`${name}, mine`}
          action="Keep"
          actionLabel="Keep the preset"
          onName={(called) => {
            keep.mutate(called);
            setNaming(false);
          }}
        />
      ) : (
        <Button icon="plus" label="Keep as a preset of your own" style={styles.keep} onPress={() => setNaming(true)}>
          Keep this setting as your own
        </Button>
      )}
      {own.map((preset) => (
        <View key={preset.id} style={styles.own}>
          <ListItem
            title={preset.name}
            note={preset.purpose}
            variant="headlineSmall"
            style={[styles.item, styles.ownName]}
            onPress={() => {
              useOpenPiece
                .getState()
                .run(takeOwnPreset, { channel, slot: slot.id, name: preset.name, values: preset.values });
              onDone();
            }}
          />
          <IconButton
            icon="trash-2"
            label={`Remove preset ${preset.name}`}
            tone="mute"
            onPress={() => remove.mutate(preset.id)}
          />
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  button: { flexShrink: 1 },
  name: { fontSize: 14 },
  list: { maxHeight: 520 },
  keep: { alignSelf: 'flex-start', marginVertical: 6 },
  own: { flexDirection: 'row', alignItems: 'center' },
  ownName: { flex: 1 },
  item: { alignItems: 'flex-start', paddingVertical: 8 },
});

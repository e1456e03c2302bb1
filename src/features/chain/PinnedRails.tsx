import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { isVisible } from '../../core/effects/visibleWhen';
import { paramName } from '../../core/piece/paramName';
import type { Slot } from '../../core/piece/piece';
import { keepPreferences, usePreferences } from '../../data/preferences';
import { Chip } from '../../ui/Chip';
import { IconButton } from '../../ui/IconButton';
import { Sheet } from '../../ui/Sheet';
import { Text } from '../../ui/Text';
import { useTokens } from '../../ui/theme';
import { SlotRail } from '../shared/channels/SlotRail';

/** As many fit side by side without covering the others. */
const MOST = 4;
const NONE: readonly string[] = [];

interface PinnedRailsProps {
  readonly channel: string;
  readonly slot: Slot;
  readonly width: number;
}

/** The pinned rails, side by side under the picture whatever section is open. */
export function PinnedRails({ channel, slot, width }: PinnedRailsProps) {
  const tokens = useTokens();
  const definition = effectOf(slot.effect);
  const pinned = usePreferences((preferences) => preferences.pinned[slot.effect] ?? NONE);
  const shown = pinned.filter((id) => definition.params[id] && isVisible(definition, id, slot));
  if (shown.length === 0) return null;
  return (
    <View
      role="group"
      aria-label="Pinned rails"
      style={[styles.pinned, { borderColor: tokens.line, backgroundColor: tokens.card }]}
    >
      {shown.map((id) => (
        <View key={id} style={{ width: shown.length === 1 ? width - 36 : (width - 52) / 2 }}>
          <SlotRail channel={channel} slot={slot} param={id} before="Pinned" />
        </View>
      ))}
    </View>
  );
}

/** Opens the choice of rails that are pinned to the head of this kind of effect. */
export function PinButton({ slot }: { readonly slot: Slot }) {
  const [open, setOpen] = useState(false);
  const { params, paramIds, name } = effectOf(slot.effect);
  const pinned = usePreferences((preferences) => preferences.pinned);
  const own = pinned[slot.effect] ?? NONE;
  const ridden = paramIds.filter((id) => params[id]!.kind !== 'choice');
  const toggle = (id: string): void => {
    const next = own.includes(id) ? own.filter((other) => other !== id) : [...own, id];
    keepPreferences({ pinned: { ...pinned, [slot.effect]: next } });
  };
  return (
    <>
      <IconButton icon="bookmark" label="Pin rails under the picture" tone="mute" onPress={() => setOpen(true)} />
      <Sheet title={`Rails of ${name} in sight`} visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={styles.list}>
          <Text variant="bodySmall">{`Up to ${MOST} stand under the picture, whatever section is open.`}</Text>
          <View role="group" aria-label="Pinned rails" style={styles.chips}>
            {ridden.map((id) => (
              <Chip
                key={id}
                role="switch"
                label={`Pin ${paramName(slot, id)}`}
                chosen={own.includes(id)}
                disabled={own.length >= MOST && !own.includes(id)}
                tone="sea"
                onPress={() => toggle(id)}
              >
                {paramName(slot, id)}
              </Chip>
            ))}
          </View>
        </ScrollView>
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  pinned: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 16, paddingHorizontal: 18, borderBottomWidth: 1 },
  list: { maxHeight: 520 },
  chips: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 12 },
});

import { Fragment, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { isVisible } from '../../core/effects/visibleWhen';
import { chainOf, channelName } from '../../core/piece/find';
import type { Slot } from '../../core/piece/piece';
import { usePreferences } from '../../data/preferences';
import { Text } from '../../ui/Text';
import { Touchable } from '../../ui/Touchable';
import { useTokens } from '../../ui/theme';
import { ChannelRails } from '../shared/channels/ChannelRails';
import { SlotRail } from '../shared/channels/SlotRail';
import { usePiece } from '../studio/StudioProvider';
import { leadingParams } from './leadingParams';

/** The rails of a channel beside its lanes, so that a hand sees its lane appear while it rides. */
export function MovesRails({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const tokens = useTokens();
  return (
    <View role="region" aria-label="Rails" style={[styles.pane, { borderColor: tokens.line }]}>
      <ScrollView contentContainerStyle={styles.body}>
        <Text variant="bodySmall">{`Rails of ${channelName(piece, channel)}`}</Text>
        <ChannelRails channel={channel} before="Channel" />
        {chainOf(piece, channel).map((slot, i, chain) => (
          <EffectRails key={slot.id} channel={channel} slot={slot} spoken={nameIn(chain, i)} />
        ))}
        {chainOf(piece, channel).length === 0 ? (
          <Text variant="bodySmall">No effects yet: their rails stand here once there are some, in Chain.</Text>
        ) : null}
      </ScrollView>
    </View>
  );
}

/** "Echo", or "Echo 2" for the second of its kind in a chain. */
function nameIn(chain: readonly Slot[], at: number): string {
  const { effect } = chain[at]!;
  const before = chain.slice(0, at).filter((slot) => slot.effect === effect).length;
  return before === 0 ? effectOf(effect).name : `${effectOf(effect).name} ${before + 1}`;
}

const NONE: readonly string[] = [];

interface EffectRailsProps {
  readonly channel: string;
  readonly slot: Slot;
  readonly spoken: string;
}

function EffectRails({ channel, slot, spoken }: EffectRailsProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const [all, setAll] = useState(false);
  const pinned = usePreferences((preferences) => preferences.pinned[slot.effect] ?? NONE);
  const definition = effectOf(slot.effect);
  const ids = (all ? definition.paramIds : leadingParams(piece, channel, slot, pinned)).filter((id) =>
    isVisible(definition, id, slot),
  );
  return (
    <View role="group" aria-label={`Rails of ${spoken}`} style={[styles.effect, { borderColor: tokens.line }]}>
      <Touchable
        label={`${all ? 'The leading rails' : 'All rails'} of ${spoken}`}
        style={styles.head}
        onPress={() => setAll(!all)}
      >
        <Text variant="titleSmall">{spoken}</Text>
        <Text variant="bodySmall">{all ? 'fewer' : 'all rails'}</Text>
      </Touchable>
      {ids.map((id, i) => {
        const { group } = definition.params[id]!;
        const begins = all && (i === 0 || definition.params[ids[i - 1]!]!.group !== group);
        return (
          <Fragment key={id}>
            {begins ? <Text variant="bodySmall">{group}</Text> : null}
            <SlotRail channel={channel} slot={slot} param={id} before={spoken} />
          </Fragment>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  pane: { width: 340, borderLeftWidth: 1, minHeight: 0 },
  body: { paddingHorizontal: 18, paddingTop: 12, paddingBottom: 20 },
  effect: { borderTopWidth: 1, marginTop: 12, paddingTop: 4 },
  head: { flexDirection: 'row', justifyContent: 'space-between', paddingHorizontal: 0, borderRadius: 8 },
});

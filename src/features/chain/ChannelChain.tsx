import { ScrollView, StyleSheet, View } from 'react-native';
import { channelName, chainOf } from '../../core/piece/find';
import { Text } from '../../ui/Text';
import { useWide } from '../../ui/theme';
import { usePiece } from '../studio/StudioProvider';
import { ChainEffects } from './ChainEffects';
import { ChannelButton } from '../shared/channels/ChannelButton';
import { ChannelMenu } from '../shared/channels/ChannelMenu';
import { EffectChoices } from '../shared/channels/EffectChoices';
import { HelpButton } from '../shared/shell/HelpButton';
import { ChannelStrip } from './ChannelStrip';

/**
 * A channel's chain from top to bottom. Effects come first: the channel's own controls are folded into one line above
 * them.
 * @param starters true to offer presets in an empty chain
 */
export function ChannelChain({ channel, starters = true }: { readonly channel: string; readonly starters?: boolean }) {
  const piece = usePiece();
  const chain = chainOf(piece, channel);
  const name = channelName(piece, channel);
  const wide = useWide();
  return (
    <ScrollView contentContainerStyle={styles.strand}>
      <View style={styles.head}>
        <View style={styles.name}>
          <ChannelButton channel={channel} />
        </View>
        <ChannelMenu channel={channel} />
        {wide ? null : <HelpButton />}
      </View>
      <ChannelStrip channel={channel} name={name} />
      {chain.length > 0 ? (
        <View style={styles.legend}>
          <Text variant="bodySmall" tone="sandInk">
            ▬ dry
          </Text>
          <Text variant="bodySmall" tone="sea">
            ▬ wet
          </Text>
          <Text variant="bodySmall">thickness is level</Text>
        </View>
      ) : null}
      <ChainEffects channel={channel} chain={chain} name={name} />
      {chain.length === 0 && starters ? (
        <View style={styles.starters}>
          <Text variant="bodySmall">{`${name} sounds as it was recorded. Start from a purpose:`}</Text>
          <EffectChoices channel={channel} at={0} />
        </View>
      ) : null}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  strand: { paddingHorizontal: 16, paddingTop: 8, paddingBottom: 16 },
  head: { flexDirection: 'row', alignItems: 'center' },
  name: { flex: 1, minWidth: 0 },
  legend: { flexDirection: 'row', gap: 14, marginBottom: 8 },
  starters: { gap: 6 },
});

import { ScrollView, StyleSheet, View } from 'react-native';
import { channelName, chainOf, findChannel } from '../../core/piece/find';
import { channelParams, MAIN } from '../../core/piece/piece';
import { Text } from '../../ui/Text';
import { CompareSheet } from './compare/CompareSheet';
import { SnapshotButton } from '../shared/snapshots/SnapshotButton';
import { MeteringSheet } from './metering/MeteringSheet';
import { SendList } from '../shared/sends/SendList';
import { usePiece } from '../studio/StudioProvider';
import { ChainEffects } from './ChainEffects';
import { ChannelButton } from '../shared/channels/ChannelButton';
import { ChannelMenu } from '../shared/channels/ChannelMenu';
import { EffectChoices } from '../shared/channels/EffectChoices';
import { ImageMeter } from './ImageMeter';
import { ParamRail } from '../shared/channels/ParamRail';

/** A channel's chain as a thread from top to bottom, then the channel's own level and place. */
export function ChannelChain({ channel, starters = true }: { readonly channel: string; readonly starters?: boolean }) {
  const piece = usePiece();
  const chain = chainOf(piece, channel);
  const own = findChannel(piece, channel);
  const gain = channel === MAIN ? piece.main.gain : (own?.gain ?? 1);
  return (
    <ScrollView contentContainerStyle={styles.strand}>
      <Text variant="bodySmall">{piece.name}</Text>
      <View style={styles.head}>
        <View style={styles.name}>
          <ChannelButton channel={channel} />
        </View>
        <ChannelMenu channel={channel} />
      </View>
      <View style={styles.legend}>
        <Text variant="bodySmall" tone="sandInk">
          ▬ dry
        </Text>
        <Text variant="bodySmall" tone="sea">
          ▬ wet
        </Text>
        <Text variant="bodySmall">thickness is level</Text>
      </View>
      <ChainEffects channel={channel} chain={chain} name={channelName(piece, channel)} />
      <View style={styles.channelRails}>
        <ParamRail
          target={{ kind: 'channel', channel, param: 'gain' }}
          param={channelParams.gain}
          value={gain}
          look="plain"
        />
        {own ? (
          <ParamRail
            target={{ kind: 'channel', channel, param: 'pan' }}
            param={channelParams.pan}
            value={own.pan}
            look="plain"
          />
        ) : null}
        <ImageMeter channel={channel} />
        <View style={styles.sheets}>
          <MeteringSheet channel={channel} />
          <CompareSheet channel={channel} />
          <SnapshotButton channel={channel} />
        </View>
        <SendList channel={channel} />
      </View>
      {chain.length === 0 && starters ? (
        <View style={styles.starters}>
          <Text variant="bodySmall">{`${channelName(piece, channel)} sounds as it was recorded. Start from a purpose:`}</Text>
          <EffectChoices channel={channel} at={0} />
        </View>
      ) : null}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  sheets: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, marginTop: 8 },
  strand: { padding: 16 },
  head: { flexDirection: 'row', alignItems: 'center' },
  name: { flex: 1, minWidth: 0 },
  legend: { flexDirection: 'row', gap: 14, marginBottom: 8 },
  starters: { marginTop: 14, gap: 6 },
  channelRails: { marginTop: 8, gap: 4 },
});

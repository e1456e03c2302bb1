import { StyleSheet, View } from 'react-native';
import { formatValue } from '../../core/params/format';
import { contextOf, findChannel } from '../../core/piece/find';
import { channelParams, MAIN } from '../../core/piece/piece';
import { useView } from '../../data/view';
import { Text } from '../../ui/Text';
import { Touchable } from '../../ui/Touchable';
import { useTokens } from '../../ui/theme';
import { ChannelRails } from '../shared/channels/ChannelRails';
import { SendList } from '../shared/sends/SendList';
import { SnapshotButton } from '../shared/snapshots/SnapshotButton';
import { usePiece } from '../studio/StudioProvider';
import { CompareSheet } from './compare/CompareSheet';
import { ImageMeter } from './ImageMeter';
import { MeteringSheet } from './metering/MeteringSheet';

interface ChannelStripProps {
  readonly channel: string;
  readonly name: string;
}

/** The channel's own controls, in one line; unfolded: level, pan, sends and meters. */
export function ChannelStrip({ channel, name }: ChannelStripProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const open = useView((view) => view.strip);
  const own = findChannel(piece, channel);
  const gain = channel === MAIN ? piece.main.gain : (own?.gain ?? 1);
  const context = contextOf(piece);
  const sends = own?.sends.length ?? 0;
  const said = [
    formatValue(channelParams.gain, gain, context),
    ...(own ? [formatValue(channelParams.pan, own.pan, context)] : []),
    ...(own ? [sends === 1 ? '1 send' : sends === 0 ? 'no sends' : `${sends} sends`] : []),
  ].join(' · ');
  return (
    <View style={[styles.strip, { borderColor: tokens.line }]}>
      <Touchable
        label={`${open ? 'Fold' : 'Unfold'} level, sends and tools of ${name}: ${said}`}
        style={styles.line}
        onPress={() => useView.setState({ strip: !open })}
      >
        <View style={styles.words}>
          <Text style={styles.said} numberOfLines={1}>
            {said}
          </Text>
          <Text tone="mute">{open ? 'Fold ▴' : 'Level and sends ▾'}</Text>
        </View>
      </Touchable>
      {open ? (
        <View style={styles.rails}>
          <ChannelRails channel={channel} />
          <ImageMeter channel={channel} />
          <View style={styles.sheets}>
            <MeteringSheet channel={channel} />
            <CompareSheet channel={channel} />
            <SnapshotButton channel={channel} />
          </View>
          <SendList channel={channel} />
        </View>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  strip: { borderTopWidth: 1, borderBottomWidth: 1, marginBottom: 12 },
  line: { alignItems: 'stretch', marginHorizontal: -8, paddingHorizontal: 8 },
  words: { flexDirection: 'row', alignItems: 'center', gap: 10 },
  said: { flex: 1, minWidth: 0 },
  rails: { gap: 4, paddingBottom: 12 },
  sheets: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, marginTop: 8 },
});

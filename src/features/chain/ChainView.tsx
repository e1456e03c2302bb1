import { ScrollView, StyleSheet, View } from 'react-native';
import { chainOf, channelName, findSlot } from '../../core/piece/find';
import { useView } from '../../data/view';
import { useTokens, useWide } from '../../ui/theme';
import { Text } from '../../ui/Text';
import { MeteringPanel } from './metering/MeteringPanel';
import { useChannel, usePiece } from '../studio/StudioProvider';
import { EffectEditor } from './EffectEditor';
import { EffectChoices } from '../shared/channels/EffectChoices';
import { ChannelChain } from './ChannelChain';

/** The chain of the chosen channel; on a phone the editor of an effect replaces it when its card is tapped. */
export function ChainView() {
  const piece = usePiece();
  const wide = useWide();
  const tokens = useTokens();
  const slot = useView((view) => view.slot);
  const channel = useChannel();
  if (!wide) return <ChannelPane />;
  const open = slot ? findSlot(piece, channel, slot) : undefined;
  return (
    <View style={styles.panes}>
      <View style={[styles.chainPane, { borderColor: tokens.line }]}>
        <ChannelChain channel={channel} starters={false} />
      </View>
      <View style={styles.editorPane}>
        {open ? <EffectEditor key={open.id} channel={channel} slot={open} /> : <NoBench channel={channel} />}
      </View>
    </View>
  );
}

/** One pane for the chosen channel: the editor of the open effect, else the chain. */
export function ChannelPane() {
  const piece = usePiece();
  const channel = useChannel();
  const slot = useView((view) => view.slot);
  const open = slot ? findSlot(piece, channel, slot) : undefined;
  return open ? (
    <EffectEditor key={open.id} channel={channel} slot={open} onBack={() => useView.setState({ slot: null })} />
  ) : (
    <ChannelChain channel={channel} />
  );
}

function NoBench({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  if (chainOf(piece, channel).length === 0) {
    return (
      <ScrollView contentContainerStyle={styles.starters}>
        <Text>{`${channelName(piece, channel)} sounds as it was recorded. Start from a purpose:`}</Text>
        <EffectChoices channel={channel} at={0} roomy />
      </ScrollView>
    );
  }
  return (
    <ScrollView contentContainerStyle={styles.starters}>
      <MeteringPanel channel={channel} name={channelName(piece, channel)} />
      <Text variant="bodySmall">Tap an effect of the chain: its editor opens here.</Text>
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  panes: { flex: 1, flexDirection: 'row', minHeight: 0 },
  chainPane: { width: 400, borderRightWidth: 1 },
  editorPane: { flex: 1, minWidth: 0, minHeight: 0 },
  starters: { padding: 24, gap: 10 },
});

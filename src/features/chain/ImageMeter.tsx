import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { channelIds } from '../../core/piece/find';
import { formatDb } from '../../core/params/format';
import { elementOf, useFrame } from '../../ui/frame';
import { LiveText } from '../../ui/LiveText';
import { useTokens } from '../../ui/theme';
import { Text } from '../../ui/Text';
import { usePiece, useStudio } from '../studio/StudioProvider';

/** Stereo correlation of a channel, and its loss in mono. */
export function ImageMeter({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const mark = useRef<View>(null);
  const index = channelIds(piece).indexOf(channel);
  useFrame(() => {
    const element = elementOf(mark.current);
    if (element) element.style.left = `${(50 + 50 * studio.player.meters.correlation(index)).toFixed(1)}%`;
  });
  return (
    <View role="group" aria-label="Correlation of the sides" style={styles.meter}>
      <View style={styles.words}>
        <Text variant="bodySmall">correlation −1</Text>
        <View style={styles.figures}>
          <Text variant="bodySmall">in mono</Text>
          <LiveText strong size={13} label="Loss in mono" read={() => formatDb(studio.player.meters.monoDb(index))} />
        </View>
        <Text variant="bodySmall">+1</Text>
      </View>
      <View aria-hidden style={[styles.line, { backgroundColor: tokens.line }]}>
        <View style={[styles.middle, { backgroundColor: tokens.mute }]} />
        <View ref={mark} style={[styles.mark, { backgroundColor: tokens.sea }]} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  meter: { marginTop: 8, marginBottom: 4, gap: 4 },
  words: { flexDirection: 'row', justifyContent: 'space-between' },
  figures: { flexDirection: 'row', gap: 6 },
  line: { height: 4, borderRadius: 2, marginHorizontal: 7 },
  middle: { position: 'absolute', left: '50%', top: -3, width: 1, height: 10 },
  mark: { position: 'absolute', top: -4, marginLeft: -6, width: 12, height: 12, borderRadius: 6 },
});

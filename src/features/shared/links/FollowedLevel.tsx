import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Follower } from '../../../core/automation/modulator';
import { channelName } from '../../../core/piece/find';
import { elementOf, useFrame } from '../../../ui/frame';
import { useTokens } from '../../../ui/theme';
import { Text } from '../../../ui/Text';
import { usePiece, useStudio } from '../../studio/StudioProvider';

/** The present value of a follower, as a height. */
export function FollowedLevel({ modulator }: { readonly modulator: Follower }) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const bar = useRef<View>(null);
  const index = piece.modulators.findIndex(({ id }) => id === modulator.id);
  useFrame(() => {
    const element = elementOf(bar.current);
    if (element) element.style.width = `${(100 * studio.player.meters.turn(index)).toFixed(1)}%`;
  });
  const name = channelName(piece, modulator.follows ?? '');
  return (
    <View role="img" aria-label={`${modulator.name} goes by how loud ${name} is`} style={styles.meter}>
      <Text variant="bodySmall">{`hears ${name}`}</Text>
      <View style={[styles.field, { backgroundColor: tokens.paper }]}>
        <View ref={bar} style={[styles.bar, { backgroundColor: tokens.coral }]} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  meter: { gap: 4, marginTop: 4 },
  field: { height: 14, borderRadius: 7, overflow: 'hidden' },
  bar: { height: 14, width: 0, borderRadius: 7 },
});

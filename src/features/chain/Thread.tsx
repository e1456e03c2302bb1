import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { channelIds } from '../../core/piece/find';
import { elementOf, useFrame } from '../../ui/frame';
import { useTokens } from '../../ui/theme';
import { usePiece, useStudio } from '../studio/StudioProvider';

const THINNEST = 1.5;
const THICKEST = 12;

/** The thread beside a bead: sand as thick as the dry sound, sea as thick as the wet, at this moment. */
export function Thread({ channel, first, end = false }: { readonly channel: string; readonly first: boolean; readonly end?: boolean }) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const sand = useRef<View>(null);
  const sea = useRef<View>(null);
  const index = channelIds(piece).indexOf(channel);
  useFrame(() => {
    const { meters } = studio.player;
    const thick = (peak: number): string => `${(THINNEST + (THICKEST - THINNEST) * Math.pow(Math.min(1, peak), 0.5)).toFixed(1)}px`;
    const dry = elementOf(sand.current);
    const wet = elementOf(sea.current);
    if (dry) dry.style.width = thick(meters.peak(index, 2));
    if (wet) wet.style.width = first ? '0px' : thick(meters.peak(index, 3));
  });
  return (
    <View aria-hidden style={styles.thread}>
      <View style={styles.lines}>
        <View ref={sand} style={[styles.line, { backgroundColor: tokens.sand }]} />
        <View ref={sea} style={[styles.line, { backgroundColor: tokens.sea }]} />
      </View>
      {end ? null : <View style={[styles.knot, { backgroundColor: tokens.card, borderColor: tokens.ink }]} />}
    </View>
  );
}

const styles = StyleSheet.create({
  thread: { width: 40, alignItems: 'center' },
  lines: { position: 'absolute', top: 0, bottom: 0, width: 28, flexDirection: 'row', justifyContent: 'center' },
  line: { flexShrink: 0 },
  knot: { position: 'absolute', top: 40, width: 20, height: 20, borderRadius: 10, borderWidth: 2 },
});

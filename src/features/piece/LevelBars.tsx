import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { elementOf, useFrame } from '../../ui/frame';
import { useTokens } from '../../ui/theme';
import { useStudio } from '../studio/StudioProvider';

/** Dry and wet level of a channel at this moment, sand over sea, 60 dB wide. */
export function LevelBars({ index }: { readonly index: number }) {
  const tokens = useTokens();
  const { studio } = useStudio();
  const sand = useRef<View>(null);
  const sea = useRef<View>(null);
  useFrame(() => {
    const { meters } = studio.player;
    const share = (peak: number): string =>
      `scaleX(${Math.max(0, Math.min(1, 1 + (20 * Math.log10(Math.max(peak, 1e-6))) / 60)).toFixed(3)})`;
    const dry = elementOf(sand.current);
    const wet = elementOf(sea.current);
    if (dry) dry.style.transform = share(meters.peak(index, 2));
    if (wet) wet.style.transform = share(meters.peak(index, 3));
  });
  return (
    <View aria-hidden style={styles.bars}>
      <View style={[styles.bar, { backgroundColor: tokens.line }]}>
        <View ref={sand} style={[styles.fill, { backgroundColor: tokens.sand }]} />
      </View>
      <View style={[styles.bar, { backgroundColor: tokens.line }]}>
        <View ref={sea} style={[styles.fill, { backgroundColor: tokens.sea }]} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  bars: { gap: 3, marginTop: 3 },
  bar: { height: 4, borderRadius: 2, overflow: 'hidden' },
  fill: { height: 4, width: '100%', transformOrigin: 'left', transform: [{ scaleX: 0 }] },
});

import { useMemo, useRef } from 'react';
import { StyleSheet, View, type StyleProp, type ViewStyle } from 'react-native';
import { slotPlaces } from '../../../core/piece/find';
import { elementOf, useFrame } from '../../../ui/frame';
import { useTokens } from '../../../ui/theme';
import { usePiece, useStudio } from '../../studio/StudioProvider';

interface StrandLampProps {
  /** The braid. */
  readonly slot: string;
  readonly place: number;
  readonly style?: StyleProp<ViewStyle>;
}

/** Lit while its strand of a braid is let in, as the engine says at this moment; dark while nothing plays. */
export function StrandLamp({ slot, place, style }: StrandLampProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const lamp = useRef<View>(null);
  const index = useMemo(() => slotPlaces(piece).get(slot) ?? -1, [piece, slot]);
  useFrame(() => {
    const element = elementOf(lamp.current);
    if (!element) return;
    const { meters } = studio.player;
    element.style.opacity = meters.read().playing && meters.slotActivity(index) === place ? '1' : '0';
  });
  return (
    <View aria-hidden style={[styles.rim, { borderColor: tokens.coral }, style]}>
      <View ref={lamp} testID={`strand ${place} lit`} style={[styles.light, { backgroundColor: tokens.coral }]} />
    </View>
  );
}

const styles = StyleSheet.create({
  rim: { width: 14, height: 14, borderRadius: 7, borderWidth: 1.5, marginRight: 8, padding: 1.5 },
  light: { flex: 1, borderRadius: 5, opacity: 0 },
});

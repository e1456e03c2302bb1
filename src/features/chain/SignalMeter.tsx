import { useMemo, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { slotPlaces } from '../../core/piece/find';
import { elementOf, useFrame } from '../../ui/frame';
import { useTokens } from '../../ui/theme';
import { usePiece, useStudio } from '../studio/StudioProvider';

const THINNEST = 1.5;
const THICKEST = 12;

interface SignalMeterProps {
  /** The effect whose input is shown, or the last one at the end. */
  readonly slot: string;
  /** The effect before it, whose wet signal is shown; null at the beginning. */
  readonly before: string | null;
  readonly end?: boolean;
  /** True in a nested chain, where there is less room. */
  readonly narrow?: boolean;
}

/**
 * Meter between two effects: a sand line as thick as the dry level, a sea line as thick as the wet level of the one
 * before.
 */
export function SignalMeter({ slot, before, end = false, narrow = false }: SignalMeterProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const sand = useRef<View>(null);
  const sea = useRef<View>(null);
  const places = useMemo(() => slotPlaces(piece), [piece]);
  const here = places.get(slot) ?? -1;
  const last = before === null ? -1 : (places.get(before) ?? -1);
  useFrame(() => {
    const { meters } = studio.player;
    const dry = elementOf(sand.current);
    const wet = elementOf(sea.current);
    if (dry) dry.style.width = thick(meters.slotPeak(here, 0));
    if (wet) wet.style.width = last < 0 ? '0px' : thick(meters.slotPeak(last, 1));
  });
  return (
    <View aria-hidden style={[styles.thread, narrow && styles.narrow]}>
      <View style={styles.lines}>
        <View ref={sand} style={[styles.line, { backgroundColor: tokens.sand }]} />
        <View ref={sea} style={[styles.line, { backgroundColor: tokens.sea }]} />
      </View>
      {end ? null : <View style={[styles.knot, { backgroundColor: tokens.card, borderColor: tokens.ink }]} />}
    </View>
  );
}

const thick = (peak: number): string =>
  `${(THINNEST + (THICKEST - THINNEST) * Math.sqrt(Math.min(1, peak))).toFixed(1)}px`;

const styles = StyleSheet.create({
  thread: { width: 40, alignItems: 'center' },
  narrow: { width: 28 },
  lines: { position: 'absolute', top: 0, bottom: 0, width: 28, flexDirection: 'row', justifyContent: 'center' },
  line: { flexShrink: 0 },
  knot: { position: 'absolute', top: 34, width: 20, height: 20, borderRadius: 10, borderWidth: 2 },
});

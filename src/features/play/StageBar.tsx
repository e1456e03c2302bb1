import { useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { toBarBeat } from '../../core/music/grid';
import { tempoOf } from '../../core/piece/tempoOf';
import { useView } from '../../data/view';
import { elementOf, useFrame } from '../../ui/frame';
import { HoldArea } from '../../ui/HoldArea';
import { IconButton } from '../../ui/IconButton';
import { LiveText } from '../../ui/LiveText';
import { Text } from '../../ui/Text';
import { useTokens } from '../../ui/theme';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { canFillScreen, fillScreen } from './stage';

/** Time that it has to be held to unlock. */
const UNLOCK_MS = 3000;

/** The bar of stage lock: position, and the button to unlock, which has to be held. */
export function StageBar() {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const fill = useRef<View>(null);
  const began = useRef<number | null>(null);
  const [held, setHeld] = useState(false);
  const hold = (on: boolean): void => {
    began.current = on ? performance.now() : null;
    setHeld(on);
  };
  useFrame(() => {
    const share = began.current === null ? 0 : (performance.now() - began.current) / UNLOCK_MS;
    const element = elementOf(fill.current);
    if (element) element.style.width = `${Math.min(100, 100 * share)}%`;
    if (share >= 1) useView.setState({ stage: false });
  });
  const place = (): string => {
    const { bar, beat } = toBarBeat(studio.beat, tempoOf(piece));
    return `${bar} . ${beat}`;
  };
  return (
    <View style={styles.bar}>
      <LiveText strong size={20} read={place} />
      <Text numberOfLines={1} style={styles.name}>
        {piece.name}
      </Text>
      {canFillScreen() ? <IconButton icon="maximize" label="Full screen" onPress={fillScreen} /> : null}
      <HoldArea
        label="Unlock: hold for three seconds"
        onBegin={() => hold(true)}
        onEnd={() => hold(false)}
        style={[styles.lock, { borderColor: tokens.line }]}
      >
        <View ref={fill} style={[styles.fill, { backgroundColor: tokens.seaSoft }]} />
        <Text>{held ? 'Keep holding' : 'Hold to unlock'}</Text>
      </HoldArea>
    </View>
  );
}

const styles = StyleSheet.create({
  bar: { flexDirection: 'row', alignItems: 'center', gap: 14, minHeight: 54 },
  name: { flex: 1 },
  lock: {
    minHeight: 44,
    minWidth: 140,
    paddingHorizontal: 14,
    borderWidth: 1,
    borderRadius: 22,
    overflow: 'hidden',
  },
  fill: { position: 'absolute', left: 0, top: 0, bottom: 0, width: 0 },
});

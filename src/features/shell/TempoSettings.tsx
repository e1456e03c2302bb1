import { useRef } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { bpmFromTaps } from '../../core/music/tempo';
import { setMetre, setTempo } from '../../core/piece/edits/channels';
import { tempoLane } from '../../core/piece/tempoOf';
import { useOpenPiece } from '../../data/openPiece';
import { Text } from '../../ui/Text';
import { Touchable } from '../../ui/Touchable';
import { useTokens } from '../../ui/theme';
import { MetreChips, metreOfPiece } from '../shared/time/MetreChips';
import { usePiece } from '../studio/StudioProvider';
import { BpmForm } from './BpmForm';
import { bpmText } from './bpmText';
import { ClickChoice } from './ClickChoice';
import { TempoChange } from './TempoChange';

/** Taps farther apart than this begin a new count. */
const FORGET_SECONDS = 2.5;

/** Tempo, metre, and the click that is heard by them. @param onClose called when a tempo has been set */
export function TempoSettings({ onClose }: { readonly onClose: () => void }) {
  const piece = usePiece();
  return (
    <ScrollView style={styles.body}>
      {tempoLane(piece) ? null : <TempoForm onDone={onClose} />}

      <TempoChange onDone={onClose} />

      <MetreChips
        name="Metre"
        chosen={metreOfPiece(piece)}
        onChoose={(metre) => metre && useOpenPiece.getState().run(setMetre, metre)}
      />
      <Text variant="bodySmall">
        Bars are counted by it, and so are grids and note values of a bar. A section can have another.
      </Text>

      <ClickChoice />
    </ScrollView>
  );
}

function TempoForm({ onDone }: { readonly onDone: () => void }) {
  const piece = usePiece();
  const tokens = useTokens();
  const taps = useRef<number[]>([]);
  const set = (bpm: number): void => void useOpenPiece.getState().run(setTempo, { bpm });
  const submit = (bpm: number): void => {
    set(bpm);
    onDone();
  };
  const tap = (): void => {
    const now = performance.now() / 1000;
    const last = taps.current[taps.current.length - 1];
    taps.current = last !== undefined && now - last > FORGET_SECONDS ? [now] : [...taps.current, now];
    const bpm = taps.current.length >= 3 ? bpmFromTaps(taps.current) : null;
    if (bpm !== null) set(Math.round(bpm * 10) / 10);
  };
  return (
    <View style={styles.form}>
      <BpmForm
        label="Tempo in BPM"
        initial={bpmText(piece.tempo.bpm)}
        action="Set"
        actionLabel="Set tempo"
        onBpm={submit}
      />
      <Touchable
        label="Tap the tempo"
        mode="outlined"
        style={[styles.pad, { backgroundColor: tokens.sandSoft }]}
        onPress={tap}
      >
        <Text variant="titleLarge">tap here in time</Text>
      </Touchable>
      <Text variant="bodySmall">Note-value times follow the tempo; times in ms and samples stay.</Text>
    </View>
  );
}

const styles = StyleSheet.create({
  body: { maxHeight: 620 },
  form: { gap: 12 },
  pad: { height: 120, borderRadius: 18 },
});

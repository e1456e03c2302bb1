import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { bpmAt } from '../../core/music/tempo';
import { metreAt, metreName } from '../../core/music/metre';
import { tempoLane, tempoOf } from '../../core/piece/tempoOf';
import { LiveText } from '../../ui/LiveText';
import { Sheet } from '../../ui/Sheet';
import { Text } from '../../ui/Text';
import { Touchable } from '../../ui/Touchable';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { bpmText } from './bpmText';
import { lazySheet } from '../shared/shell/lazySheet';

/** Fetched when the sheet is opened first. */
const TempoSettings = lazySheet(async () => (await import('./TempoSettings')).TempoSettings);

/** The tempo; opens a field to type it and a pad to tap it. */
export function TempoButton() {
  const piece = usePiece();
  const { studio } = useStudio();
  const [open, setOpen] = useState(false);
  const moving = tempoLane(piece) !== undefined;
  const tempo = useMemo(() => tempoOf(piece), [piece]);
  return (
    <>
      <Touchable
        label={moving ? 'Tempo, which moves' : `Tempo ${bpmText(piece.tempo.bpm)} BPM`}
        style={styles.button}
        onPress={() => setOpen(true)}
      >
        {moving ? (
          <LiveText strong size={17} read={() => String(Math.round(bpmAt(studio.beat, tempo)))} />
        ) : (
          <Text variant="titleSmall" style={styles.figure}>
            {bpmText(piece.tempo.bpm)}
          </Text>
        )}
        <Text variant="bodySmall" tone={moving ? 'coralInk' : undefined}>
          {`${moving ? 'BPM ∿' : 'BPM'} ${metreName(metreAt(0, tempo))}`}
        </Text>
      </Touchable>
      <Sheet title="Tempo and metre" visible={open} onClose={() => setOpen(false)}>
        <View style={styles.body}>
          <TempoSettings onClose={() => setOpen(false)} />
        </View>
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  button: { alignItems: 'flex-start', minWidth: 48, paddingHorizontal: 2, borderRadius: 8 },
  figure: { fontSize: 17, lineHeight: 22 },
  // As high before it has come as afterwards.
  body: { minHeight: 480 },
});

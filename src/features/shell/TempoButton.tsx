import { lazy, Suspense, useMemo, useRef, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { bpmAt, bpmFromTaps } from '../../core/music/tempo';
import { metreAt, metreName } from '../../core/music/metre';
import { setMetre, setTempo } from '../../core/piece/edits/channels';
import { tempoLane, tempoOf } from '../../core/piece/tempoOf';
import { useOpenPiece } from '../../data/openPiece';
import { LiveText } from '../../ui/LiveText';
import { Sheet } from '../../ui/Sheet';
import { Text } from '../../ui/Text';
import { Touchable } from '../../ui/Touchable';
import { useTokens } from '../../ui/theme';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { MetreChips, metreOfPiece } from '../shared/time/MetreChips';
import { BpmForm } from './BpmForm';

/** What the sheet holds is fetched when it is opened first. */
const ClickChoice = lazy(async () => ({ default: (await import('./ClickChoice')).ClickChoice }));
const TempoChange = lazy(async () => ({ default: (await import('./TempoChange')).TempoChange }));

/** Taps farther apart than this begin a new count. */
const FORGET_SECONDS = 2.5;
const tidy = (bpm: number): string => String(Math.round(bpm * 100) / 100);

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
        label={moving ? 'Tempo, which moves' : `Tempo ${tidy(piece.tempo.bpm)} BPM`}
        style={styles.button}
        onPress={() => setOpen(true)}
      >
        {moving ? (
          <LiveText strong size={17} read={() => String(Math.round(bpmAt(studio.beat, tempo)))} />
        ) : (
          <Text variant="titleSmall" style={styles.figure}>
            {tidy(piece.tempo.bpm)}
          </Text>
        )}
        <Text variant="bodySmall" tone={moving ? 'coralInk' : undefined}>
          {`${moving ? 'BPM ∿' : 'BPM'} ${metreName(metreAt(0, tempo))}`}
        </Text>
      </Touchable>
      <Sheet title="Tempo and metre" visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={styles.body}>
          {moving ? null : <TempoForm onDone={() => setOpen(false)} />}
          <Suspense fallback={null}>
            <TempoChange onDone={() => setOpen(false)} />
          </Suspense>
          <MetreChips
            name="Metre"
            chosen={metreOfPiece(piece)}
            onChoose={(metre) => metre && useOpenPiece.getState().run(setMetre, metre)}
          />
          <Text variant="bodySmall">
            Bars are counted by it, and so are grids and note values of a bar. A section can have another.
          </Text>
          <Suspense fallback={null}>
            <ClickChoice />
          </Suspense>
        </ScrollView>
      </Sheet>
    </>
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
        initial={tidy(piece.tempo.bpm)}
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
  button: { alignItems: 'flex-start', minWidth: 52, paddingHorizontal: 4 },
  figure: { fontSize: 17, lineHeight: 22 },
  body: { maxHeight: 620 },
  form: { gap: 12 },
  pad: { height: 120, borderRadius: 18 },
});

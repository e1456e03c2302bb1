import { useMemo, useRef, useState } from 'react';
import { StyleSheet, TextInput, View } from 'react-native';
import { bpmAt, bpmFromTaps, MAX_BPM, MIN_BPM } from '../../core/music/tempo';
import { setTempo } from '../../core/piece/edits/channels';
import { tempoLane, tempoOf } from '../../core/piece/tempoOf';
import { useOpenPiece } from '../../data/openPiece';
import { LiveText } from '../../ui/LiveText';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { FONT_STRONG } from '../../ui/tokens';
import { Words } from '../../ui/Words';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { TempoChange } from './TempoChange';

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
      <Tap plain label={moving ? 'Tempo, which moves' : `Tempo ${tidy(piece.tempo.bpm)} BPM`} onPress={() => setOpen(true)} style={styles.button}>
        {moving ? <LiveText strong size={17} read={() => String(Math.round(bpmAt(studio.beat, tempo)))} /> : <Words kind="strong" style={styles.figure}>{tidy(piece.tempo.bpm)}</Words>}
        <Words kind="small" tone={moving ? 'coralInk' : undefined}>{moving ? 'BPM ∿' : 'BPM'}</Words>
      </Tap>
      <Sheet title="Tempo" visible={open} onClose={() => setOpen(false)}>
        {moving ? null : <TempoForm onDone={() => setOpen(false)} />}
        <TempoChange onDone={() => setOpen(false)} />
      </Sheet>
    </>
  );
}

function TempoForm({ onDone }: { readonly onDone: () => void }) {
  const piece = usePiece();
  const tokens = useTokens();
  const [typed, setTyped] = useState(tidy(piece.tempo.bpm));
  const [refusal, setRefusal] = useState<string | null>(null);
  const taps = useRef<number[]>([]);
  const set = (bpm: number): void => {
    useOpenPiece.getState().run(setTempo, { bpm });
    setTyped(tidy(bpm));
  };
  const submit = (): void => {
    const bpm = Number(typed.replace(',', '.'));
    if (!(bpm >= MIN_BPM && bpm <= MAX_BPM)) {
      setRefusal(`A tempo lies between ${MIN_BPM} and ${MAX_BPM} BPM.`);
      return;
    }
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
      <View style={styles.row}>
        <TextInput
          aria-label="Tempo in BPM"
          value={typed}
          onChangeText={setTyped}
          onSubmitEditing={submit}
          blurOnSubmit={false}
          inputMode="decimal"
          selectTextOnFocus
          style={[styles.input, { color: tokens.ink, borderColor: refusal ? tokens.danger : tokens.line }]}
        />
        <Words>BPM</Words>
        <Tap filled label="Set tempo" text="Set" onPress={submit} style={styles.set} />
      </View>
      {refusal ? <Words kind="small" tone="danger" role="alert">{refusal}</Words> : null}
      <Tap label="Tap the tempo" onPress={tap} style={[styles.pad, { backgroundColor: tokens.sandSoft }]}>
        <Words kind="title">tap here in time</Words>
      </Tap>
      <Words kind="small">Note-value times follow the tempo; times in ms and samples stay.</Words>
    </View>
  );
}

const styles = StyleSheet.create({
  button: { alignItems: 'flex-start', minWidth: 56, paddingHorizontal: 8 },
  figure: { fontSize: 17, lineHeight: 22 },
  form: { gap: 12 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 10 },
  input: { height: 48, width: 120, borderWidth: 1.5, borderRadius: 10, paddingHorizontal: 12, fontFamily: FONT_STRONG, fontSize: 20 },
  set: { marginLeft: 'auto', minWidth: 88 },
  pad: { height: 120, borderRadius: 18 },
});

import { useMemo, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { bpmAt, bpmFromTaps } from '../../core/music/tempo';
import { setTempo } from '../../core/piece/edits/channels';
import { tempoLane, tempoOf } from '../../core/piece/tempoOf';
import { useOpenPiece } from '../../data/openPiece';
import { LiveText } from '../../ui/LiveText';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { BPM_REFUSED, BpmField, readBpm } from './BpmField';
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
      <Tap
        plain
        label={moving ? 'Tempo, which moves' : `Tempo ${tidy(piece.tempo.bpm)} BPM`}
        onPress={() => setOpen(true)}
        style={styles.button}
      >
        {moving ? (
          <LiveText strong size={17} read={() => String(Math.round(bpmAt(studio.beat, tempo)))} />
        ) : (
          <Words kind="strong" style={styles.figure}>
            {tidy(piece.tempo.bpm)}
          </Words>
        )}
        <Words kind="small" tone={moving ? 'coralInk' : undefined}>
          {moving ? 'BPM ∿' : 'BPM'}
        </Words>
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
    const bpm = readBpm(typed);
    if (bpm === null) {
      setRefusal(BPM_REFUSED);
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
        <BpmField label="Tempo in BPM" value={typed} refused={refusal !== null} onChange={setTyped} onSubmit={submit} />
        <Words>BPM</Words>
        <Tap filled label="Set tempo" text="Set" onPress={submit} style={styles.set} />
      </View>
      {refusal ? (
        <Words kind="small" tone="danger" role="alert">
          {refusal}
        </Words>
      ) : null}
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
  set: { marginLeft: 'auto', minWidth: 88 },
  pad: { height: 120, borderRadius: 18 },
});

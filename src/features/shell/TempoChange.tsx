import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { toBarBeat } from '../../core/music/grid';
import { bpmAt } from '../../core/music/tempo';
import { tempoChange } from '../../core/piece/moves/tempoLane';
import { layMoves, removeLane } from '../../core/piece/edits/lanes';
import { findLane } from '../../core/piece/find';
import { MAIN, TEMPO_PARAM, type Target } from '../../core/piece/piece';
import { tempoLane, tempoOf } from '../../core/piece/tempoOf';
import { useOpenPiece } from '../../data/openPiece';
import { useSession } from '../../data/session';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { BPM_REFUSED, BpmField, readBpm } from './BpmField';
import { newId } from '../../data/newId';

const TARGET: Target = { channel: MAIN, effect: null, param: TEMPO_PARAM };
const OVER_BARS = [0, 1, 2, 4, 8] as const;
const over = (bars: number): string => (bars === 0 ? 'at once' : bars === 1 ? '1 bar' : `${bars} bars`);

/**
 * Another tempo from the playhead's beat on, at once or over some bars: a move of the tempo, to be drawn on like any
 * other.
 */
export function TempoChange({ onDone }: { readonly onDone: () => void }) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const [from] = useState(() => Math.round(studio.beat * 4) / 4);
  const [typed, setTyped] = useState('');
  const [bars, setBars] = useState<number>(0);
  const [refusal, setRefusal] = useState<string | null>(null);
  const moving = tempoLane(piece);
  const { bar, beat } = toBarBeat(from, piece.tempo);
  const now = Math.round(bpmAt(from, tempoOf(piece)) * 100) / 100;
  const change = (): void => {
    const bpm = readBpm(typed);
    if (bpm === null) {
      setRefusal(BPM_REFUSED);
      return;
    }
    const known = findLane(piece, TARGET);
    const points = tempoChange(piece, known?.points ?? [], from, bars * piece.tempo.beatsPerBar, bpm);
    const lane = known
      ? { ...known, on: true, points }
      : { id: newId(), target: TARGET, unit: 'own' as const, on: true, points };
    if (useOpenPiece.getState().run(layMoves, { lanes: [lane], what: 'Change' })) onDone();
  };
  const still = (): void => {
    if (moving && useOpenPiece.getState().run(removeLane, { lane: moving.id })) onDone();
  };
  return (
    <View
      role="group"
      aria-label="Tempo from here on"
      style={[styles.form, moving ? undefined : [styles.below, { borderColor: tokens.line }]]}
    >
      <Words kind="strong">{`From bar ${bar}, beat ${beat} on · ${now} BPM now`}</Words>
      <View style={styles.row}>
        <BpmField
          label="BPM from here on"
          value={typed}
          placeholder={String(now)}
          refused={refusal !== null}
          onChange={setTyped}
          onSubmit={change}
        />
        <Words>BPM</Words>
        <Tap
          filled
          tone="coralInk"
          label="Change the tempo from here on"
          text="Change"
          onPress={change}
          style={styles.set}
        />
      </View>
      {refusal ? (
        <Words kind="small" tone="danger" role="alert">
          {refusal}
        </Words>
      ) : null}
      <View role="radiogroup" aria-label="How fast it changes" style={styles.row}>
        {OVER_BARS.map((count) => (
          <Tap
            key={count}
            role="radio"
            chosen={bars === count}
            filled={bars === count}
            label={`Change over ${over(count)}`}
            text={over(count)}
            onPress={() => setBars(count)}
          />
        ))}
      </View>
      {moving ? (
        <View style={styles.row}>
          <Tap
            icon="activity"
            label="Show the tempo’s lane"
            text="Its lane"
            tone="coralInk"
            onPress={() => {
              useSession.getState().set({ channel: MAIN });
              onDone();
            }}
          />
          <Tap icon="minus" label="One tempo for the whole piece" text="One tempo again" onPress={still} />
        </View>
      ) : null}
      <Words kind="small">
        {moving
          ? 'The tempo is a lane of the main output, in Moves; clips, lanes and note values follow it.'
          : 'Clips keep their beats; lanes and note values follow.'}
      </Words>
    </View>
  );
}

const styles = StyleSheet.create({
  form: { gap: 12 },
  below: { borderTopWidth: 1, marginTop: 14, paddingTop: 14 },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 },
  set: { marginLeft: 'auto', minWidth: 88 },
});

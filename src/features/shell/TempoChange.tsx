import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { barsLater, toBarBeat } from '../../core/music/grid';
import { bpmAt } from '../../core/music/tempo';
import { tempoChange } from '../../core/piece/moves/tempoLane';
import { layMoves, removeLane } from '../../core/piece/edits/lanes';
import { findLane } from '../../core/piece/find';
import { MAIN, type Target } from '../../core/piece/piece';
import { tempoLane, tempoOf } from '../../core/piece/tempoOf';
import { useOpenPiece } from '../../data/openPiece';
import { useView } from '../../data/view';
import { Button } from '../../ui/Button';
import { Chip } from '../../ui/Chip';
import { Text } from '../../ui/Text';
import { useTokens } from '../../ui/theme';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { BpmForm } from './BpmForm';
import { newId } from '../../data/newId';

const TARGET: Target = { kind: 'tempo' };
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
  const [bars, setBars] = useState<number>(0);
  const moving = tempoLane(piece);
  const { bar, beat } = toBarBeat(from, tempoOf(piece));
  const now = Math.round(bpmAt(from, tempoOf(piece)) * 100) / 100;
  const change = (bpm: number): void => {
    const known = findLane(piece, TARGET);
    const points = tempoChange(piece, known?.points ?? [], from, barsLater(from, bars, tempoOf(piece)) - from, bpm);
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
      <Text variant="titleSmall">{`From bar ${bar}, beat ${beat} on · ${now} BPM now`}</Text>
      <BpmForm
        label="BPM from here on"
        initial=""
        placeholder={String(now)}
        action="Change"
        actionLabel="Change the tempo from here on"
        tone="coralInk"
        onBpm={change}
      />
      <View role="radiogroup" aria-label="How fast it changes" style={styles.row}>
        {OVER_BARS.map((count) => (
          <Chip
            key={count}
            role="radio"
            label={`Change over ${over(count)}`}
            chosen={bars === count}
            onPress={() => setBars(count)}
          >
            {over(count)}
          </Chip>
        ))}
      </View>
      {moving ? (
        <View style={styles.row}>
          <Button
            label="Show the tempo’s lane"
            icon="activity"
            tone="coralInk"
            onPress={() => {
              useView.setState({ channel: MAIN });
              onDone();
            }}
          >
            Its lane
          </Button>
          <Button label="One tempo for the whole piece" icon="minus" onPress={still}>
            One tempo again
          </Button>
        </View>
      ) : null}
      <Text variant="bodySmall">
        {moving
          ? 'The tempo is a lane of the main output, in Moves; clips, lanes and note values follow it.'
          : 'Clips keep their beats; lanes and note values follow.'}
      </Text>
    </View>
  );
}

const styles = StyleSheet.create({
  form: { gap: 12 },
  below: { borderTopWidth: 1, marginTop: 14, paddingTop: 14 },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 },
});

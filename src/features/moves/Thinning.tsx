import { StyleSheet, View } from 'react-native';
import { figure } from '../../core/params/make';
import { recordMove } from '../../core/piece/edits/lanes';
import { contextOf } from '../../core/piece/find';
import type { Lane } from '../../core/piece/piece';
import type { ParamValue } from '../../core/params/param';
import { useOpenPiece } from '../../data/openPiece';
import { type Take, useRecording } from '../../data/recording';
import { Rail } from '../../ui/Rail';
import { Chip } from '../../ui/Chip';
import { Text } from '../../ui/Text';
import { thinnedAgain } from '../studio/moveRecorder';
import { usePiece } from '../studio/StudioProvider';

/** Share of the rail, in per cent, that a reading may be missed by. */
const MISS = figure({
  label: 'Thinning',
  group: 'Take',
  hint: 'How far the line may pass beside what the hand did: more leaves fewer points.',
  unit: 'percent',
  min: 0.1,
  max: 10,
  initial: 0.6,
  taper: { kind: 'log' },
});

/** The last pass of this lane, for as long as nothing else was done to it. */
export function useTake(lane: Lane): Take | null {
  const take = useRecording((recording) => recording.takes[lane.id]);
  return take && take.lane === lane && take.readings.length >= 3 ? take : null;
}

interface ThinningProps {
  readonly lane: Lane;
  readonly take: Take;
}

/** "1240 → 18": opens the rail that chooses finer or coarser. */
export function ThinningSwitch({
  lane,
  take,
  chosen,
  onPress,
}: ThinningProps & { readonly chosen: boolean; readonly onPress: () => void }) {
  return (
    <Chip
      role="switch"
      label={`Thinning: ${take.readings.length} readings, ${lane.points.length} points`}
      chosen={chosen}
      tone="coralInk"
      onPress={onPress}
    >{`${take.readings.length} → ${lane.points.length}`}</Chip>
  );
}

/** A pass laid down again with fewer or more points. */
export function Thinning({ lane, take }: ThinningProps) {
  const piece = usePiece();
  const set = (value: ParamValue): void => {
    const tolerance = typeof value === 'number' ? value / 100 : take.tolerance;
    const { takes, seamBeats } = useRecording.getState();
    const again = thinnedAgain(piece, take, tolerance, seamBeats);
    if (!again || !useOpenPiece.getState().run(recordMove, { lane: again, how: 'thin' })) return;
    const kept = useOpenPiece.getState().piece?.lanes.find(({ id }) => id === lane.id);
    if (kept) useRecording.setState({ takes: { ...takes, [lane.id]: { ...take, lane: kept, tolerance } } });
  };
  return (
    <View style={styles.thin}>
      <Rail
        param={MISS}
        value={take.tolerance * 100}
        context={contextOf(piece)}
        look="plain"
        onTouch={() => undefined}
        onSet={set}
      />
      <Text variant="bodySmall">{`${take.readings.length} readings, ${lane.points.length} points`}</Text>
    </View>
  );
}

const styles = StyleSheet.create({ thin: { maxWidth: 420 } });

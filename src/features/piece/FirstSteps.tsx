import { StyleSheet, View } from 'react-native';
import { useOpenPiece } from '../../data/openPiece';
import { useRecording } from '../../data/recording';
import { Text } from '../../ui/Text';
import { usePiece } from '../studio/StudioProvider';

/** Three short steps for the first visit: hear, tune, record a move. They go when the last is done. */
export function FirstSteps() {
  const piece = usePiece();
  const playing = useRecording((recording) => recording.playing);
  const entries = useOpenPiece((state) => state.entries);
  const heard = playing || entries.length > 0;
  const tuned = entries.some((entry) => entry.edit === 'setParams' || entry.edit === 'choosePreset');
  const moved = piece.lanes.length > 0;
  if (moved || piece.id !== 'salt-pier') return null;
  const steps = [
    { done: heard, text: 'Press play and hear Salt Pier.' },
    { done: tuned, text: 'Open the humming voice in Chain, add an echo, drag its time.' },
    { done: moved, text: 'Press moves, play, and ride the echo’s input.' },
  ];
  return (
    <View style={styles.steps}>
      <Text variant="headlineSmall">First time on the pier?</Text>
      {steps.map((step, i) => (
        <Text
          key={step.text}
          variant="bodyMedium"
          tone={step.done ? 'mute' : 'ink'}
        >{`${step.done ? '✓' : `${i + 1}`}  ${step.text}`}</Text>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({ steps: { paddingHorizontal: 16, paddingTop: 18, gap: 5 } });

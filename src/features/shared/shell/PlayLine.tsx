import { StyleSheet, View } from 'react-native';
import { useRecording } from '../../../data/recording';
import { Chip } from '../../../ui/Chip';
import { IconButton } from '../../../ui/IconButton';
import { Text } from '../../../ui/Text';
import { useStudio } from '../../studio/StudioProvider';

interface PlayLineProps {
  readonly says: string;
  /** Offers to record moves too. */
  readonly records?: boolean;
}

/** Playing goes on under a sheet, and can be started from it. */
export function PlayLine({ says, records = false }: PlayLineProps) {
  const { studio } = useStudio();
  const playing = useRecording((recording) => recording.playing);
  const armed = useRecording((recording) => recording.armed);
  return (
    <View style={styles.line}>
      <IconButton
        icon={playing ? 'square' : 'play'}
        label={playing ? 'Stop the piece' : 'Play the piece'}
        mode="outlined"
        onPress={() => studio.toggle()}
      />
      {records ? (
        <Chip
          role="switch"
          label="Record what is moved"
          chosen={armed}
          tone="coralInk"
          onPress={() => useRecording.setState({ armed: !armed })}
        >
          {armed && playing ? '● moves' : '∿ moves'}
        </Chip>
      ) : null}
      <Text variant="bodySmall" style={styles.said}>
        {says}
      </Text>
    </View>
  );
}

const styles = StyleSheet.create({
  line: { flexDirection: 'row', alignItems: 'center', gap: 12, marginBottom: 8 },
  said: { flexShrink: 1 },
});

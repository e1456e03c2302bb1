import { StyleSheet, View } from 'react-native';
import { useRecording } from '../../../data/recording';
import { IconButton } from '../../../ui/IconButton';
import { Text } from '../../../ui/Text';
import { useStudio } from '../../studio/StudioProvider';

/** Playing goes on under a sheet, and can be started from it. */
export function PlayLine({ says }: { readonly says: string }) {
  const { studio } = useStudio();
  const playing = useRecording((recording) => recording.playing);
  return (
    <View style={styles.line}>
      <IconButton
        icon={playing ? 'square' : 'play'}
        label={playing ? 'Stop the piece' : 'Play the piece'}
        mode="outlined"
        onPress={() => studio.toggle()}
      />
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

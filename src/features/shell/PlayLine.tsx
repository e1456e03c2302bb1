import { StyleSheet, View } from 'react-native';
import { useSession } from '../../data/session';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';
import { useStudio } from '../studio/StudioProvider';

/** Playing goes on under a sheet, and can be started from it. */
export function PlayLine({ says }: { readonly says: string }) {
  const { studio } = useStudio();
  const playing = useSession((state) => state.playing);
  return (
    <View style={styles.line}>
      <Tap
        icon={playing ? 'square' : 'play'}
        label={playing ? 'Stop the piece' : 'Play the piece'}
        onPress={() => studio.toggle()}
      />
      <Words kind="small" style={styles.said}>
        {says}
      </Words>
    </View>
  );
}

const styles = StyleSheet.create({
  line: { flexDirection: 'row', alignItems: 'center', gap: 12, marginBottom: 8 },
  said: { flexShrink: 1 },
});

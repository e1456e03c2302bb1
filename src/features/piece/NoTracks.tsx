import { StyleSheet, View } from 'react-native';
import { useView } from '../../data/view';
import { ListItem } from '../../ui/ListItem';
import { Text } from '../../ui/Text';
import { AddTracks } from './AddTracks';

/** What a piece without tracks shows: the ways to begin. */
export function NoTracks() {
  return (
    <View style={styles.empty}>
      <Text variant="headlineSmall">Nothing here yet</Text>
      <Text variant="bodySmall" style={styles.words}>
        Begin with a sound: it becomes a clip on a track of its own.
      </Text>
      <View role="group" aria-label="Ways to begin" style={styles.ways}>
        <AddTracks />
        <ListItem
          title="Another piece"
          note="One that is there, or a new one from a template: returns to send to, holds to play."
          icon="folder"
          onPress={() => useView.setState({ sheet: 'piece' })}
        />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  empty: { alignItems: 'center', paddingHorizontal: 20, paddingVertical: 48, gap: 8 },
  words: { textAlign: 'center' },
  ways: { alignSelf: 'center', width: '100%', maxWidth: 460, marginTop: 12, gap: 4 },
});

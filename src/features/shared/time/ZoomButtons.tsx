import { StyleSheet, View } from 'react-native';
import { useView } from '../../../data/view';
import { IconButton } from '../../../ui/IconButton';

export const MAX_ZOOM = 5;

export function ZoomButtons() {
  const zoom = useView((view) => view.zoom);
  return (
    <View style={styles.row}>
      <IconButton
        icon="zoom-out"
        label="Show more time"
        disabled={zoom === 0}
        onPress={() => useView.setState({ zoom: Math.max(0, zoom - 1) })}
      />
      <IconButton
        icon="zoom-in"
        label="Show less time"
        disabled={zoom === MAX_ZOOM}
        onPress={() => useView.setState({ zoom: Math.min(MAX_ZOOM, zoom + 1) })}
      />
    </View>
  );
}

const styles = StyleSheet.create({ row: { flexDirection: 'row' } });

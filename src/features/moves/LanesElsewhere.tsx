import { StyleSheet, View } from 'react-native';
import { channelIds, channelName, channelOfTarget } from '../../core/piece/find';
import { useView } from '../../data/view';
import { Button } from '../../ui/Button';
import { Text } from '../../ui/Text';
import { usePiece } from '../studio/StudioProvider';

/** A button for each other channel that has lanes; nothing where none has. */
export function LanesElsewhere({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const others = channelIds(piece).flatMap((id) => {
    const count = id === channel ? 0 : piece.lanes.filter(({ target }) => channelOfTarget(target) === id).length;
    return count > 0 ? [{ id, count, name: channelName(piece, id) }] : [];
  });
  if (others.length === 0) return null;
  return (
    <View role="group" aria-label="Lanes of other channels" style={styles.row}>
      <Text variant="bodySmall">Moves on other channels:</Text>
      {others.map(({ id, count, name }) => (
        <Button
          key={id}
          tone="coralInk"
          label={`Moves of ${name}: ${count} ${count === 1 ? 'lane' : 'lanes'}`}
          onPress={() => useView.setState({ channel: id, slot: null })}
        >
          {`${name} · ${count}`}
        </Button>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({ row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 } });

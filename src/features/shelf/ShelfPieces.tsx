import { StyleSheet, View } from 'react-native';
import { useOpenPiece } from '../../data/openPiece';
import { Button } from '../../ui/Button';
import { Text } from '../../ui/Text';
import { NewPiece } from '../shared/pieces/NewPiece';
import { PieceList } from '../shared/pieces/PieceList';
import { usePieces } from '../shared/pieces/usePieces';
import { ThemeSwitch } from '../shared/shell/ThemeSwitch';
import { chooseFile } from '../studio/localFiles';

/** Pieces on the Shelf: those there are, new ones, and archives in and out. */
export function ShelfPieces() {
  const openId = useOpenPiece((state) => state.piece?.id);
  const pieces = usePieces();
  return (
    <View style={styles.list}>
      <Text variant="headlineSmall">Pieces</Text>
      <PieceList pieces={pieces} />
      <NewPiece pieces={pieces} />
      <View style={styles.row}>
        <Button
          label="Bring in an archive"
          icon="upload"
          disabled={pieces.busy}
          onPress={() => chooseFile('.zip,application/zip', (file) => pieces.bringIn.mutate(file))}
        >
          {pieces.bringIn.isPending ? 'Reading …' : 'Archive'}
        </Button>
        {openId ? (
          <Button label="Take this piece as an archive" icon="archive" onPress={() => void pieces.takeArchive(openId)}>
            Take as archive
          </Button>
        ) : null}
      </View>
      <Text variant="bodySmall">
        An archive holds the piece, its history and every sound: for keeping, or for another machine.
      </Text>
      <ThemeSwitch />
    </View>
  );
}

const styles = StyleSheet.create({
  list: { gap: 8 },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 },
});

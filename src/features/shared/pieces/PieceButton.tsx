import { ScrollView, StyleSheet, View } from 'react-native';
import { renamePiece } from '../../../core/piece/edits/channels';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';
import { Button } from '../../../ui/Button';
import { NameField } from '../../../ui/NameField';
import { Sheet } from '../../../ui/Sheet';
import { Text } from '../../../ui/Text';
import { Touchable } from '../../../ui/Touchable';
import { chooseFile } from '../../studio/localFiles';
import { usePiece } from '../../studio/StudioProvider';
import { NewPiece } from './NewPiece';
import { PieceList } from './PieceList';
import { usePieces } from './usePieces';

/** The name of the piece as a heading; tapped it opens all that is done with whole pieces. */
export function PieceButton() {
  const piece = usePiece();
  const open = useView((view) => view.sheet === 'piece');
  const close = (): void => useView.setState({ sheet: null });
  return (
    <>
      <View role="heading" aria-level={1} style={styles.heading}>
        <Touchable
          label={`${piece.name}: name, open, new`}
          style={styles.title}
          onPress={() => useView.setState({ sheet: 'piece' })}
        >
          <View style={styles.words}>
            <Text variant="titleLarge" numberOfLines={1} style={styles.name}>
              {piece.name}
            </Text>
            <Text variant="titleLarge" tone="mute">
              ▾
            </Text>
          </View>
        </Touchable>
      </View>
      <Sheet title="Piece" visible={open} onClose={close}>
        {open ? <PieceMenu onClose={close} /> : null}
      </Sheet>
    </>
  );
}

function PieceMenu({ onClose }: { readonly onClose: () => void }) {
  const { id, name } = usePiece();
  const pieces = usePieces();
  const { run } = useOpenPiece.getState();
  return (
    <ScrollView style={styles.menu}>
      <NameField
        key={name}
        label="Name of the piece"
        initial={name}
        onName={(next) => {
          if (next === name || run(renamePiece, { name: next })) onClose();
        }}
      />
      <View style={styles.row}>
        <Button icon="copy" disabled={pieces.busy} onPress={() => pieces.duplicate.mutate(id, { onSuccess: onClose })}>
          Duplicate
        </Button>
        <Button icon="download" label="Write files of the piece" onPress={() => useView.setState({ sheet: 'files' })}>
          Write files
        </Button>
        <Button
          icon="archive"
          label="Take this piece as an archive"
          onPress={() => void pieces.takeArchive(id).then(onClose)}
        >
          Take as archive
        </Button>
        <Button
          icon="trash-2"
          tone="danger"
          label={`Remove ${name}`}
          disabled={pieces.busy}
          onPress={() => pieces.remove.mutate({ id, name }, { onSuccess: onClose })}
        >
          Remove
        </Button>
      </View>
      <View role="group" aria-label="Open another">
        <Text variant="headlineSmall">Open another</Text>
        <PieceList pieces={pieces} onOpened={onClose} />
      </View>
      <NewPiece pieces={pieces} onMade={onClose} />
      <Button
        label="Bring in an archive"
        icon="upload"
        style={styles.archive}
        disabled={pieces.busy}
        onPress={() =>
          chooseFile('.zip,application/zip', (file) => pieces.bringIn.mutate(file, { onSuccess: onClose }))
        }
      >
        {pieces.bringIn.isPending ? 'Reading …' : 'Bring in an archive'}
      </Button>
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  heading: { flex: 1, minWidth: 0 },
  title: { paddingHorizontal: 0, alignSelf: 'flex-start', maxWidth: '100%' },
  words: { flexDirection: 'row', alignItems: 'center', gap: 6, maxWidth: '100%' },
  name: { flexShrink: 1 },
  menu: { maxHeight: 620 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, marginBottom: 14 },
  archive: { alignSelf: 'flex-start', marginVertical: 10 },
});

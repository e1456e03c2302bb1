import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { StyleSheet, View } from 'react-native';
import { emptyPiece } from '../../core/piece/piece';
import { archiveUrl, createPiece, listPieces, readArchive } from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import { useSession } from '../../data/session';
import { chooseFile } from '../studio/localFiles';
import { ThemeSwitch } from '../shell/ThemeSwitch';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';

/** The archive holds what the server has: a change of this moment goes there first. */
async function takeArchive(piece: string): Promise<void> {
  const { saved, say } = useOpenPiece.getState();
  try {
    await saved();
    const link = document.createElement('a');
    link.href = archiveUrl(piece);
    link.download = '';
    link.click();
  } catch (error) {
    say(error instanceof Error ? error.message : String(error));
  }
}

/** Every piece on the server; the open one is marked. */
export function PieceList() {
  const openId = useOpenPiece((state) => state.piece?.id);
  const open = useOpenPiece((state) => state.open);
  const queries = useQueryClient();
  const pieces = useQuery({ queryKey: ['pieces'], queryFn: listPieces });
  const turn = async (id: string): Promise<void> => {
    await open(id);
    localStorage.setItem('zephiro.open', id);
    useSession.getState().set({ channel: useOpenPiece.getState().piece?.tracks[0]?.id ?? 'main', slot: null, clip: null, range: null });
  };
  const make = useMutation({
    mutationFn: async () => {
      const piece = emptyPiece(crypto.randomUUID(), `New piece ${(pieces.data?.length ?? 0) + 1}`);
      await createPiece(piece);
      await queries.invalidateQueries({ queryKey: ['pieces'] });
      await turn(piece.id);
    },
    onError: (error) => useOpenPiece.getState().say(error.message),
  });
  const bring = useMutation({
    mutationFn: async (file: Blob) => {
      const id = await readArchive(file);
      await queries.invalidateQueries({ queryKey: ['pieces'] });
      await turn(id);
    },
    onSuccess: () => useOpenPiece.getState().say('The archive is a piece here now, and open.'),
    onError: (error) => useOpenPiece.getState().say(error.message),
  });
  return (
    <View style={styles.list}>
      <Words kind="water">Pieces</Words>
      {pieces.isPending ? <Words kind="small">Looking …</Words> : null}
      {pieces.isError ? (
        <View role="alert" style={styles.problem}>
          <Words kind="small" tone="danger">{pieces.error.message}</Words>
          <Tap label="Look for pieces again" text="Try again" onPress={() => void pieces.refetch()} />
        </View>
      ) : null}
      {pieces.data?.map((piece) => (
        <Tap key={piece.id} role="radio" tone="sea" chosen={piece.id === openId} label={piece.name} onPress={() => void turn(piece.id)} style={styles.item} plain>
          <Words kind={piece.id === openId ? 'strong' : 'body'} numberOfLines={2}>{piece.id === openId ? `${piece.name}  ·  open` : piece.name}</Words>
          <Words kind="small">{`saved ${new Date(piece.updatedAt).toLocaleString()}`}</Words>
        </Tap>
      ))}
      <View style={styles.row}>
        <Tap icon="plus" label="New piece" text="New piece" onPress={() => make.mutate()} />
        <Tap icon="upload" label="Bring in an archive" text={bring.isPending ? 'Reading …' : 'Archive'} disabled={bring.isPending} onPress={() => chooseFile('.zip,application/zip', (file) => bring.mutate(file))} />
        {openId ? <Tap icon="archive" label="Take this piece as an archive" text="Take as archive" onPress={() => void takeArchive(openId)} /> : null}
      </View>
      <Words kind="small">An archive holds the piece, its history and every sound: for keeping, or for another machine.</Words>
      <ThemeSwitch />
    </View>
  );
}

const styles = StyleSheet.create({
  list: { gap: 8 },
  item: { alignItems: 'flex-start', paddingHorizontal: 0 },
  problem: { gap: 8, alignItems: 'flex-start' },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});

import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { StyleSheet, View } from 'react-native';
import { emptyPiece } from '../../core/piece/piece';
import { createPiece, listPieces } from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import { useSession } from '../../data/session';
import { ThemeSwitch } from '../shell/ThemeSwitch';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';

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
      <Tap icon="plus" label="New piece" text="New piece" onPress={() => make.mutate()} style={styles.make} />
      <ThemeSwitch />
    </View>
  );
}

const styles = StyleSheet.create({
  list: { gap: 8 },
  item: { alignItems: 'flex-start', paddingHorizontal: 0 },
  problem: { gap: 8, alignItems: 'flex-start' },
  make: { alignSelf: 'flex-start' },
});

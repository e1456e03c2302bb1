import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { emptyPiece } from '../../core/piece/piece';
import {
  ApiProblem,
  archiveUrl,
  createPiece,
  listPieces,
  readArchive,
  removePiece,
  restorePiece,
  type PieceListing,
} from '../../data/api';
import { newId } from '../../data/newId';
import { useOpenPiece } from '../../data/openPiece';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { ListItem } from '../../ui/ListItem';
import { ThemeSwitch } from '../shared/shell/ThemeSwitch';
import { UnreadablePiece } from '../shared/shell/UnreadablePiece';
import { download } from '../studio/download';
import { chooseFile } from '../studio/localFiles';
import { openPieceById } from '../studio/openPieceById';

/** The archive holds what the server has: a change of this moment goes there first. */
async function takeArchive(piece: string): Promise<void> {
  const { saved, say } = useOpenPiece.getState();
  try {
    await saved();
    download(archiveUrl(piece));
  } catch (error) {
    say(error instanceof Error ? error.message : String(error));
  }
}

const say = (error: Error): void => useOpenPiece.getState().say(error.message);

/** Every piece on the server, the open one marked; copies that were kept after a conflict are named as such. */
export function PieceList() {
  const openId = useOpenPiece((state) => state.piece?.id);
  const queries = useQueryClient();
  const pieces = useQuery({ queryKey: ['pieces'], queryFn: listPieces });
  const [unreadable, setUnreadable] = useState<{ readonly id: string; readonly problem: ApiProblem } | null>(null);
  const [removed, setRemoved] = useState<PieceListing | null>(null);
  const again = (): Promise<void> => queries.invalidateQueries({ queryKey: ['pieces'] });
  const turn = async (id: string): Promise<void> => {
    setUnreadable(null);
    try {
      await openPieceById(id);
      await again();
    } catch (error) {
      if (error instanceof ApiProblem && error.status === 422) setUnreadable({ id, problem: error });
      else say(error instanceof Error ? error : new Error(String(error)));
    }
  };
  const make = useMutation({
    mutationFn: async () => {
      const piece = emptyPiece(newId(), `New piece ${(pieces.data?.length ?? 0) + 1}`);
      await createPiece(piece);
      await turn(piece.id);
    },
    onError: say,
  });
  const bring = useMutation({
    mutationFn: async (file: Blob) => turn(await readArchive(file)),
    onSuccess: () => useOpenPiece.getState().say('The archive is a piece here now, and open.'),
    onError: say,
  });
  const remove = useMutation({
    mutationFn: async (piece: PieceListing) => {
      await removePiece(piece.id);
      setRemoved(piece);
      await again();
    },
    onError: say,
  });
  const restore = useMutation({
    mutationFn: async (piece: PieceListing) => {
      await restorePiece(piece.id);
      setRemoved(null);
      await again();
    },
    onError: say,
  });
  return (
    <View style={styles.list}>
      <Text variant="headlineSmall">Pieces</Text>
      {pieces.isPending ? <Text variant="bodySmall">Looking …</Text> : null}
      {pieces.isError ? (
        <View role="alert" style={styles.problem}>
          <Text variant="bodySmall" tone="danger">
            {pieces.error.message}
          </Text>
          <Button label="Look for pieces again" onPress={() => void pieces.refetch()}>
            Try again
          </Button>
        </View>
      ) : null}
      {pieces.data?.map((piece) => (
        <View key={piece.id}>
          <PieceRow
            piece={piece}
            original={pieces.data.find(({ id }) => id === piece.copyOf)?.name ?? null}
            open={piece.id === openId}
            onOpen={() => void turn(piece.id)}
            onRemove={() => remove.mutate(piece)}
          />
          {unreadable?.id === piece.id ? <UnreadablePiece {...unreadable} open={turn} /> : null}
        </View>
      ))}
      {removed ? (
        <View role="status" style={styles.row}>
          <Text variant="bodySmall" style={styles.removed}>{`“${removed.name}” is in the bin, for 30 days.`}</Text>
          <Button label={`Bring ${removed.name} back`} onPress={() => restore.mutate(removed)}>
            Bring back
          </Button>
        </View>
      ) : null}
      <View style={styles.row}>
        <Button icon="plus" onPress={() => make.mutate()}>
          New piece
        </Button>
        <Button
          label="Bring in an archive"
          icon="upload"
          disabled={bring.isPending}
          onPress={() => chooseFile('.zip,application/zip', (file) => bring.mutate(file))}
        >
          {bring.isPending ? 'Reading …' : 'Archive'}
        </Button>
        {openId ? (
          <Button label="Take this piece as an archive" icon="archive" onPress={() => void takeArchive(openId)}>
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

interface RowProps {
  readonly piece: PieceListing;
  /** Name of the piece that this one is a kept copy of. */
  readonly original: string | null;
  readonly open: boolean;
  readonly onOpen: () => void;
  readonly onRemove: () => void;
}

function PieceRow({ piece, original, open, onOpen, onRemove }: RowProps) {
  const saved = `saved ${new Date(piece.updatedAt).toLocaleString()}`;
  return (
    <View style={styles.item}>
      <ListItem
        role="radio"
        title={open ? `${piece.name}  ·  open` : piece.name}
        note={piece.copyOf ? `${saved} · kept after a conflict with ${original ?? 'a piece that is gone'}` : saved}
        label={piece.name}
        chosen={open}
        style={styles.name}
        onPress={onOpen}
      />
      {open ? null : <IconButton icon="trash-2" label={`Remove ${piece.name}`} tone="mute" onPress={onRemove} />}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { gap: 8 },
  item: { flexDirection: 'row', alignItems: 'center', gap: 4 },
  name: { alignItems: 'flex-start', paddingHorizontal: 0, flex: 1, minWidth: 0 },
  removed: { flexShrink: 1 },
  problem: { gap: 8, alignItems: 'flex-start' },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 },
});

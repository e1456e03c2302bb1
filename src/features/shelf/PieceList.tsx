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
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';
import { ThemeSwitch } from '../shell/ThemeSwitch';
import { UnreadablePiece } from '../shell/UnreadablePiece';
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
      <Words kind="water">Pieces</Words>
      {pieces.isPending ? <Words kind="small">Looking …</Words> : null}
      {pieces.isError ? (
        <View role="alert" style={styles.problem}>
          <Words kind="small" tone="danger">
            {pieces.error.message}
          </Words>
          <Tap label="Look for pieces again" text="Try again" onPress={() => void pieces.refetch()} />
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
          <Words kind="small" style={styles.removed}>{`“${removed.name}” is in the bin, for 30 days.`}</Words>
          <Tap label={`Bring ${removed.name} back`} text="Bring back" onPress={() => restore.mutate(removed)} />
        </View>
      ) : null}
      <View style={styles.row}>
        <Tap icon="plus" label="New piece" text="New piece" onPress={() => make.mutate()} />
        <Tap
          icon="upload"
          label="Bring in an archive"
          text={bring.isPending ? 'Reading …' : 'Archive'}
          disabled={bring.isPending}
          onPress={() => chooseFile('.zip,application/zip', (file) => bring.mutate(file))}
        />
        {openId ? (
          <Tap
            icon="archive"
            label="Take this piece as an archive"
            text="Take as archive"
            onPress={() => void takeArchive(openId)}
          />
        ) : null}
      </View>
      <Words kind="small">
        An archive holds the piece, its history and every sound: for keeping, or for another machine.
      </Words>
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
      <Tap role="radio" tone="sea" chosen={open} label={piece.name} onPress={onOpen} style={styles.name} plain>
        <Words kind={open ? 'strong' : 'body'} numberOfLines={2}>
          {open ? `${piece.name}  ·  open` : piece.name}
        </Words>
        <Words kind="small">
          {piece.copyOf ? `${saved} · kept after a conflict with ${original ?? 'a piece that is gone'}` : saved}
        </Words>
      </Tap>
      {open ? null : <Tap plain icon="trash-2" tone="mute" label={`Remove ${piece.name}`} onPress={onRemove} />}
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

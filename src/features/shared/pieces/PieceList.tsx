import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { BinnedPiece, PieceListing } from '../../../data/api';
import { useOpenPiece } from '../../../data/openPiece';
import { Button } from '../../../ui/Button';
import { IconButton } from '../../../ui/IconButton';
import { SearchField } from '../../../ui/SearchField';
import { Text } from '../../../ui/Text';
import { ListItem } from '../../../ui/ListItem';
import { openedPieces } from '../../studio/openPieceById';
import { UnreadablePiece } from '../shell/UnreadablePiece';
import { byLastOpened, type Pieces } from './usePieces';

/** As many pieces as are found at a glance: more than that can be searched. */
const AT_A_GLANCE = 6;

interface PieceListProps {
  readonly pieces: Pieces;
  /** One was chosen, and is open. */
  readonly onOpened?: () => void;
}

/**
 * Every piece on the server, last opened first, the open one marked; copies that were kept after a conflict are named as
 * such. Below it what is in the bin.
 */
export function PieceList({ pieces, onOpened }: PieceListProps) {
  const openId = useOpenPiece((state) => state.piece?.id);
  const [words, setWords] = useState('');
  const { list, unreadable } = pieces;
  const all = byLastOpened(list.data ?? [], openedPieces());
  const wanted = words.trim().toLowerCase();
  const found = all.filter(({ name }) => name.toLowerCase().includes(wanted));
  const open = (id: string): void => void pieces.open(id).then(onOpened);
  return (
    <View style={styles.list}>
      {list.isPending ? <Text variant="bodySmall">Looking …</Text> : null}
      {list.isError ? (
        <View role="alert" style={styles.problem}>
          <Text variant="bodySmall" tone="danger">
            {list.error.message}
          </Text>
          <Button label="Look for pieces again" onPress={() => void list.refetch()}>
            Try again
          </Button>
        </View>
      ) : null}
      {all.length > AT_A_GLANCE ? (
        <SearchField label="Search pieces" placeholder="Search by name" words={words} onWords={setWords} />
      ) : null}
      {found.map((piece) => (
        <View key={piece.id}>
          <PieceRow
            piece={piece}
            original={all.find(({ id }) => id === piece.copyOf)?.name ?? null}
            open={piece.id === openId}
            onOpen={() => open(piece.id)}
            onRemove={() => pieces.remove.mutate(piece)}
          />
          {unreadable?.id === piece.id ? <UnreadablePiece {...unreadable} open={pieces.open} /> : null}
        </View>
      ))}
      {list.isSuccess && found.length === 0 ? (
        <Text variant="bodySmall" role="status">{`No piece is called so. There are ${all.length}.`}</Text>
      ) : null}
      <Bin pieces={pieces} />
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

/** What was removed in the last 30 days, to be brought back. */
function Bin({ pieces: { bin, restore } }: { readonly pieces: Pieces }) {
  const [shown, setShown] = useState(false);
  const binned: readonly BinnedPiece[] = bin.data ?? [];
  if (binned.length === 0) return null;
  return (
    <View role="group" aria-label="Bin">
      <Button
        mode="text"
        icon={shown ? 'chevron-up' : 'chevron-down'}
        label={`${shown ? 'Fold' : 'Show'} the bin, ${binned.length} in it`}
        style={styles.bin}
        onPress={() => setShown(!shown)}
      >
        {`Bin · ${binned.length}`}
      </Button>
      {shown
        ? binned.map(({ id, name, removedAt }) => (
            <View key={id} style={styles.item}>
              <View style={styles.name}>
                <Text numberOfLines={1}>{name}</Text>
                <Text variant="bodySmall">{`removed ${new Date(removedAt).toLocaleString()}`}</Text>
              </View>
              <Button label={`Bring ${name} back`} onPress={() => void restore(id)}>
                Bring back
              </Button>
            </View>
          ))
        : null}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { gap: 4 },
  item: { flexDirection: 'row', alignItems: 'center', gap: 4, minHeight: 44 },
  name: { alignItems: 'flex-start', paddingHorizontal: 0, flex: 1, minWidth: 0 },
  problem: { gap: 8, alignItems: 'flex-start' },
  bin: { alignSelf: 'flex-start' },
});

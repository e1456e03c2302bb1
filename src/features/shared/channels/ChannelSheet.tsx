import { ScrollView, StyleSheet, View } from 'react-native';
import { renameTrack } from '../../../core/piece/edits/channels';
import { chainOf, channelName, findReturn } from '../../../core/piece/find';
import { moveTrack } from '../../../core/piece/edits/tracks';
import { MAIN, type Piece } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import { NameField } from '../../../ui/NameField';
import { Sheet } from '../../../ui/Sheet';
import { ListItem } from '../../../ui/ListItem';
import { SortableList } from '../../../ui/SortableList';
import { Text } from '../../../ui/Text';
import { duplicateTrackBelow, removeChannel } from './channelActions';
import { SaveBlock } from '../blocks/SaveBlock';
import { usePiece } from '../../studio/StudioProvider';

export const kindOf = (piece: Piece, channel: string): 'output' | 'return' | 'track' =>
  channel === MAIN ? 'output' : findReturn(piece, channel) ? 'return' : 'track';

interface ChannelSheetProps {
  readonly channel: string;
  readonly open: boolean;
  readonly onClose: () => void;
}

/** What can be done with a channel as a whole: rename, duplicate, reorder, remove. */
export function ChannelSheet({ channel, open, onClose }: ChannelSheetProps) {
  const piece = usePiece();
  const name = channelName(piece, channel);
  return (
    <Sheet title={name} visible={open} onClose={onClose}>
      {open ? <ChannelTools channel={channel} name={name} onClose={onClose} /> : null}
    </Sheet>
  );
}

function ChannelTools({
  channel,
  name,
  onClose,
}: {
  readonly channel: string;
  readonly name: string;
  readonly onClose: () => void;
}) {
  const piece = usePiece();
  const chain = chainOf(piece, channel);
  const what = kindOf(piece, channel);
  const feeding = [...piece.tracks, ...piece.returns].filter((one) =>
    one.sends.some((send) => send.to === channel),
  ).length;
  return (
    <ScrollView style={styles.tools}>
      {what === 'output' ? null : <Rename channel={channel} what={what} name={name} onDone={onClose} />}
      {what === 'track' ? (
        <ListItem
          title="Duplicate the track"
          note="Its clips, effects, sends, moves and links, once more below it."
          label="Duplicate the track"
          icon="copy"
          onPress={() => {
            duplicateTrackBelow(channel);
            onClose();
          }}
        />
      ) : null}
      {what === 'track' ? <TrackOrder /> : null}
      {chain.length > 0 ? (
        <>
          <Text variant="headlineSmall">Its chain as a block</Text>
          <SaveBlock slots={chain} initial={name} onSaved={onClose} />
        </>
      ) : null}
      {what === 'output' ? null : (
        <>
          <ListItem
            title={`Remove the ${what}`}
            icon="trash-2"
            tone="danger"
            onPress={() => {
              removeChannel(channel);
              onClose();
            }}
          />
          <Text variant="bodySmall">{goes(what, feeding)}</Text>
        </>
      )}
    </ScrollView>
  );
}

/** All tracks in their order, to be dragged; nothing for fewer than two. */
function TrackOrder() {
  const { tracks } = usePiece();
  if (tracks.length < 2) return null;
  return (
    <View role="group" aria-label="Order of the tracks">
      <Text variant="headlineSmall" style={styles.heading}>
        Order
      </Text>
      <SortableList
        items={tracks}
        keyOf={({ id }) => id}
        nameOf={({ name }) => name}
        onMove={(track, to) => useOpenPiece.getState().run(moveTrack, { track, to })}
        renderItem={({ name }, _index, handle) => (
          <View style={styles.row}>
            {handle}
            <Text numberOfLines={1} style={styles.name}>
              {name}
            </Text>
          </View>
        )}
      />
    </View>
  );
}

function Rename({
  channel,
  what,
  name,
  onDone,
}: {
  readonly channel: string;
  readonly what: string;
  readonly name: string;
  readonly onDone: () => void;
}) {
  const rename = (next: string): void => {
    if (useOpenPiece.getState().run(renameTrack, { track: channel, name: next })) onDone();
  };
  return <NameField label={`Name of the ${what}`} initial={name} onName={rename} />;
}

const goes = (what: string, feeding: number): string =>
  what === 'return'
    ? `Its effects, its moves and ${feeding === 1 ? 'the one send' : `the ${feeding} sends`} to it go with it. One undo brings all back.`
    : 'Its clips, effects and moves go with it; prints made of it stay on the Shelf. One undo brings all back.';

const styles = StyleSheet.create({
  tools: { maxHeight: 620 },
  heading: { marginTop: 14 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  name: { flex: 1, minWidth: 0 },
});

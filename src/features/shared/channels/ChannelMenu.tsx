import { useState } from 'react';
import { removeTrack, renameTrack } from '../../../core/piece/edits/channels';
import { removeReturn } from '../../../core/piece/edits/sends';
import { chainOf, channelName, findReturn } from '../../../core/piece/find';
import { MAIN } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';
import { NameField } from '../../../ui/NameField';
import { Sheet } from '../../../ui/Sheet';
import { ListItem } from '../../../ui/ListItem';
import { IconButton } from '../../../ui/IconButton';
import { Text } from '../../../ui/Text';
import { SaveBlock } from '../blocks/SaveBlock';
import { usePiece } from '../../studio/StudioProvider';

/** What can be done with a track or a return as a whole. */
export function ChannelMenu({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const name = channelName(piece, channel);
  const chain = chainOf(piece, channel);
  const made = findReturn(piece, channel);
  const feeding = made
    ? [...piece.tracks, ...piece.returns].filter((one) => one.sends.some((send) => send.to === channel)).length
    : 0;
  const { run } = useOpenPiece.getState();
  const remove = (): void => {
    const done = made ? run(removeReturn, { id: channel }) : run(removeTrack, { track: channel });
    setOpen(false);
    if (done)
      useView.setState({ channel: piece.tracks.find(({ id }) => id !== channel)?.id ?? MAIN, slot: null, clip: null });
  };
  const what = channel === MAIN ? 'output' : made ? 'return' : 'track';
  return (
    <>
      <IconButton
        icon="more-horizontal"
        label={`More for ${name}, ${what}`}
        tone="mute"
        onPress={() => setOpen(true)}
      />
      <Sheet title={name} visible={open} onClose={() => setOpen(false)}>
        {channel === MAIN ? null : <Rename channel={channel} what={what} name={name} onDone={() => setOpen(false)} />}
        {chain.length > 0 ? (
          <>
            <Text variant="headlineSmall">Its chain as a block</Text>
            <SaveBlock slots={chain} initial={name} onSaved={() => setOpen(false)} />
          </>
        ) : null}
        {channel === MAIN ? null : (
          <>
            <ListItem
              title={`Remove the ${what}`}
              icon="trash-2"
              tone="danger"

              onPress={remove}
            />
            <Text variant="bodySmall">{goes(what, feeding)}</Text>
          </>
        )}
      </Sheet>
    </>
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

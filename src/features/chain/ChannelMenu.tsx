import { useState } from 'react';
import { StyleSheet } from 'react-native';
import { removeTrack, renameTrack } from '../../core/piece/edits/channels';
import { removeReturn } from '../../core/piece/edits/sends';
import { chainOf, channelName, findReturn } from '../../core/piece/find';
import { MAIN } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { useSession } from '../../data/session';
import { NameField } from '../../ui/NameField';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';
import { SaveBlock } from '../blocks/SaveBlock';
import { usePiece } from '../studio/StudioProvider';

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
      useSession
        .getState()
        .set({ channel: piece.tracks.find(({ id }) => id !== channel)?.id ?? MAIN, slot: null, clip: null });
  };
  const what = channel === MAIN ? 'output' : made ? 'return' : 'track';
  return (
    <>
      <Tap plain icon="more-horizontal" tone="mute" label={`More for ${name}, ${what}`} onPress={() => setOpen(true)} />
      <Sheet title={name} visible={open} onClose={() => setOpen(false)}>
        {channel === MAIN ? null : <Rename channel={channel} what={what} name={name} onDone={() => setOpen(false)} />}
        {chain.length > 0 ? (
          <>
            <Words kind="water">Its chain as a block</Words>
            <SaveBlock slots={chain} initial={name} onSaved={() => setOpen(false)} />
          </>
        ) : null}
        {channel === MAIN ? null : (
          <>
            <Tap
              plain
              icon="trash-2"
              text={`Remove the ${what}`}
              label={`Remove the ${what}`}
              tone="danger"
              onPress={remove}
              style={styles.item}
            />
            <Words kind="small">{goes(what, feeding)}</Words>
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

const styles = StyleSheet.create({ item: { alignItems: 'flex-start', paddingHorizontal: 4 } });

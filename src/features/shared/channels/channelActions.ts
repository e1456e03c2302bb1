import { addTrack, removeTrack } from '../../../core/piece/edits/channels';
import { removeReturn } from '../../../core/piece/edits/sends';
import { duplicateTrack } from '../../../core/piece/edits/tracks';
import { channelName, findReturn } from '../../../core/piece/find';
import { freeName } from '../../../core/piece/freeName';
import { MAIN, newTrack, type Piece } from '../../../core/piece/piece';
import { newId } from '../../../data/newId';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';

const pieceNow = (): Piece => useOpenPiece.getState().piece!;
const trackNames = (): string[] => pieceNow().tracks.map(({ name }) => name);
const show = (channel: string): void => useView.setState({ channel, slot: null, clip: null });

/** Adds a track without a sound, and shows it. */
export function addEmptyTrack(): void {
  const track = newTrack(newId(), freeName('Track', trackNames()));
  if (useOpenPiece.getState().run(addTrack, { track, sounds: {} })) show(track.id);
}

/** Puts a copy of a track below it, and shows it. */
export function duplicateTrackBelow(track: string): void {
  const id = newId();
  const called = freeName(channelName(pieceNow(), track), trackNames());
  if (useOpenPiece.getState().run(duplicateTrack, { track, id, called })) show(id);
}

/** Removes a track or a return, shows the first track that is left, and offers to undo it. */
export function removeChannel(channel: string): void {
  const { run, say, undo } = useOpenPiece.getState();
  const name = channelName(pieceNow(), channel);
  const done = findReturn(pieceNow(), channel)
    ? run(removeReturn, { id: channel })
    : run(removeTrack, { track: channel });
  if (!done) return;
  show(pieceNow().tracks[0]?.id ?? MAIN);
  say(`“${name}” was removed.`, { label: 'Undo', spoken: `Bring ${name} back`, act: undo });
}

import { addTrack } from '../../../core/piece/edits/channels';
import { freeName } from '../../../core/piece/freeName';
import { newTrack } from '../../../core/piece/piece';
import { newId } from '../../../data/newId';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';

/** Adds a track without a sound, and shows it. */
export function addEmptyTrack(): void {
  const { piece, run } = useOpenPiece.getState();
  const id = newId();
  const name = freeName('Track', piece?.tracks.map((track) => track.name) ?? []);
  if (run(addTrack, { track: newTrack(id, name), sounds: {} }))
    useView.setState({ channel: id, slot: null, clip: null });
}

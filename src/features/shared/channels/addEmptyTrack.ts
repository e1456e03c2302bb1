import { addTrack } from '../../../core/piece/edits/channels';
import { freeName } from '../../../core/piece/freeName';
import { newId } from '../../../data/newId';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';

/** Adds a track without a sound, and shows it. */
export function addEmptyTrack(): void {
  const { piece, run } = useOpenPiece.getState();
  const id = newId();
  const name = freeName('Track', piece?.tracks.map((track) => track.name) ?? []);
  const track = { id, name, gain: 1, pan: 0, mute: false, solo: false, clips: [], chain: [], sends: [] };
  if (run(addTrack, { track, sounds: {} })) useView.setState({ channel: id, slot: null, clip: null });
}

import { Pressable, StyleSheet } from 'react-native';
import { snapBeats, toBarBeat } from '../../core/music/grid';
import type { Track } from '../../core/piece/piece';
import { tempoOf } from '../../core/piece/tempoOf';
import { useOpenPiece } from '../../data/openPiece';
import { useView } from '../../data/view';
import { copiedForTrack, paste } from '../shared/commands/selection';
import { usePiece } from '../studio/StudioProvider';

interface EmptyLaneProps {
  readonly track: Track;
  readonly pxPerBeat: number;
}

/**
 * What is empty of a track: a tap chooses the track, and where a clip or a stretch was copied offers to paste it
 * there. For hands alone: by keys it is pasted at the playhead.
 */
export function EmptyLane({ track, pxPerBeat }: EmptyLaneProps) {
  const piece = usePiece();
  const choose = (beat: number): void => {
    const { channel } = useView.getState();
    const copied = copiedForTrack();
    useView.setState({ clip: null, ...(channel === track.id ? {} : { channel: track.id, slot: null }) });
    if (copied === null) return;
    const { bar, beat: within } = toBarBeat(beat, tempoOf(piece));
    useOpenPiece.getState().say(`${copied} can be pasted at ${bar}.${within} on ${track.name}.`, {
      label: 'Paste here',
      act: () => {
        useView.setState({ channel: track.id });
        paste(beat);
      },
    });
  };
  return (
    <Pressable
      aria-hidden
      tabIndex={-1}
      style={StyleSheet.absoluteFill}
      onPress={({ nativeEvent, currentTarget }) => {
        const { left } = (currentTarget as unknown as HTMLElement).getBoundingClientRect();
        choose(Math.max(0, snapBeats((nativeEvent.pageX - left) / pxPerBeat, 1)));
      }}
    />
  );
}

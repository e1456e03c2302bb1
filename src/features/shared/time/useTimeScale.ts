import { useState } from 'react';
import type { LayoutChangeEvent } from 'react-native';
import { useView } from '../../../data/view';
import { usePiece } from '../../studio/StudioProvider';

export interface TimeScale {
  readonly pxPerBeat: number;
  /** Width of the whole piece at this scale. */
  readonly width: number;
  readonly onLayout: (event: LayoutChangeEvent) => void;
}

/** Pixels for a beat: the whole piece fits, doubled for each step of zoom. */
export function useTimeScale(): TimeScale {
  const piece = usePiece();
  const zoom = useView((view) => view.zoom);
  const [room, setRoom] = useState(0);
  const pxPerBeat = (Math.max(room - 8, 60) / piece.lengthBeats) * Math.pow(2, zoom);
  return {
    pxPerBeat,
    width: pxPerBeat * piece.lengthBeats,
    onLayout: (event) => setRoom(event.nativeEvent.layout.width),
  };
}

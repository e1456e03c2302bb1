import type { TransportMessage } from '../../../core/controls/message';
import { useRecording } from '../../../data/recording';
import type { Studio } from '../../studio/studio';

/** Starts or stops playing, as a controller asks: from the start of the piece, or from the playhead. */
export function obeyTransport(studio: Pick<Studio, 'play' | 'stop' | 'locate'>, message: TransportMessage): void {
  const { playing } = useRecording.getState();
  if (message === 'stop') {
    if (playing) studio.stop();
    return;
  }
  if (message === 'start') studio.locate(0);
  if (!playing) void studio.play();
}

import type { History } from '../hold/history';
import type { SliceReading } from '../hold/sliceReading';
import { SlicePlayer } from '../hold/slicePlayer';
import type { HoldVoice } from '../hold/voice';
import { paramIndices } from '../paramIndices';
import { backwardsParams, MODES } from './params';

const P = paramIndices(backwardsParams);
const ON = MODES.indexOf('on');
/** Longest slice as a share of the history: it is read backwards, away from the write position at twice the speed. */
const MAX_SHARE = 0.45;

/** Reads backwards from its start: slice by slice, or on and on. */
export class BackwardsVoice extends SlicePlayer implements HoldVoice {
  constructor(private readonly sampleRate: number) {
    super(sampleRate);
  }

  begin(at: number, _position: number, _history: History, _values: Float64Array): void {
    this.restart(at);
  }

  protected next(
    reading: SliceReading,
    start: number,
    position: number,
    history: History,
    values: Float64Array,
  ): number {
    this.seamFrames = (values[P.crossfade]! / 1000) * this.sampleRate;
    const most = MAX_SHARE * history.size;
    const length = values[P.mode] === ON ? most : (values[P.length]! / 1000) * this.sampleRate;
    reading.set(start, position, -1, 1);
    return length < most ? length : most;
  }
}

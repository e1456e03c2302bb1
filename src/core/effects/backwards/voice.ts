import type { History } from '../hold/history';
import type { Pass } from '../hold/pass';
import { Passes } from '../hold/passes';
import type { HoldVoice } from '../hold/voice';
import { paramIndices } from '../paramIndices';
import { backwardsParams, WAYS } from './params';

const P = paramIndices(backwardsParams);
const ON = WAYS.indexOf('on');
/** Of the history, so that what is read is not written over: it runs away at twice the speed. */
const MAX_SHARE = 0.45;

/** Reads backwards from where it begins: a slice, and then what has come meanwhile, or on and on. */
export class BackwardsVoice extends Passes implements HoldVoice {
  constructor(private readonly sampleRate: number) {
    super(sampleRate);
  }

  begin(at: number, _place: number, _history: History, _values: Float64Array): void {
    this.restart(at);
  }

  protected next(pass: Pass, start: number, place: number, history: History, values: Float64Array): number {
    this.seamFrames = (values[P.crossfade]! / 1000) * this.sampleRate;
    const most = MAX_SHARE * history.size;
    const length = values[P.way] === ON ? most : (values[P.length]! / 1000) * this.sampleRate;
    pass.set(start, place, -1, 1);
    return length < most ? length : most;
  }
}

import { randomAt } from '../../dsp/random';
import type { Params } from '../../params/param';
import type { History } from '../hold/history';
import type { SliceReading } from '../hold/sliceReading';
import { SlicePlayer } from '../hold/slicePlayer';
import type { HoldVoice } from '../hold/voice';
import { paramIndices } from '../paramIndices';
import { DRAWN_IDS, MAX_DRAWN, ORDERS, reorderParams } from './params';

const P = paramIndices(reorderParams);
const FIRST_PLACE = paramIndices<Params>(reorderParams)[DRAWN_IDS[0]!]!;
const DRAWN = ORDERS.indexOf('drawn');
const TURNED = ORDERS.indexOf('turned');
/** Each random decision has a sequence of its own. */
const BACKWARDS_ROLLS = 0x51ed270b;
const GAP_ROLLS = 0x2c1b3c6d;
const MARGIN_FRAMES = 256;

/** Maps -1..1 to 0..1. */
const share = (x: number): number => 0.5 + 0.5 * x;

/** Plays slices of the input before its start in another order, repeatedly. */
export class ReorderVoice extends SlicePlayer implements HoldVoice {
  /** The captured range: its start and length. */
  private source = 0;
  private window = 0;
  private step = 0;

  constructor(private readonly sampleRate: number) {
    super(sampleRate);
  }

  begin(at: number, position: number, history: History, values: Float64Array): void {
    this.restart(at);
    this.step = 0;
    this.window = (values[P.window]! / 1000) * this.sampleRate;
    this.source = position - this.window;
    history.protect(Math.floor(this.source) - MARGIN_FRAMES);
  }

  protected next(
    reading: SliceReading,
    start: number,
    _position: number,
    _history: History,
    values: Float64Array,
  ): number {
    const { window } = this;
    const wanted = (values[P.slice]! / 1000) * this.sampleRate;
    const slice = wanted < window ? wanted : window;
    const count = Math.max(1, Math.floor(window / slice + 1e-6));
    const roll = Math.round(values[P.roll]!);
    const { step } = this;
    this.step += 1;
    const from = this.source + this.chosen(step, count, roll, values) * slice;
    const isGap = share(randomAt(step, roll ^ GAP_ROLLS)) < values[P.gaps]!;
    const isBackwards = share(randomAt(step, roll ^ BACKWARDS_ROLLS)) < values[P.backwards]!;
    reading.set(start, isBackwards ? from + slice : from, isBackwards ? -1 : 1, isGap ? 0 : 1);
    return slice;
  }

  /** Index of the slice of a step. */
  private chosen(step: number, count: number, roll: number, values: Float64Array): number {
    const round = step % count;
    const order = values[P.order]!;
    if (order === TURNED) return count - 1 - round;
    if (order !== DRAWN) return Math.min(count - 1, Math.floor(share(randomAt(step, roll)) * count));
    const drawn = Math.round(values[FIRST_PLACE + (round % MAX_DRAWN)]!) - 1;
    return drawn % count;
  }
}

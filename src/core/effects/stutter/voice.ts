import type { History } from '../hold/history';
import type { SliceReading } from '../hold/sliceReading';
import { SlicePlayer } from '../hold/slicePlayer';
import type { HoldVoice } from '../hold/voice';
import { paramIndices } from '../paramIndices';
import { BACKWARDS, FROM, NEVER_MS, stutterParams } from './params';

const P = paramIndices(stutterParams);
const AFTER = FROM.indexOf('after');
const SECOND = BACKWARDS.indexOf('second');
const ALWAYS = BACKWARDS.indexOf('always');
/** Minimum length of a turn, and maximum pitch. */
const MIN_TURN_SECONDS = 0.005;
const MAX_OCTAVES = 3;
/** Samples read beside a slice: for interpolation, and for the crossfade into it. */
const MARGIN_FRAMES = 256;

/** Repeats a slice: turn `n` begins `n` slices after the start, or earlier while it speeds up. */
export class StutterVoice extends SlicePlayer implements HoldVoice {
  private turn = 0;
  private turnStart = 0;
  private turnFrames = 0;
  /** Start of the slice in the history, and its length. */
  private source = 0;
  private sourceFrames = 0;
  private caughtAt = 0;
  private speed = 1;
  private gain = 1;
  /** Read progress within the turn; a fast one passes the slice more than once. */
  private readTo = 0;

  constructor(private readonly sampleRate: number) {
    super(sampleRate);
  }

  begin(at: number, position: number, history: History, values: Float64Array): void {
    this.restart(at);
    this.turn = -1;
    this.turnStart = 0;
    this.turnFrames = 0;
    this.readTo = 0;
    this.caughtAt = 0;
    this.sourceFrames = this.sliceFrames(values);
    this.take(values[P.from] === AFTER ? position : position - this.sourceFrames, history);
  }

  private take(source: number, history: History): void {
    this.source = source;
    history.protect(Math.floor(source) - MARGIN_FRAMES);
  }

  private sliceFrames(values: Float64Array): number {
    return Math.max(MIN_TURN_SECONDS, values[P.slice]! / 1000) * this.sampleRate;
  }

  protected next(
    reading: SliceReading,
    start: number,
    position: number,
    history: History,
    values: Float64Array,
  ): number {
    if (this.readTo >= this.turnFrames - 1e-6) this.beginTurn(start, position, history, values);
    const isLive = this.turn === 0 && values[P.from] === AFTER;
    const whole = isLive ? this.turnFrames : this.sourceFrames / Math.abs(this.speed);
    // A remainder shorter than a crossfade belongs to the pass before it.
    const rest = this.turnFrames - this.readTo;
    const frames = rest - whole < 2 * this.seamFrames ? rest : whole;
    if (isLive) reading.setLive(start, this.gain);
    else reading.set(start, this.speed < 0 ? this.source + this.sourceFrames : this.source, this.speed, this.gain);
    this.readTo += frames;
    return frames;
  }

  private beginTurn(start: number, position: number, history: History, values: Float64Array): void {
    this.turn += 1;
    this.turnStart = start;
    this.readTo = 0;
    const slice = this.sliceFrames(values);
    const shorter = this.turn === 0 ? 1 : 1 - values[P.speedUp]!;
    // A slice of another length is taken from its next turn on.
    const isChanged = slice !== this.sourceFrames && this.turn > 0;
    const length = this.turn === 0 ? slice : this.turnFrames * shorter;
    this.turnFrames =
      values[P.speedUp]! > 0 && !isChanged ? Math.max(MIN_TURN_SECONDS * this.sampleRate, length) : slice;
    if (isChanged) {
      this.take(values[P.from] === AFTER ? this.source : this.source + this.sourceFrames - slice, history);
      this.sourceFrames = slice;
    }
    this.captureAgain(start, position, history, values);
    const octaves = (this.turn * values[P.pitch]!) / 12;
    const speed = Math.pow(2, octaves > MAX_OCTAVES ? MAX_OCTAVES : octaves < -MAX_OCTAVES ? -MAX_OCTAVES : octaves);
    const backwards = values[P.backwards]!;
    this.speed = backwards === ALWAYS || (backwards === SECOND && this.turn % 2 === 1) ? -speed : speed;
    this.gain = this.turn === 0 ? 1 : this.gain * (1 - values[P.decay]!);
  }

  /** Captures the latest input as the slice, as often as is set. */
  private captureAgain(start: number, position: number, history: History, values: Float64Array): void {
    const every = values[P.catchEvery]!;
    if (every >= NEVER_MS || start - this.caughtAt < (every / 1000) * this.sampleRate - 1) return;
    this.caughtAt = start;
    this.take(position - this.sourceFrames, history);
    this.gain = 1;
  }
}

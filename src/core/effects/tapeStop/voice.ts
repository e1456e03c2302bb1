import type { StereoBlock } from '../../dsp/blocks';
import { Head } from '../hold/head';
import { GainRamp } from '../hold/ramp';
import { READ_LATENCY, type History } from '../hold/history';
import type { HoldStep, HoldVoice } from '../hold/voice';
import { paramIndices } from '../paramIndices';
import { DIRECTIONS, tapeStopParams, THEN } from './params';

const P = paramIndices(tapeStopParams);
const START = DIRECTIONS.indexOf('start');
const BEND = DIRECTIONS.indexOf('bend');
const SOUND = THEN.indexOf('sound');
/** Speed below which the level falls in proportion to it. */
const FAINT_SPEED = 0.05;
/** Crossfade from the tape back to the dry sound. */
const JOIN_SECONDS = 0.02;
const WOW_HZ = 0.9;
/** Minimum time from full speed to a stop. */
const LEAST_TURN_SECONDS = 0.005;
/** Depth of the speed modulation at full wow. */
const MAX_WOW = 0.06;
/** Exponent at the ends of the curve's range. */
const STEEPEST = 2;

/**
 * Reads the input at a falling or rising speed: `(1 - x) ^ c` to a stop, `x ^ c` from one, `1 - depth * sin(pi x) ^ (2
 * c)` for a bend, where `x` is the share of the time that has passed and `c` is 4 to the power of the curve.
 */
export class TapeStopVoice implements HoldVoice {
  private at = 0;
  private readonly head = new Head(FAINT_SPEED);
  private speed = 1;
  /** Gain of the dry sound after the tape has stopped. */
  private readonly joined = new GainRamp(0);

  constructor(private readonly sampleRate: number) {}

  begin(at: number, position: number, _history: History, values: Float64Array): void {
    this.at = at;
    this.head.position = position - READ_LATENCY;
    this.joined.jump(0);
    this.speed = values[P.direction] === START ? 0 : 1;
  }

  render(out: StereoBlock, { input, history, first, from, to, values }: HoldStep): void {
    const n = to - from;
    const time = first + from - this.at;
    const { speed } = this;
    const end = this.towards(this.speedAt(time + n, values), n);
    this.speed = end;
    this.head.read(history, speed, end, from, to);
    const left = history.outLeft;
    const right = history.outRight;
    let gain = this.head.levelAt(speed);
    const gainStep = (this.head.levelAt(end) - gain) / n;
    const goal = this.joins(time, values) ? 1 : 0;
    if (goal !== this.joined.goal) this.joined.aim(goal, JOIN_SECONDS * this.sampleRate);
    for (let i = from; i < to; i += 1) {
      const joined = this.joined.next();
      const tape = gain * (1 - joined);
      out.left[i] = tape * left[i]! + joined * input.left[i]!;
      out.right[i] = tape * right[i]! + joined * input.right[i]!;
      gain += gainStep;
    }
  }

  /** The speed `n` samples later: changes of parameters while it runs do not make it jump. */
  private towards(wanted: number, n: number): number {
    const most = n / (LEAST_TURN_SECONDS * this.sampleRate);
    const way = wanted - this.speed;
    return way > most ? this.speed + most : way < -most ? this.speed - most : wanted;
  }

  private spanFrames(values: Float64Array): number {
    return (values[P.time]! / 1000) * this.sampleRate;
  }

  /** True once the tape has ended and the dry sound follows. */
  private joins(time: number, values: Float64Array): boolean {
    const isOver = time >= this.spanFrames(values);
    return isOver && (values[P.direction]! >= START || values[P.after] === SOUND);
  }

  private speedAt(time: number, values: Float64Array): number {
    const share = time / this.spanFrames(values);
    const x = share > 1 ? 1 : share;
    const exponent = Math.pow(2, STEEPEST * values[P.curve]!);
    const direction = values[P.direction]!;
    const speed =
      direction === BEND
        ? 1 - values[P.depth]! * Math.pow(Math.sin(Math.PI * x), 2 * exponent)
        : Math.pow(direction === START ? x : 1 - x, exponent);
    // Never ahead of the input.
    const wow = 0.5 - 0.5 * Math.cos((2 * Math.PI * WOW_HZ * time) / this.sampleRate);
    return speed * (1 - MAX_WOW * values[P.wow]! * wow);
  }
}

import type { StereoBlock } from '../../dsp/blocks';
import { Head } from '../hold/head';
import type { History } from '../hold/history';
import type { HoldStep, HoldVoice } from '../hold/voice';
import { paramIndices } from '../paramIndices';
import { scrubParams } from './params';

const P = paramIndices(scrubParams);
/** Speed below which the level falls in proportion to it. */
const FAINT_SPEED = 0.08;
/** Distance from the goal in samples at which the head counts as resting. */
const REST_FRAMES = 0.25;
/** Maximum speed of the head. */
const MAX_SPEED = 16;
const MARGIN_FRAMES = 256;
const CUT_SECONDS = 0.003;

/** A head that follows the position under the finger like a critically damped mass on a spring. */
export class ScrubVoice implements HoldVoice {
  private at = 0;
  /** The captured range: its end and length. */
  private end = 0;
  private window = 0;
  private readonly head = new Head(FAINT_SPEED);
  private speed = 0;
  private gain = 0;
  private cutGain = 1;

  constructor(private readonly sampleRate: number) {}

  begin(at: number, position: number, history: History, values: Float64Array): void {
    this.at = at;
    this.end = position - MARGIN_FRAMES;
    this.window = (values[P.window]! / 1000) * this.sampleRate;
    this.head.position = this.goal(values);
    this.speed = 0;
    this.gain = 0;
    this.cutGain = 1;
    history.protect(Math.floor(this.end - this.window) - MARGIN_FRAMES);
  }

  private goal(values: Float64Array): number {
    return this.end - (1 - values[P.place]!) * this.window;
  }

  render(out: StereoBlock, { history, first, from, to, values }: HoldStep): void {
    const n = to - from;
    const goal = this.goal(values);
    const { head } = this;
    const away = goal - head.position;
    // Critically damped: the speed after n samples, exactly.
    const rate = 1000 / (values[P.inertia]! * this.sampleRate);
    const slope = this.speed - rate * away;
    const decay = Math.exp(-rate * n);
    let end = (this.speed - rate * slope * n) * decay;
    end = end > MAX_SPEED ? MAX_SPEED : end < -MAX_SPEED ? -MAX_SPEED : end;
    const isNear = away < REST_FRAMES && away > -REST_FRAMES;
    const isSlow = this.speed < FAINT_SPEED && this.speed > -FAINT_SPEED;
    if (isNear && isSlow) {
      head.position = goal;
      end = 0;
    }
    head.read(history, this.speed, end, from, to);
    this.speed = end;
    this.write(out, history, from, to, head.levelAt(end), this.cut(first + from - this.at, values));
  }

  /** Whether the gate on the beat is open. */
  private cut(time: number, values: Float64Array): number {
    if (values[P.cut]! < 0.5) return 1;
    const turns = time / ((values[P.cutEvery]! / 1000) * this.sampleRate);
    return turns - Math.floor(turns) < 0.5 ? 1 : 0;
  }

  private write(out: StereoBlock, history: History, from: number, to: number, level: number, open: number): void {
    const step = (level - this.gain) / (to - from);
    const cutStep = 1 / (CUT_SECONDS * this.sampleRate);
    let { gain, cutGain } = this;
    for (let i = from; i < to; i += 1) {
      gain += step;
      cutGain =
        cutGain < open
          ? cutGain + cutStep > open
            ? open
            : cutGain + cutStep
          : cutGain - cutStep < open
            ? open
            : cutGain - cutStep;
      out.left[i] = gain * cutGain * history.outLeft[i]!;
      out.right[i] = gain * cutGain * history.outRight[i]!;
    }
    this.gain = level;
    this.cutGain = cutGain;
  }
}

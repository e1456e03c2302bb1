import { makeStereoBlock, STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { gateParams } from '../gate/params';
import { GateProcessor } from '../gate/processor';
import { commonParams } from '../common';
import type { History } from '../hold/history';
import type { HoldStep, HoldVoice } from '../hold/voice';
import { paramIndices } from '../paramIndices';
import { chopParams, patternParams } from './params';

const GATE = paramIndices(gateParams) as Readonly<Record<string, number>>;
const P = paramIndices(chopParams);
const IDS = Object.keys(patternParams);
const FROM = Int32Array.from(IDS, (id) => P[id]!);
const TO = Int32Array.from(IDS, (id) => GATE[id]!);
const GATE_VALUES = Object.keys({ ...commonParams, ...gateParams }).length;

/** Opens and shuts by the gate's pattern, which begins with the hold. */
export class ChopVoice implements HoldVoice {
  private readonly gate: GateProcessor;
  /** The gate's values; those that its pattern does not use stay 0, which is "by a pattern". */
  private readonly row = new Float64Array(GATE_VALUES);
  private readonly ones = makeStereoBlock();
  private readonly gains = makeStereoBlock();
  /** Number of gains that are used up. */
  private used = STEP_FRAMES;

  constructor(sampleRate: number) {
    this.gate = new GateProcessor(sampleRate);
    this.ones.left.fill(1);
    this.ones.right.fill(1);
  }

  begin(_at: number, _position: number, _history: History, values: Float64Array): void {
    this.takeValues(values);
    this.gate.reset(0, this.row);
    this.used = STEP_FRAMES;
  }

  private takeValues(values: Float64Array): void {
    for (let i = 0; i < FROM.length; i += 1) this.row[TO[i]!] = values[FROM[i]!]!;
  }

  render(out: StereoBlock, { input, from, to, values }: HoldStep): void {
    const gains = this.gains.left;
    let { used } = this;
    for (let i = from; i < to; i += 1) {
      if (used === STEP_FRAMES) {
        this.takeValues(values);
        this.gate.process(this.ones, this.gains, this.row);
        used = 0;
      }
      out.left[i] = gains[used]! * input.left[i]!;
      out.right[i] = gains[used]! * input.right[i]!;
      used += 1;
    }
    this.used = used;
  }
}

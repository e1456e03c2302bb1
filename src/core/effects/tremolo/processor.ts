import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { shapeAt } from '../../dsp/lfo';
import { type EffectProcessor } from '../define';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { tremoloParams } from './params';

const P = paramIndices(tremoloParams);
const LEFT_ONLY = 1;
const RIGHT_ONLY = 2;
/** Minimum duration of a jump of the level. */
const EDGE_SECONDS = 0.003;

/** Gain `1 - depth * (1 - shape) / 2` on each side. */
export class TremoloProcessor extends Insert implements EffectProcessor {
  private cyclePhase = 0;
  private depth = 0;
  private sidePhase = 0;
  private start = 0;

  constructor(sampleRate: number) {
    super(sampleRate, 0, 0.01);
  }

  reset(seconds: number, values: Float64Array): void {
    this.locate(seconds, values);
  }

  locate(seconds: number, values: Float64Array): void {
    const turns = seconds * values[P.rate]!;
    this.cyclePhase = turns - Math.floor(turns);
    this.depth = values[P.depth]!;
    this.sidePhase = values[P.phase]! / 360;
    this.start = values[P.start]! / 360;
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    const sides = values[P.sides]!;
    this.side(input.left, wet.left, values, sides === RIGHT_ONLY ? 0 : 1, 0);
    this.side(input.right, wet.right, values, sides === LEFT_ONLY ? 0 : 1, 1);
    const turns = this.cyclePhase + (values[P.rate]! * STEP_FRAMES) / this.sampleRate;
    this.cyclePhase = turns - Math.floor(turns);
    this.depth = values[P.depth]!;
    this.sidePhase = values[P.phase]! / 360;
    this.start = values[P.start]! / 360;
  }

  private side(from: Float64Array, to: Float64Array, values: Float64Array, acts: 0 | 1, side: 0 | 1): void {
    const n = STEP_FRAMES;
    const shape = values[P.shape]!;
    const turn = values[P.rate]! / this.sampleRate;
    const edge = Math.min(0.25, Math.max(0.02, EDGE_SECONDS * values[P.rate]!));
    let phase = this.cyclePhase + this.start + side * this.sidePhase;
    const phaseStep =
      turn + (values[P.start]! / 360 - this.start + side * (values[P.phase]! / 360 - this.sidePhase)) / n;
    let depth = this.depth * acts;
    const depthStep = ((values[P.depth]! - this.depth) * acts) / n;
    for (let i = 0; i < n; i += 1) {
      to[i] = from[i]! * (1 - 0.5 * depth * (1 - shapeAt(shape, phase, edge)));
      phase += phaseStep;
      depth += depthStep;
    }
  }
}

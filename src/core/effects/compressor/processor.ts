import { copyBlock, STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../../dsp/blocks';
import { FilterCascade } from '../../dsp/filterCascade';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import { type EffectProcessor } from '../define';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { compressorParams } from './params';
import { DENORMAL_GUARD } from '../../dsp/denormals';

const P = paramIndices(compressorParams);
const SIDE = 1;
const BUTTERWORTH_K = Math.SQRT2;
const OFF_HZ = 20;
/** Maximum ripple of the gain for a low tone. */
const ATTACK_SLACK_DB = 1;
/** Number of attack times after which a changed curve has settled. */
const MOVED_ATTACKS = 6;
/** Decibels of a natural logarithm, and the other way. */
const TO_DB = 20 / Math.LN10;
const FROM_DB = Math.LN10 / 20;

/**
 * Downward compressor, by the peak of both channels; the gain is smoothed in decibels, with attack and release apart.
 * Source: D. Giannoulis, M. Massberg and J. D. Reiss, "Digital Dynamic Range Compressor Design" (2012).
 */
export class CompressorProcessor extends Insert implements EffectProcessor {
  private readonly sidechain = makeStereoBlock();
  private readonly sideCut = new FilterCascade(1);
  private side: StereoBlock | null = null;
  private readonly from = new MemoizedUnary(Math.exp);
  private readonly attack = new MemoizedUnary(Math.exp);
  private readonly release = new MemoizedUnary(Math.exp);
  private readonly tan = new MemoizedUnary(Math.tan);
  private seenThreshold = Number.NaN;
  private seenSlope = 0;
  private seenKnee = 0;
  /** Samples until a changed curve has settled. */
  private moved = 0;
  private held = 0;
  private reduction = 0;
  private makeUp = 0;
  private lowest = 1;

  constructor(sampleRate: number) {
    super(sampleRate, 2, 0.01);
  }

  setSidechain(side: StereoBlock | null): void {
    this.side = side;
  }

  /** The present gain is the strongest reduction for the meter. */
  override takeGuardGain(): number {
    const value = this.lowest;
    this.lowest = 1;
    return value;
  }

  reset(seconds: number, values: Float64Array): void {
    this.locate(seconds, values);
  }

  locate(_seconds: number, values: Float64Array): void {
    this.sideCut.clear();
    this.held = 0;
    this.reduction = 0;
    this.makeUp = values[P.makeUp]!;
    this.seenThreshold = values[P.threshold]!;
    this.seenSlope = 1 - 1 / values[P.ratio]!;
    this.seenKnee = values[P.knee]!;
    this.moved = 0;
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    const listened = values[P.source] === SIDE && this.side ? this.side : input;
    this.followLevel(listened, values);
    const threshold = values[P.threshold]!;
    const slope = 1 - 1 / values[P.ratio]!;
    const knee = values[P.knee]!;
    const from = this.from.at((threshold - 0.5 * knee) * FROM_DB);
    const attack = this.attack.at(-1000 / (values[P.attack]! * this.sampleRate));
    const release = this.release.at(-1000 / (values[P.release]! * this.sampleRate));
    const makeUpStep = (values[P.makeUp]! - this.makeUp) / STEP_FRAMES;
    // A changed curve settles with the attack; only a rise of the input itself is limited at once.
    if (threshold !== this.seenThreshold || slope !== this.seenSlope || knee !== this.seenKnee || makeUpStep !== 0)
      this.moved = MOVED_ATTACKS * values[P.attack]! * 0.001 * this.sampleRate;
    else this.moved -= STEP_FRAMES;
    this.seenThreshold = threshold;
    this.seenSlope = slope;
    this.seenKnee = knee;
    const slack = this.moved > 0 ? Infinity : ATTACK_SLACK_DB;
    const { left, right } = this.sidechain;
    let { held, reduction, makeUp } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const l = left[i]! < 0 ? -left[i]! : left[i]!;
      const r = right[i]! < 0 ? -right[i]! : right[i]!;
      const peak = l > r ? l : r;
      const over = peak > from ? reductionAt(TO_DB * Math.log(peak) - threshold, slope, knee) : 0;
      const sinking = over + (held - over) * release;
      held = over > sinking ? over : sinking;
      reduction = held + (reduction - held) * attack + DENORMAL_GUARD - DENORMAL_GUARD;
      makeUp += makeUpStep;
      // Until the attack has passed, make-up gain lifts no peak over its final level, or over the input's.
      const most = (makeUp > held ? makeUp - held : 0) + slack;
      const raised = makeUp - reduction;
      const gain = Math.exp((raised < most ? raised : most) * FROM_DB);
      wet.left[i] = input.left[i]! * gain;
      wet.right[i] = input.right[i]! * gain;
    }
    this.held = held < 1e-9 ? 0 : held;
    this.reduction = reduction < 1e-9 ? 0 : reduction;
    this.makeUp = values[P.makeUp]!;
    const deepest = Math.exp(-this.reduction * FROM_DB);
    if (deepest < this.lowest) this.lowest = deepest;
  }

  private followLevel(listened: StereoBlock, values: Float64Array): void {
    const { sidechain: heard } = this;
    copyBlock(listened.left, heard.left);
    copyBlock(listened.right, heard.right);
    const hz = values[P.sideCut]!;
    const cuts = hz > OFF_HZ ? Math.min(1, (hz - OFF_HZ) / 5) : 0;
    this.sideCut.aim(0, this.tan.at((Math.PI * hz) / this.sampleRate), BUTTERWORTH_K, 1, -BUTTERWORTH_K * cuts, -cuts);
    this.sideCut.process(heard);
  }
}

/** Gain reduction in decibels at a level over the threshold. @param slope share of the excess that is removed, 0-1 */
export function reductionAt(over: number, slope: number, knee: number): number {
  if (2 * over <= -knee) return 0;
  if (2 * over < knee) return (slope * (over + 0.5 * knee) * (over + 0.5 * knee)) / (2 * knee);
  return slope * over;
}

import { clearBlock, copyBlock, STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { FilterCascade } from '../../dsp/filterCascade';
import { Noise } from '../../dsp/noise';
import { MemoizedUnary } from '../../dsp/memoizedUnary';
import { type EffectProcessor } from '../define';
import { LevelMatcher } from '../drive/matcher';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { crushParams, FULL_RATE_HZ, MAX_BITS } from './params';

const P = paramIndices(crushParams);
const OPEN_HZ = 20_000;
const BUTTERWORTH_K = Math.SQRT2;
/** Maximum exponent of the step curve, to either side. */
const MAX_BEND = 3;
/** Maximum gain of the result over the input: quantisation must not make it louder. */
const NO_LOUDER = 1;

/** Reduces sample rate and resolution, at unchanged level. */
export class CrushProcessor extends Insert implements EffectProcessor {
  private readonly before = new FilterCascade(1);
  private readonly after = new FilterCascade(1);
  private readonly noise = new Noise();
  private readonly matcher: LevelMatcher;
  private readonly tans = [new MemoizedUnary(Math.tan), new MemoizedUnary(Math.tan)] as const;
  private readonly steps = new MemoizedUnary((bits) => Math.pow(2, bits));
  private readonly bend = new MemoizedUnary((way) => Math.pow(MAX_BEND, way));
  private left = 0;
  private right = 0;
  /** Samples until the next one is taken. */
  private until = 0;

  constructor(sampleRate: number) {
    super(sampleRate, 0.6, 0.01);
    this.matcher = new LevelMatcher(sampleRate);
  }

  reset(seconds: number, values: Float64Array): void {
    this.locate(seconds, values);
  }

  locate(seconds: number, values: Float64Array): void {
    this.before.clear();
    this.after.clear();
    this.matcher.clear();
    this.left = 0;
    this.right = 0;
    const period = this.periodOf(values);
    const place = seconds * this.sampleRate;
    // It takes the same samples wherever playing began.
    this.until = period <= 1 ? 0 : Math.ceil(place / period) * period - place;
    this.noise.restart(Math.round(place));
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    copyBlock(input.left, wet.left);
    copyBlock(input.right, wet.right);
    this.filter(this.before, this.tans[0], wet, values[P.before]!);
    this.hold(wet, this.periodOf(values), values[P.wobble]!);
    this.round(wet, values);
    this.filter(this.after, this.tans[1], wet, values[P.after]!);
    this.matcher.measure(input, wet);
    this.matcher.apply(wet, true, NO_LOUDER);
    if (this.quiet.silent) {
      // A biased step is held for ever: it is cleared once the input has been silent for long.
      clearBlock(wet.left);
      clearBlock(wet.right);
    }
  }

  private periodOf(values: Float64Array): number {
    return values[P.rate]! >= FULL_RATE_HZ ? 1 : this.sampleRate / values[P.rate]!;
  }

  private filter(row: FilterCascade, tan: MemoizedUnary, io: StereoBlock, hz: number): void {
    const shut = hz >= OPEN_HZ ? 0 : Math.min(1, (OPEN_HZ - hz) / 500);
    const most = 0.45 * this.sampleRate;
    row.aim(0, tan.at((Math.PI * (hz > most ? most : hz)) / this.sampleRate), BUTTERWORTH_K, 1 - shut, 0, shut);
    row.process(io);
  }

  private hold(io: StereoBlock, period: number, wobble: number): void {
    if (period <= 1) return;
    let { left, right, until } = this;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      if (until <= 0) {
        left = io.left[i]!;
        right = io.right[i]!;
        until += wobble > 0 ? period * (1 + 0.9 * wobble * this.noise.next()) : period;
      }
      until -= 1;
      io.left[i] = left;
      io.right[i] = right;
    }
    this.left = left;
    this.right = right;
    this.until = until;
  }

  private round(io: StereoBlock, values: Float64Array): void {
    const bits = values[P.bits]!;
    if (bits >= MAX_BITS) return;
    const steps = this.steps.at(bits - 1);
    const bend = this.bend.at(values[P.bend]!);
    const bias = values[P.bias]!;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      io.left[i] = rounded(io.left[i]!, steps, bend, bias);
      io.right[i] = rounded(io.right[i]!, steps, bend, bias);
    }
  }
}

/** Rounds to the nearest step; the steps are uniform in the height to the power of `1 / bend`. */
function rounded(x: number, steps: number, bend: number, bias: number): number {
  const size = x < 0 ? -x : x;
  const bent = bend === 1 ? size : Math.pow(size, 1 / bend);
  const level = (Math.floor(bent * steps + 0.5 - bias) + bias) / steps;
  const held = level < 0 ? 0 : level;
  const out = bend === 1 ? held : Math.pow(held, bend);
  return x < 0 ? -out : out;
}

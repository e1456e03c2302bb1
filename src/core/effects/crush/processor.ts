import { FilterRow } from '../../dsp/filterRow';
import { Noise } from '../../dsp/noise';
import { Kept } from '../../dsp/kept';
import { clearRun, copyRun } from '../../dsp/runs';
import { STEP_FRAMES, type EffectProcessor, type StereoRun } from '../define';
import { LevelMatcher } from '../drive/matcher';
import { Insert } from '../insert';
import { placesOf } from '../places';
import { crushParams, FULL_RATE_HZ, MOST_BITS } from './params';

const AT = placesOf(crushParams);
const OPEN_HZ = 20_000;
const BUTTERWORTH_K = Math.SQRT2;
/** Most exponent of the step curve, to either side. */
const MOST_BEND = 3;
/** Coarser steps may not make it louder. */
const NO_LOUDER = 1;

/** Looks at the wave too seldom and at too few heights, and keeps its level where it was. */
export class CrushProcessor extends Insert implements EffectProcessor {
  private readonly before = new FilterRow(1);
  private readonly after = new FilterRow(1);
  private readonly noise = new Noise();
  private readonly matcher: LevelMatcher;
  private readonly tans = [new Kept(Math.tan), new Kept(Math.tan)] as const;
  private readonly steps = new Kept((bits) => Math.pow(2, bits));
  private readonly bend = new Kept((way) => Math.pow(MOST_BEND, way));
  private left = 0;
  private right = 0;
  /** Samples until the wave is looked at again. */
  private until = 0;

  constructor(sampleRate: number) {
    super(sampleRate, 0.6, 0.01);
    this.matcher = new LevelMatcher(sampleRate);
  }

  reset(seconds: number, values: Float64Array): void {
    this.before.clear();
    this.after.clear();
    this.matcher.clear();
    this.left = 0;
    this.right = 0;
    this.locate(seconds, values);
  }

  locate(seconds: number, values: Float64Array): void {
    const period = this.periodOf(values);
    const place = seconds * this.sampleRate;
    // It looks at the same samples wherever playing began.
    this.until = period <= 1 ? 0 : Math.ceil(place / period) * period - place;
    this.noise.restart(Math.round(place));
    this.quiet.clear();
  }

  process(input: StereoRun, wet: StereoRun, values: Float64Array): void {
    this.quiet.listen(input);
    copyRun(input.left, wet.left);
    copyRun(input.right, wet.right);
    this.filter(this.before, this.tans[0], wet, values[AT.before]!);
    this.hold(wet, this.periodOf(values), values[AT.wobble]!);
    this.round(wet, values);
    this.filter(this.after, this.tans[1], wet, values[AT.after]!);
    this.matcher.listen(input, wet);
    this.matcher.apply(wet, true, NO_LOUDER);
    if (this.quiet.silent) {
      // A biased step stands for ever: let go of it once nothing has come in for long.
      clearRun(wet.left);
      clearRun(wet.right);
    }
  }

  private periodOf(values: Float64Array): number {
    return values[AT.rate]! >= FULL_RATE_HZ ? 1 : this.sampleRate / values[AT.rate]!;
  }

  private filter(row: FilterRow, tan: Kept, io: StereoRun, hz: number): void {
    const shut = hz >= OPEN_HZ ? 0 : Math.min(1, (OPEN_HZ - hz) / 500);
    const most = 0.45 * this.sampleRate;
    row.aim(0, tan.at((Math.PI * (hz > most ? most : hz)) / this.sampleRate), BUTTERWORTH_K, 1 - shut, 0, shut);
    row.process(io);
  }

  private hold(io: StereoRun, period: number, wobble: number): void {
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

  private round(io: StereoRun, values: Float64Array): void {
    const bits = values[AT.bits]!;
    if (bits >= MOST_BITS) return;
    const steps = this.steps.at(bits - 1);
    const bend = this.bend.at(values[AT.bend]!);
    const bias = values[AT.bias]!;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      io.left[i] = rounded(io.left[i]!, steps, bend, bias);
      io.right[i] = rounded(io.right[i]!, steps, bend, bias);
    }
  }
}

/** To the nearest of the steps: they lie evenly on the wave's height to the power of `1 / bend`. */
function rounded(x: number, steps: number, bend: number, bias: number): number {
  const size = x < 0 ? -x : x;
  const bent = bend === 1 ? size : Math.pow(size, 1 / bend);
  const level = (Math.floor(bent * steps + 0.5 - bias) + bias) / steps;
  const held = level < 0 ? 0 : level;
  const out = bend === 1 ? held : Math.pow(held, bend);
  return x < 0 ? -out : out;
}

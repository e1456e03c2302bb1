import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { onePoleCoefficient } from '../../dsp/onePole';
import { DENORMAL_GUARD } from '../../dsp/denormals';

const SECONDS = 0.35;
const MOST = 4;
const LEAST = 1 / 64;

/** Below this level, -90 dBFS, levels are not matched. */
const QUIET_POWER = 1e-9;

/**
 * Matches the level of a block to that of another. After silence it measures all that has come since, so that the first
 * samples are matched already; later about the last third of a second. Until then no peak is higher than the highest of
 * the input.
 */
export class LevelMatcher {
  private before = 0;
  private after = 0;
  private gain = 1;
  /** Peak of the input, decaying. */
  private peak = 0;
  private outPeak = 0;
  /** Steps since sound began; steps since it ended. */
  private heardSteps = 0;
  private quiet = 0;
  private readonly share: number;
  private readonly peakDecay: number;
  private readonly restSteps: number;

  constructor(sampleRate: number) {
    this.share = onePoleCoefficient(SECONDS, STEP_FRAMES, sampleRate);
    this.peakDecay = 1 - this.share;
    this.restSteps = (SECONDS * sampleRate) / STEP_FRAMES;
  }

  clear(): void {
    this.before = 0;
    this.after = 0;
    this.gain = 1;
    this.peak = 0;
    this.outPeak = 0;
    this.heardSteps = 0;
    this.quiet = 0;
  }

  measure(before: StereoBlock, after: StereoBlock): void {
    const came = power(before);
    this.quiet = came < QUIET_POWER ? this.quiet + 1 : 0;
    if (this.quiet > this.restSteps) this.heardSteps = 0;
    else this.heardSteps += 1;
    const share = this.smoothing(this.share);
    this.before += (came - this.before) * share + DENORMAL_GUARD - DENORMAL_GUARD;
    this.after += (power(after) - this.after) * share + DENORMAL_GUARD - DENORMAL_GUARD;
    const sunk = this.peak * this.peakDecay + DENORMAL_GUARD - DENORMAL_GUARD;
    const peak = peakOf(before);
    this.peak = peak > sunk ? peak : sunk;
    this.outPeak = peakOf(after);
  }

  /** Smoothing coefficient of a step: 1 at first. */
  private smoothing(least: number): number {
    return this.heardSteps * least < 1 && this.heardSteps > 0 ? 1 / this.heardSteps : least;
  }

  /** @param most limit of the gain  @param on false leaves the sound unchanged */
  apply(io: StereoBlock, on: boolean, most = MOST): void {
    const wanted = !on ? 1 : this.after < 1e-12 ? this.gain : Math.sqrt(this.before / this.after);
    const goal = wanted > most ? most : wanted < LEAST ? LEAST : wanted;
    // Only while the level settles: later a gain limited at once would be a click.
    const limit = on && this.heardSteps < this.restSteps && this.outPeak > 0 ? this.peak / this.outPeak : Infinity;
    // The gain changes by an inaudible amount per sample, however suddenly it is switched.
    const way = this.gain + (goal - this.gain) * (on ? this.smoothing(0.08) : 0.08);
    const next = way > limit ? limit : way;
    let gain = this.gain > limit ? limit : this.gain;
    const step = (next - gain) / STEP_FRAMES;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      gain += step;
      io.left[i] = io.left[i]! * gain;
      io.right[i] = io.right[i]! * gain;
    }
    this.gain = next;
  }
}

function peakOf({ left, right }: StereoBlock): number {
  let peak = 0;
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    const l = left[i]! < 0 ? -left[i]! : left[i]!;
    const r = right[i]! < 0 ? -right[i]! : right[i]!;
    if (l > peak) peak = l;
    if (r > peak) peak = r;
  }
  return peak;
}

function power({ left, right }: StereoBlock): number {
  let sum = 0;
  for (let i = 0; i < STEP_FRAMES; i += 1) sum += left[i]! * left[i]! + right[i]! * right[i]!;
  return sum / (2 * STEP_FRAMES);
}

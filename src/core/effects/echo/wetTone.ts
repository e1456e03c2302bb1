import { DelayLine } from '../../dsp/delayLine';
import { StateVariable, tuning } from '../../dsp/stateVariable';
import { STEP_FRAMES, type StereoRun } from '../define';

const LOW_HZ = 250;
const MID_HZ = 1000;
const HIGH_HZ = 4000;
const SHELF_Q = 0.7071;
const MID_Q = 0.7;
const WIDEST_OFFSET_SECONDS = 0.05;
/** How fast a side moves to a new offset, in samples per sample. */
const RATE_OF_OFFSET = 0.25;
/** From this many samples on, the long kernel never looks past what is written. */
const SURE_OF_KERNEL = 9;

/** What the repeats pass once on their way out: side offset and three-band EQ. */
export class WetTone {
  private readonly lines: readonly [DelayLine, DelayLine];
  private readonly offsets = new Float64Array(2);
  private readonly filters = Array.from({ length: 6 }, () => new StateVariable());
  private readonly delays = new Float64Array(STEP_FRAMES);
  private readonly read = new Float64Array(STEP_FRAMES);
  private equalised = false;
  private readonly lowG: number;
  private readonly midG: number;
  private readonly highG: number;

  constructor(private readonly sampleRate: number) {
    const longest = WIDEST_OFFSET_SECONDS * sampleRate + 32;
    this.lines = [new DelayLine(longest, STEP_FRAMES), new DelayLine(longest, STEP_FRAMES)];
    this.lowG = tuning(LOW_HZ, SHELF_Q, sampleRate).g;
    this.midG = tuning(MID_HZ, MID_Q, sampleRate).g;
    this.highG = tuning(HIGH_HZ, SHELF_Q, sampleRate).g;
  }

  clear(offsetMs: number): void {
    for (const line of this.lines) line.clear();
    for (const filter of this.filters) filter.clear();
    this.offsets[0] = this.goal(0, offsetMs);
    this.offsets[1] = this.goal(1, offsetMs);
    this.equalised = false;
  }

  /** Puts the sides apart in place: above 0 the right side comes later, below 0 the left. */
  offset(wet: StereoRun, n: number, offsetMs: number): void {
    this.offsetSide(0, wet.left, n, this.goal(0, offsetMs));
    this.offsetSide(1, wet.right, n, this.goal(1, offsetMs));
  }

  private goal(side: 0 | 1, offsetMs: number): number {
    const ms = side === 1 ? Math.max(0, offsetMs) : Math.max(0, -offsetMs);
    return (ms * this.sampleRate) / 1000;
  }

  /**
   * Writes first, so that a delay of 0 is the sample itself. The way to a new offset is taken at a steady pace, slower
   * than the line fills: so nothing need be written while a side stands at 0, for nothing older is ever read.
   */
  private offsetSide(side: 0 | 1, io: Float64Array, n: number, goal: number): void {
    const now = this.offsets[side]!;
    if (now === 0 && goal === 0) return;
    const line = this.lines[side];
    const most = RATE_OF_OFFSET * n;
    const next = goal > now + most ? now + most : goal < now - most ? now - most : goal;
    const step = (next - now) / n;
    line.write(io, n);
    const { delays, read } = this;
    for (let i = 0; i < n; i += 1) delays[i] = now + step * (i + 1) + n;
    if (now === next && (goal >= SURE_OF_KERNEL || Number.isInteger(goal))) line.readFixed(n + goal, n, read);
    else line.readLinear(delays, n, read);
    for (let i = 0; i < n; i += 1) io[i] = read[i]!;
    this.offsets[side] = next;
  }

  /** @param low @param mid @param high gains as linear factors; 1, 1, 1 leaves every bit alone */
  equalise(wet: StereoRun, n: number, low: number, mid: number, high: number): void {
    const flat = low === 1 && mid === 1 && high === 1;
    if (flat && !this.equalised) return;
    this.side(0, wet.left, n, low, mid, high);
    this.side(3, wet.right, n, low, mid, high);
    this.equalised = !flat;
  }

  /** Shelves and bell after Simper: the mixing weights carry the gain, at gain 1 they pass the input alone. */
  private side(first: number, io: Float64Array, n: number, low: number, mid: number, high: number): void {
    const k = 1 / SHELF_Q;
    const rootLow = Math.sqrt(low);
    this.filters[first]!.process(io, n, this.lowG / Math.sqrt(rootLow), k, 1, k * (rootLow - 1), low - 1);
    const rootMid = Math.sqrt(mid);
    const midK = 1 / (MID_Q * rootMid);
    this.filters[first + 1]!.process(io, n, this.midG, midK, 1, midK * (mid - 1), 0);
    const rootHigh = Math.sqrt(high);
    this.filters[first + 2]!.process(io, n, this.highG * Math.sqrt(rootHigh), k, high, k * (1 - rootHigh) * rootHigh, 1 - high);
  }
}

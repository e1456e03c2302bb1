import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import { DelayLine } from '../../dsp/delayLine';
import { StateVariable, tuning } from '../../dsp/stateVariable';

const LOW_HZ = 250;
const MID_HZ = 1000;
const HIGH_HZ = 4000;
const SHELF_Q = 0.7071;
const SHELF_K = 1 / SHELF_Q;
const MID_Q = 0.7;
const WIDEST_OFFSET_SECONDS = 0.05;
/** Speed at which a side's delay moves to a new offset, in samples per sample. */
const RATE_OF_OFFSET = 0.25;
/** From this many samples on, the long kernel never looks past what is written. */
const SURE_OF_KERNEL = 9;

/** Processing of the wet output, outside the loop: side offset and three-band EQ. */
export class WetTone {
  private readonly lines: readonly [DelayLine, DelayLine];
  private readonly offsets = new Float64Array(2);
  private readonly last = new Float64Array(2);
  private readonly filters = Array.from({ length: 6 }, () => new StateVariable());
  private readonly delays = new Float64Array(STEP_FRAMES);
  private readonly read = new Float64Array(STEP_FRAMES);
  /** Which of the three bands are not neutral. */
  private readonly running = new Uint8Array(3);
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
    this.last.fill(0);
    for (const filter of this.filters) filter.clear();
    this.offsets[0] = this.goal(0, offsetMs);
    this.offsets[1] = this.goal(1, offsetMs);
    this.running.fill(0);
  }

  /** Delays one side, in place: above 0 the right, below 0 the left. */
  offset(wet: StereoBlock, n: number, offsetMs: number): void {
    this.offsetSide(0, wet.left, n, this.goal(0, offsetMs));
    this.offsetSide(1, wet.right, n, this.goal(1, offsetMs));
  }

  private goal(side: 0 | 1, offsetMs: number): number {
    const ms = side === 1 ? Math.max(0, offsetMs) : Math.max(0, -offsetMs);
    return (ms * this.sampleRate) / 1000;
  }

  /**
   * Writes first, so that a delay of 0 is the sample itself. The delay moves to a new offset at constant speed, slower
   * than the line fills: so nothing need be written while a side is at 0, for nothing older than its last sample is
   * ever read.
   */
  private offsetSide(side: 0 | 1, io: Float64Array, n: number, goal: number): void {
    const now = this.offsets[side]!;
    if (now === 0 && goal === 0) {
      this.last[side] = io[n - 1]!;
      return;
    }
    const line = this.lines[side];
    if (now === 0) line.ring[(line.place - 1) & line.mask] = this.last[side]!;
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

  /** @param low @param mid @param high gains as linear factors; a band at 1 is skipped and changes no bit */
  equalise(wet: StereoBlock, n: number, low: number, mid: number, high: number): void {
    if (this.runs(0, low)) this.lowShelf(wet, n, low);
    if (this.runs(1, mid)) this.bell(wet, n, mid);
    if (this.runs(2, high)) this.highShelf(wet, n, high);
  }

  /** A band that reaches 1 runs once more, to end exactly there, and is then cleared. */
  private runs(band: 0 | 1 | 2, gain: number): boolean {
    const before = this.running[band] === 1;
    this.running[band] = gain === 1 ? 0 : 1;
    if (!before && gain === 1) return false;
    if (!before) {
      this.filters[2 * band]!.clear();
      this.filters[2 * band + 1]!.clear();
    }
    return true;
  }

  private both(
    band: 0 | 1 | 2,
    wet: StereoBlock,
    n: number,
    g: number,
    k: number,
    direct: number,
    bandGain: number,
    low: number,
  ): void {
    this.filters[2 * band]!.process(wet.left, n, g, k, direct, bandGain, low);
    this.filters[2 * band + 1]!.process(wet.right, n, g, k, direct, bandGain, low);
  }

  /** Shelves and bell after Simper: the mixing weights carry the gain, at gain 1 they pass the input alone. */
  private lowShelf(wet: StereoBlock, n: number, gain: number): void {
    const root = Math.sqrt(gain);
    this.both(0, wet, n, this.lowG / Math.sqrt(root), SHELF_K, 1, SHELF_K * (root - 1), gain - 1);
  }

  private bell(wet: StereoBlock, n: number, gain: number): void {
    const k = 1 / (MID_Q * Math.sqrt(gain));
    this.both(1, wet, n, this.midG, k, 1, k * (gain - 1), 0);
  }

  private highShelf(wet: StereoBlock, n: number, gain: number): void {
    const root = Math.sqrt(gain);
    this.both(2, wet, n, this.highG * Math.sqrt(root), SHELF_K, gain, SHELF_K * (1 - root) * root, 1 - gain);
  }
}

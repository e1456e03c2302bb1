import type { History } from '../hold/history';

/** Search range of a grain to either side, for periods down to 60 Hz, and the length that is compared. */
const REACH_SECONDS = 0.0085;
const COMPARED_SECONDS = 0.017;
/** Stride of samples and positions in the search; the best position is then refined between them. */
const STRIDE_SECONDS = 1 / 16_000;

/** Finds the position in the history that best continues a sound. */
export class GrainAligner {
  /** Frames after a position that are compared. */
  readonly span: number;
  private readonly stride: number;
  private readonly searchRange: number;
  private readonly compared: number;
  private readonly wanted: Float64Array;
  private readonly region: Float64Array;
  private readonly likeness: Float64Array;

  constructor(sampleRate: number) {
    this.stride = Math.max(1, Math.round(STRIDE_SECONDS * sampleRate));
    this.searchRange = Math.ceil((REACH_SECONDS * sampleRate) / this.stride);
    this.compared = Math.ceil((COMPARED_SECONDS * sampleRate) / this.stride);
    this.span = (this.searchRange + this.compared + 1) * this.stride;
    this.wanted = new Float64Array(this.compared);
    this.region = new Float64Array(2 * this.searchRange + this.compared);
    this.likeness = new Float64Array(2 * this.searchRange + 1);
  }

  /** The position near `centre` whose sound correlates best with that at `goesOnAt`. */
  nearest(history: History, centre: number, goesOnAt: number): number {
    const step = this.stride;
    this.read(history, goesOnAt, step, this.wanted);
    this.read(history, centre - this.searchRange * step, step, this.region);
    const { wanted, region, likeness } = this;
    let energy = 0;
    for (let k = 0; k < wanted.length; k += 1) energy += region[k]! * region[k]!;
    let best = this.searchRange;
    let most = 0;
    for (let at = 0; at < likeness.length; at += 1) {
      let sum = 0;
      for (let k = 0; k < wanted.length; k += 1) sum += wanted[k]! * region[at + k]!;
      likeness[at] = energy > 1e-12 ? sum / Math.sqrt(energy) : 0;
      if (likeness[at]! > most) {
        most = likeness[at]!;
        best = at;
      }
      if (at + wanted.length < region.length)
        energy += region[at + wanted.length]! * region[at + wanted.length]! - region[at]! * region[at]!;
    }
    return centre + (best + this.between(best) - this.searchRange) * step;
  }

  /** Offset of the maximum of the parabola through the best position and its neighbours. */
  private between(best: number): number {
    const { likeness } = this;
    if (best < 1 || best > likeness.length - 2) return 0;
    const [a, b, c] = [likeness[best - 1]!, likeness[best]!, likeness[best + 1]!];
    const curvature = a - 2 * b + c;
    return curvature < 0 ? (0.5 * (a - c)) / curvature : 0;
  }

  private read(history: History, position: number, step: number, to: Float64Array): void {
    for (let done = 0; done < to.length; done += READ) {
      const n = to.length - done < READ ? to.length - done : READ;
      history.read(position + done * step, step, 0, 0, n);
      for (let i = 0; i < n; i += 1) to[done + i] = history.outLeft[i]! + history.outRight[i]!;
    }
  }
}

/** Maximum samples of one read. */
const READ = 128;

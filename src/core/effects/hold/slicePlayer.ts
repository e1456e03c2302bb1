import { STEP_FRAMES, type StereoBlock } from '../../dsp/blocks';
import type { History } from './history';
import { SliceReading } from './sliceReading';
import type { HoldStep } from './voice';

/** Crossfade from a slice to the next, in seconds: too short to be heard as a fade. */
export const SEAM_SECONDS = 0.001;

/**
 * Plays slices of the history one after another with crossfades. The hold decides where each begins and what it reads.
 */
export abstract class SlicePlayer {
  private readonly present = new SliceReading();
  private readonly before = new SliceReading();
  /** Frames since the start of the hold at which the present slice is over. */
  private endsAt = 0;
  private at = 0;
  private started = false;
  /** Length of the crossfade, at most half of either slice. */
  protected seamFrames: number;
  private seam = 0;

  constructor(sampleRate: number) {
    this.seamFrames = SEAM_SECONDS * sampleRate;
  }

  /**
   * Sets up the slice that begins at `start`, frames since the start of the hold.
   * @param position of the present input in the history
   * @returns its length in frames, more than the crossfade
   */
  protected abstract next(
    reading: SliceReading,
    start: number,
    position: number,
    history: History,
    values: Float64Array,
  ): number;

  protected restart(at: number): void {
    this.at = at;
    this.started = false;
    this.endsAt = 0;
    this.seam = 0;
  }

  render(out: StereoBlock, { input, history, first, from, to, values }: HoldStep): void {
    for (let i = from; i < to; i += 1) {
      out.left[i] = 0;
      out.right[i] = 0;
    }
    const time = first - this.at;
    let i = from;
    while (i < to) {
      if (time + i >= this.endsAt) this.change(history.end - STEP_FRAMES + this.endsAt - time, history, values);
      const left = Math.ceil(this.endsAt - time - i);
      const until = left < to - i ? i + left : to;
      this.run(out, input, history, time, i, until);
      i = until;
    }
  }

  private change(position: number, history: History, values: Float64Array): void {
    const start = this.endsAt;
    this.before.copy(this.present);
    const frames = this.next(this.present, start, position, history, values);
    this.endsAt = start + frames;
    const seam = this.seamFrames < frames / 2 ? this.seamFrames : frames / 2;
    this.seam = this.started ? seam : 0;
    this.started = true;
  }

  /** Within one slice; its beginning is crossfaded with the end of the one before. */
  private run(out: StereoBlock, input: StereoBlock, history: History, time: number, from: number, to: number): void {
    const { present, before, seam } = this;
    const crossed = present.start + seam - time;
    const until = crossed <= from ? from : crossed < to ? Math.ceil(crossed) : to;
    if (until > from) {
      const share = (time + from - present.start) / seam;
      present.add(out, input, history, time, from, until, share, 1 / seam, false);
      before.add(out, input, history, time, from, until, share, 1 / seam, true);
    }
    if (until < to) present.add(out, input, history, time, until, to, 1, 0, false);
  }
}

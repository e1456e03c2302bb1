import { STEP_FRAMES } from '../../dsp/blocks';
import type { StepTime } from '../stepTime';

/** A sample beyond the end of the step. */
export const NOT_NOW = STEP_FRAMES;

/**
 * Finds the samples at which a hold starts and ends: at once, or on the next line of a grid. A hold that is switched on
 * early waits; one that is switched off before its line has come lasts until the end's next line, or, where the end is
 * free, does not start.
 */
export class HoldTiming {
  /** Samples into the step at which it starts and ends; NOT_NOW for neither. */
  startAt = NOT_NOW;
  endAt = NOT_NOW;
  /** Whether it sounds, at the end of the last step. */
  active = false;
  private held = false;
  private startWaits = false;
  private endWaits = false;

  reset(held: boolean): void {
    this.held = held;
    this.active = false;
    this.startWaits = held;
    this.endWaits = false;
    this.startAt = NOT_NOW;
    this.endAt = NOT_NOW;
  }

  /** True while nothing is held, ends or waits: then a step in which the switch does not change has no effect. */
  get rests(): boolean {
    return !this.held && !this.active && !this.startWaits && !this.endWaits && this.endAt === NOT_NOW;
  }

  /** True while it is switched on and its line has not come. */
  get waiting(): boolean {
    return this.startWaits;
  }

  /**
   * @param held state of the switch from `heldAt` on  @param heldAt samples into the step at which it changed
   * @param startGrid quarter notes from line to line; 0 starts at once  @param endGrid the same for the end
   */
  step(held: boolean, heldAt: number, startGrid: number, endGrid: number, time: StepTime): void {
    this.startAt = NOT_NOW;
    this.endAt = NOT_NOW;
    const changes = held !== this.held && heldAt < STEP_FRAMES;
    if (changes) {
      this.held = held;
      if (held) this.press();
      else this.switchedOff(endGrid > 0 && time.playing);
    }
    // A hold that has waited since an earlier step may start before the sample at which it is switched off.
    if (this.startWaits) this.startAt = nextLine(startGrid, changes && held ? heldAt : 0, time);
    const starts = this.startAt < NOT_NOW;
    if (this.endWaits && (this.active || starts)) this.findEnd(changes && !held ? heldAt : 0, endGrid, time);
    if (starts) this.startWaits = false;
    if (this.endAt < NOT_NOW) this.endWaits = false;
    const ends = this.endAt < NOT_NOW;
    // A hold that starts again on the line on which it ends goes on.
    this.active = starts && ends ? this.startAt >= this.endAt : starts || (this.active && !ends);
  }

  /** Switched on again before the end's line, it goes on until the next end. */
  private press(): void {
    this.startWaits = true;
    this.endWaits = false;
  }

  private switchedOff(onGrid: boolean): void {
    if (this.startWaits && !onGrid) {
      this.startWaits = false;
      if (!this.active) return;
    }
    this.endWaits = true;
  }

  private findEnd(from: number, endGrid: number, time: StepTime): void {
    this.endAt = nextLine(endGrid, from, time);
    // It lasts for at least one line where it starts on the very line on which it could end.
    if (!this.active && this.endAt <= this.startAt) this.endAt = nextLine(endGrid, this.startAt + 1, time);
  }
}

/** Samples into the step of the first line at or after `from`; NOT_NOW where it is beyond the step. */
function nextLine(grid: number, from: number, time: StepTime): number {
  if (grid <= 0 || !time.playing) return from < NOT_NOW ? from : NOT_NOW;
  const { metre } = time;
  // A line up to half a sample before the step counts as on its first sample: its position is rounded.
  let line = Math.max(0, Math.ceil((time.beat - metre.beat) / grid) - 1);
  for (;;) {
    const beat = metre.beat + line * grid;
    // Where the next metre begins there is a line, whatever is left of this one's.
    if (beat >= metre.end) {
      const end = time.samplesUntil(metre.end);
      return end >= from && end < NOT_NOW ? end : NOT_NOW;
    }
    const at = time.samplesUntil(beat);
    if (at >= from) return at < NOT_NOW ? at : NOT_NOW;
    line += 1;
  }
}

import { nextLine, type Timeline } from '../studio/morph';
import type { Played } from '../studio/played';

/** What a hold does at this moment: a hand's line has not come, or it sounds. */
export type HoldPhase = 'asleep' | 'waiting' | 'sounding';

/** Inputs from which the phase of a hold is derived. */
export interface HoldReading {
  /** The beat that is being computed. */
  readonly beat: number;
  readonly playing: boolean;
  /** The touch on it; undefined for none. */
  readonly hand: Played | undefined;
  /** Held by its lane or its base value. */
  readonly held: boolean;
  /** The engine reports that it sounds. */
  readonly soundsInEngine: boolean;
  /** Beats from line to line at which it ends; 0 for at once. */
  readonly endGrid: number;
  readonly piece: Timeline;
}

/** Beats after the start of a hold by which the engine has certainly reported it. */
const REPORTED_BEATS = 0.25;

/** Follows the phase of a hold from frame to frame, by the rules by which the engine starts and ends it. */
export class HoldPhaseTracker {
  phase: HoldPhase = 'asleep';
  /** The beat at which it began to sound. */
  began = 0;
  private waitsFrom = 0;
  private line = 0;
  private endsAt: number | null = null;

  update(reading: HoldReading): HoldPhase {
    const before = this.phase;
    this.phase = this.next(reading);
    if (this.phase === 'sounding' && before !== 'sounding')
      this.began = before === 'waiting' ? this.line : reading.beat;
    return this.phase;
  }

  /** Share of the wait for its line that is left, 0-1. */
  left(beat: number): number {
    const { waitsFrom, line } = this;
    return line > waitsFrom ? Math.max(0, Math.min(1, (line - beat) / (line - waitsFrom))) : 0;
  }

  private next({ hand, held, ...reading }: HoldReading): HoldPhase {
    const { beat, playing } = reading;
    if (!hand) return held ? 'sounding' : this.afterHand(reading);
    this.endsAt = null;
    const { since, waitsUntil } = hand;
    if (!playing || waitsUntil === null || beat >= waitsUntil || this.phase === 'sounding') return 'sounding';
    this.waitsFrom = since;
    this.line = waitsUntil;
    return 'waiting';
  }

  /** Released, it sounds until the next line of its end; a waiting one still starts, where its end has a grid. */
  private afterHand({ beat, playing, endGrid, soundsInEngine, piece }: Omit<HoldReading, 'hand' | 'held'>): HoldPhase {
    if (this.phase === 'asleep' || !playing || endGrid === 0) return 'asleep';
    // *Let go of all* ended it at once, whatever its grid.
    if (this.phase === 'sounding' && !soundsInEngine && beat > this.began + REPORTED_BEATS) return 'asleep';
    const waits = this.phase === 'waiting';
    this.endsAt ??= nextLine(piece, waits ? this.line + 1e-3 : beat, endGrid);
    const farthest = endGrid + (waits ? this.line - this.waitsFrom : 0) + 1e-3;
    if (beat >= this.endsAt || this.endsAt - beat > farthest) return 'asleep';
    return waits && beat < this.line ? 'waiting' : 'sounding';
  }
}

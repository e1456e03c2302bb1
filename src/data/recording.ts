import { create } from 'zustand';
import type { Reading } from '../core/automation/thin';
import { SEAM_BEATS, type RecordMode } from '../core/piece/moves/record';
import type { Lane } from '../core/piece/piece';

/** The raw readings of a recorded pass, kept so that it can be thinned again. */
export interface Take {
  /** The lane it became, as it was then. */
  readonly lane: Lane;
  /** The lane before it. */
  readonly before: Lane | null;
  readonly readings: readonly Reading[];
  readonly tolerance: number;
}

/** Whether this window plays and records, how, and what it has recorded in this sitting. */
interface Recording {
  readonly playing: boolean;
  /** Moves of the rails are recorded while playing. */
  readonly armed: boolean;
  /** How moves are recorded, by channel; `mode` is that of all others. */
  readonly modes: Readonly<Record<string, RecordMode>>;
  readonly mode: RecordMode;
  /** Beats in which a recorded move glides back to what was there. */
  readonly seamBeats: number;
  /** Moves are recorded between these beats alone. */
  readonly punch: { readonly start: number; readonly end: number } | null;
  /** The last pass of each lane, by the lane's id. */
  readonly takes: Readonly<Record<string, Take>>;
  /** All passes of each lane in this sitting, oldest first. */
  readonly passes: Readonly<Record<string, readonly Take[]>>;
}

export const modeOf = ({ modes, mode }: Pick<Recording, 'modes' | 'mode'>, channel: string): RecordMode =>
  modes[channel] ?? mode;

export const useRecording = create<Recording>(() => ({
  playing: false,
  armed: false,
  modes: {},
  mode: 'touch',
  seamBeats: SEAM_BEATS,
  punch: null,
  takes: {},
  passes: {},
}));

import { create } from 'zustand';
import { SEAM_BEATS, type RecordMode } from '../core/piece/moves/record';
import type { Lane, Slot, Target } from '../core/piece/piece';
import type { Snap } from '../core/automation/snap';
import type { LaneRange } from '../core/piece/moves/laneRange';
import type { Reading } from '../core/automation/thin';
import type { Hear } from '../core/engine/slot';

/**
 * Which lanes of a channel are in view: all of them, those that were chosen, or that of the rail a hand was on last.
 */
export type LanesShown = 'all' | 'chosen' | 'touched';

export type CardPage = 'menu' | 'replace' | 'copy' | 'wet' | 'save';

/** A recorded pass as the hand gave it, kept so that it can be thinned again. */
export interface Take {
  /** The lane it became, as it was then. */
  readonly lane: Lane;
  /** What was there before. */
  readonly before: Lane | null;
  readonly readings: readonly Reading[];
  readonly tolerance: number;
}

/** What this window is doing; not part of the piece. */
interface Session {
  /** Channel and effect in view. */
  channel: string;
  slot: string | null;
  clip: string | null;
  /** The card whose menu is open, and its page: it stays open when the cards are drawn anew. */
  menu: { readonly slot: string; readonly page: CardPage } | null;
  /** Stretch chosen on the ruler, in beats. */
  range: { readonly start: number; readonly end: number } | null;
  /** Doublings of the time scale over fitting the whole piece. */
  zoom: number;
  playing: boolean;
  /** Moves of the rails are recorded while playing. */
  armed: boolean;
  /** How moves are recorded, by channel; `mode` is that of all others. */
  modes: Readonly<Record<string, RecordMode>>;
  mode: RecordMode;
  /** Beats in which a recorded move glides back to what was there. */
  seamBeats: number;
  /** Moves that were copied, and how their values go to another rail. */
  clipboard: readonly LaneRange[];
  pasteBy: 'position' | 'value';
  /** The last pass of each lane, by the lane's id. */
  takes: Readonly<Record<string, Take>>;
  /** All passes of each lane in this sitting, oldest first. */
  passes: Readonly<Record<string, readonly Take[]>>;
  /** Moves are recorded between these beats alone. */
  punch: { readonly start: number; readonly end: number } | null;
  /** What points fall on when they are dragged or drawn. */
  snap: Snap;
  lanesShown: LanesShown;
  /** Lanes to be in view while only chosen ones are, and lanes that are folded, by their ids. */
  chosenLanes: readonly string[];
  foldedLanes: readonly string[];
  /** The rail a hand was on last. */
  touched: Target | null;
  /** The effect whose bench is open: what `hear` and `matched` are about. */
  metered: { readonly channel: string; readonly slot: string } | null;
  hear: Hear;
  matched: boolean;
  /** Another chain that is heard on a channel for comparing; the piece stays as it is. */
  audition: { readonly channel: string; readonly chain: readonly Slot[]; readonly gainDb: number } | null;
  /** Held down: the whole piece is heard untreated for as long. */
  comparing: boolean;
  /** Locked for a stage: only Play reacts. */
  stage: boolean;
  /** Whether every rail is followed by what it does; null leaves it to the width of the screen. */
  hints: boolean | null;
  set(change: Partial<Omit<Session, 'set'>>): void;
}

const HINTS = 'zephiro.hints';

function keptHints(): boolean | null {
  const kept = typeof localStorage === 'undefined' ? null : localStorage.getItem(HINTS);
  return kept === null ? null : kept === 'yes';
}

export function keepHints(hints: boolean): void {
  localStorage.setItem(HINTS, hints ? 'yes' : 'no');
  useSession.setState({ hints });
}

export const modeOf = ({ modes, mode }: Pick<Session, 'modes' | 'mode'>, channel: string): RecordMode =>
  modes[channel] ?? mode;

export const useSession = create<Session>((set) => ({
  channel: 'hum',
  slot: null,
  clip: null,
  menu: null,
  range: null,
  zoom: 0,
  playing: false,
  armed: false,
  modes: {},
  mode: 'touch',
  seamBeats: SEAM_BEATS,
  clipboard: [],
  pasteBy: 'position',
  takes: {},
  passes: {},
  punch: null,
  snap: { kind: 'off' },
  lanesShown: 'all',
  chosenLanes: [],
  foldedLanes: [],
  touched: null,
  metered: null,
  hear: 'mix',
  matched: false,
  audition: null,
  comparing: false,
  stage: false,
  hints: keptHints(),
  set: (change) => set(change),
}));

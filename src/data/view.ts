import { create } from 'zustand';
import type { Snap } from '../core/automation/snap';
import type { Target } from '../core/piece/piece';

/**
 * Which lanes of a channel are in view: all of them, those that were chosen, or that of the rail a hand was on last.
 */
export type LanesShown = 'all' | 'chosen' | 'touched';

/** A sheet of the whole interface that a key or a command opens. */
export type OpenSheet = 'commands' | 'piece' | 'add' | 'history' | 'gaps' | 'files' | 'settings' | 'help';

export type CardPage = 'menu' | 'replace' | 'copy' | 'wet' | 'save';

/** State and selection of this window; not part of the piece. */
interface View {
  /** Channel and effect in view. */
  readonly channel: string;
  readonly slot: string | null;
  readonly clip: string | null;
  /** The card whose menu is open, and its page: it stays open when the cards are drawn anew. */
  readonly menu: { readonly slot: string; readonly page: CardPage } | null;
  /** Whether a channel's own level, sends and tools are unfolded above its chain. */
  readonly strip: boolean;
  readonly sheet: OpenSheet | null;
  /** The recipe whose sheet is open over what is chosen, by its id; empty for the list of all. */
  readonly recipe: string | null;
  /** Stretch chosen on the ruler, in beats. */
  readonly range: { readonly start: number; readonly end: number } | null;
  /** Whether the chosen stretch is meant where a clip is chosen, too: the one that was chosen last is. */
  readonly rangeInFront: boolean;
  /** Doublings of the time scale over fitting the whole piece. */
  readonly zoom: number;
  /** Snapping of points that are dragged or drawn. */
  readonly snap: Snap;
  readonly lanesShown: LanesShown;
  /** Lanes to be in view while only chosen ones are, and lanes that are folded, by their ids. */
  readonly chosenLanes: readonly string[];
  readonly foldedLanes: readonly string[];
  /** The rail a hand was on last. */
  readonly touched: Target | null;
  /** Locked for a stage: only Play reacts. */
  readonly stage: boolean;
  /** Whether every rail shows its hint; null decides by the width of the screen. */
  readonly hints: boolean | null;
}

const HINTS = 'zephiro.hints';

function storedHints(): boolean | null {
  const stored = typeof localStorage === 'undefined' ? null : localStorage.getItem(HINTS);
  return stored === null ? null : stored === 'yes';
}

export function keepHints(hints: boolean): void {
  localStorage.setItem(HINTS, hints ? 'yes' : 'no');
  useView.setState({ hints });
}

export const useView = create<View>(() => ({
  channel: 'hum',
  slot: null,
  clip: null,
  menu: null,
  strip: false,
  sheet: null,
  recipe: null,
  range: null,
  rangeInFront: false,
  zoom: 0,
  snap: { kind: 'off' },
  lanesShown: 'all',
  chosenLanes: [],
  foldedLanes: [],
  touched: null,
  stage: false,
  hints: storedHints(),
}));

useView.subscribe(({ range, clip }, before) => {
  if (range !== before.range) useView.setState({ rangeInFront: range !== null });
  else if (clip !== before.clip && clip !== null) useView.setState({ rangeInFront: false });
});

import { create } from 'zustand';
import type { ControlMessage } from '../../core/controls/message';
import type { Target } from '../../core/piece/piece';

/** What is known of controllers in this window. */
interface Controllers {
  /** The next control that is moved shall move this. */
  readonly learning: Target | null;
  /** Controls that were moved but have not come to where their rail stands, by id: where that is, 0-1. */
  readonly waiting: Readonly<Record<string, number>>;
  /** Names of outside controllers; null before the browser was asked, and what it said when it gave none. */
  readonly outside: readonly string[] | string | null;
  /** Where the faders of the controller that ships with the app stand, 0-127. */
  readonly faders: readonly number[];
}

export const FADERS = 8;
/** The faders send from this number on, which the MIDI specification leaves to the user. */
export const FIRST_FADER = 20;

export const useControllers = create<Controllers>(() => ({
  learning: null,
  waiting: {},
  outside: null,
  faders: Array.from({ length: FADERS }, () => 0),
}));

type Listener = (message: ControlMessage) => void;
const listeners = new Set<Listener>();

/** @returns what stops the listening */
export function onControl(listener: Listener): () => void {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}

/** Hands a message on, from whatever controller it came. */
export const tellControl = (message: ControlMessage): void => listeners.forEach((listener) => listener(message));

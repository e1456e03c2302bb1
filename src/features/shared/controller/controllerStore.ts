import { create } from 'zustand';
import type { ControlMessage, NoteMessage, TransportMessage } from '../../../core/controls/message';
import type { Target } from '../../../core/piece/piece';

/** State of controllers in this window. */
interface Controllers {
  /** Learn mode: the next control that is moved is mapped to this. */
  readonly learning: Target | null;
  /** Controls that were moved but have not reached their rail's value, by id: that value, 0-1. */
  readonly waiting: Readonly<Record<string, number>>;
  /** Names of outside controllers; null before the browser was asked, and its error when there are none. */
  readonly outside: readonly string[] | string | null;
  /** Values of the faders of the controller that ships with the app, 0-127. */
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

export const PADS = 16;
/** The pads send from this note on. */
export const FIRST_PAD = 36;

/** Notes of its buttons, after those of the pads, by the control of Play that they press. */
export const BUTTON_NOTES = {
  presetBack: FIRST_PAD + PADS,
  presetNext: FIRST_PAD + PADS + 1,
  letGo: FIRST_PAD + PADS + 2,
} as const;

/** Messages of one kind, from whatever controller they came. */
class Messages<T> {
  private readonly listeners = new Set<(message: T) => void>();

  /** @returns a function that ends the subscription */
  on(listener: (message: T) => void): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  tell(message: T): void {
    this.listeners.forEach((listener) => listener(message));
  }
}

export const controlMessages = new Messages<ControlMessage>();
export const noteMessages = new Messages<NoteMessage>();
export const transportMessages = new Messages<TransportMessage>();

import { useEffect, useRef } from 'react';
import { create } from 'zustand';
import * as z from 'zod';
import { markHand } from '../../ui/handTime';
import { FIRST_PAD, noteMessages } from '../controller/controllerStore';

export const MAX_STONES = 8;
export const MAX_PADS = 8;

/** What a key of the keyboard plays, by the place it has on the screen. */
export type KeyedPlace = `stone${number}` | `pad${number}` | 'presetBack' | 'presetNext' | 'letGo';

const codesOf = (place: string, codes: readonly string[]): [string, string][] =>
  codes.map((code, i) => [`${place}${i}`, code]);

/** By the physical place of a key (UI Events `code`), so that they lie alike whatever the layout. */
export const START_KEYS: Readonly<Record<string, string>> = Object.fromEntries([
  ...codesOf('stone', ['Digit1', 'Digit2', 'Digit3', 'Digit4', 'KeyQ', 'KeyW', 'KeyE', 'KeyR']),
  ...codesOf('pad', ['KeyA', 'KeyS', 'KeyD', 'KeyF', 'KeyG', 'KeyH', 'KeyJ', 'KeyK']),
  ['presetBack', 'Comma'],
  ['presetNext', 'Period'],
  ['letGo', 'Escape'],
]);

/** The browser's own, and those of the whole page: they play nothing. */
const TAKEN = new Set(['Space', 'Enter', 'Tab', 'Home', 'KeyM', 'ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown']);
export const isFreeCode = (code: string): boolean =>
  code !== '' && !TAKEN.has(code) && !/^(Shift|Control|Alt|Meta|F\d)/.test(code);

const KEPT = 'zephiro.playKeys';

const KEPT_NOTES = 'zephiro.playNotes';

function kept<T>(key: string, value: z.ZodType<T>, start: Readonly<Record<string, T>>): Readonly<Record<string, T>> {
  try {
    return { ...start, ...z.record(z.string(), value).parse(JSON.parse(localStorage.getItem(key) ?? '{}')) };
  } catch {
    return start;
  }
}

/** Gives a place a key or a note; the place that had it gets the other one's. */
function given<T>(all: Readonly<Record<string, T>>, place: string, what: T): Readonly<Record<string, T>> {
  const holder = Object.keys(all).find((other) => all[other] === what);
  const before = all[place];
  const swapped = holder !== undefined && before !== undefined ? { [holder]: before } : {};
  return { ...all, ...swapped, [place]: what };
}

/** Notes of a controller that play the places, from the first pad of the built-in one on. */
const START_NOTES: Readonly<Record<string, number>> = Object.fromEntries([
  ...Array.from({ length: MAX_STONES }, (_, i) => [`stone${i}`, FIRST_PAD + i] as const),
  ...Array.from({ length: MAX_PADS }, (_, i) => [`pad${i}`, FIRST_PAD + MAX_STONES + i] as const),
]);

interface KeyStore {
  readonly codes: Readonly<Record<string, string>>;
  /** Notes by place, 0-127, on any channel. */
  readonly notes: Readonly<Record<string, number>>;
  assignNote(place: KeyedPlace, note: number): void;
  /** Gives a place a key; the place that had it gets the other one's. */
  assign(place: KeyedPlace, code: string): void;
  reset(): void;
}

export const usePlayKeys = create<KeyStore>((set, get) => {
  const keep = (change: Partial<Pick<KeyStore, 'codes' | 'notes'>>): void => {
    set(change);
    localStorage.setItem(KEPT, JSON.stringify(get().codes));
    localStorage.setItem(KEPT_NOTES, JSON.stringify(get().notes));
  };
  return {
    codes: kept(KEPT, z.string(), START_KEYS),
    notes: kept(KEPT_NOTES, z.number().int().min(0).max(127), START_NOTES),
    assign: (place, code) => keep({ codes: given(get().codes, place, code) }),
    assignNote: (place, note) => keep({ notes: given(get().notes, place, note) }),
    reset: () => keep({ codes: START_KEYS, notes: START_NOTES }),
  };
});

const NAMES: Readonly<Record<string, string>> = {
  Comma: ',',
  Period: '.',
  Slash: '/',
  Semicolon: ';',
  Quote: "'",
  Minus: '-',
  Equal: '=',
  BracketLeft: '[',
  BracketRight: ']',
  Backslash: '\\',
  Backquote: '`',
  Escape: 'Esc',
};

/** A key as it is printed on a keyboard. */
export const keyName = (code: string): string => NAMES[code] ?? code.replace(/^(Key|Digit|Numpad)/, '');

export interface KeyHandlers {
  /** @param force 0-1 of a note; none of a key */
  begin(force?: number): void;
  end?(): void;
  /** A note is pressed harder or less while it is held. */
  press?(force: number): void;
}

const handlers = new Map<string, () => KeyHandlers>();

/** Lets a key play a place for as long as it is shown. @returns the key's name */
export function useKeyedPlace(place: KeyedPlace, keyed: KeyHandlers): string {
  const latest = useRef(keyed);
  useEffect(() => {
    latest.current = keyed;
  });
  useEffect(() => {
    const read = (): KeyHandlers => latest.current;
    handlers.set(place, read);
    return () => {
      if (handlers.get(place) === read) handlers.delete(place);
    };
  }, [place]);
  return keyName(usePlayKeys((state) => state.codes[place] ?? ''));
}

const isElsewhere = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('[role=dialog], input, textarea') !== null;

/** Listens to the keys that play. One that is down when the window is left is let go. */
export function usePlayKeyboard(): void {
  useEffect(() => {
    const down = new Map<string, KeyHandlers>();
    const listening = new AbortController();
    const on = { signal: listening.signal };
    document.addEventListener(
      'keydown',
      (event) => {
        if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey || isElsewhere(event.target))
          return;
        const { codes } = usePlayKeys.getState();
        const place = Object.keys(codes).find((one) => codes[one] === event.code);
        const keyed = place === undefined ? undefined : handlers.get(place)?.();
        if (!keyed) return;
        event.preventDefault();
        if (event.repeat || down.has(event.code)) return;
        markHand(event);
        down.set(event.code, keyed);
        keyed.begin();
      },
      on,
    );
    const lift = (event: Event): void => {
      const codes = event instanceof KeyboardEvent ? [event.code] : [...down.keys()];
      for (const code of codes) {
        const keyed = down.get(code);
        if (!down.delete(code)) continue;
        markHand(event);
        keyed?.end?.();
      }
    };
    document.addEventListener('keyup', lift, on);
    window.addEventListener('blur', lift, on);
    return () => {
      listening.abort();
      for (const keyed of down.values()) keyed.end?.();
    };
  }, []);
}

/** Lets notes of controllers play the places. */
export function usePlayNotes(): void {
  useEffect(() => {
    const down = new Map<number, KeyHandlers>();
    const end = (note: number): void => {
      const keyed = down.get(note);
      if (down.delete(note)) keyed?.end?.();
    };
    const stop = noteMessages.on(({ kind, note, force }) => {
      if (kind === 'pressure') {
        for (const [held, keyed] of down) if (note === null || note === held) keyed.press?.(force);
      } else if (note !== null && kind === 'off') end(note);
      else if (note !== null && !down.has(note)) {
        const { notes } = usePlayKeys.getState();
        const place = Object.keys(notes).find((one) => notes[one] === note);
        const keyed = place === undefined ? undefined : handlers.get(place)?.();
        if (!keyed) return;
        down.set(note, keyed);
        keyed.begin(force);
      }
    });
    return () => {
      stop();
      for (const note of [...down.keys()]) end(note);
    };
  }, []);
}

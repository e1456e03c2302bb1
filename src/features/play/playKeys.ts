import { useEffect, useRef } from 'react';
import { create } from 'zustand';
import * as z from 'zod';
import { markHand } from '../../ui/handTime';

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

function keptKeys(): Readonly<Record<string, string>> {
  try {
    const kept = z.record(z.string(), z.string()).safeParse(JSON.parse(localStorage.getItem(KEPT) ?? '{}'));
    return { ...START_KEYS, ...kept.data };
  } catch {
    return START_KEYS;
  }
}

interface KeyStore {
  readonly codes: Readonly<Record<string, string>>;
  /** Gives a place a key; the place that had it gets the other one's. */
  assign(place: KeyedPlace, code: string): void;
  reset(): void;
}

export const usePlayKeys = create<KeyStore>((set, get) => {
  const keep = (codes: Readonly<Record<string, string>>): void => {
    localStorage.setItem(KEPT, JSON.stringify(codes));
    set({ codes });
  };
  return {
    codes: keptKeys(),
    assign: (place, code) => {
      const { codes } = get();
      const holder = Object.keys(codes).find((other) => codes[other] === code);
      keep({ ...codes, ...(holder ? { [holder]: codes[place] ?? '' } : {}), [place]: code });
    },
    reset: () => keep(START_KEYS),
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

interface KeyHandlers {
  begin(): void;
  end?(): void;
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

import { useEffect, useRef } from 'react';
import { create } from 'zustand';
import * as z from 'zod';
import { readStored, writeStored } from '../../../data/browserStorage';
import { markHand } from '../../../ui/handTime';
import { BUTTON_NOTES, FIRST_PAD, noteMessages } from '../controller/controllerStore';

export const MAX_STONES = 8;
export const MAX_PADS = 8;

/** A control of Play that a key or a note plays: a hold or a pad by its index on the screen, or a command. */
export type PlayControl = `stone${number}` | `pad${number}` | 'presetBack' | 'presetNext' | 'letGo';

/** All of them, with their names in lists of keys. */
export const PLAY_CONTROLS: readonly { readonly control: PlayControl; readonly name: string }[] = [
  ...Array.from({ length: MAX_STONES }, (_, i) => ({ control: `stone${i}` as const, name: `Hold ${i + 1}` })),
  ...Array.from({ length: MAX_PADS }, (_, i) => ({ control: `pad${i}` as const, name: `Pad ${i + 1}` })),
  { control: 'presetBack', name: 'Preset before' },
  { control: 'presetNext', name: 'Next preset' },
  { control: 'letGo', name: 'Let go of all' },
];

const codesOf = (control: string, codes: readonly string[]): [string, string][] =>
  codes.map((code, i) => [`${control}${i}`, code]);

/** By the physical position of a key (UI Events `code`), so that they are in the same place whatever the layout. */
export const START_KEYS: Readonly<Record<string, string>> = Object.fromEntries([
  ...codesOf('stone', ['Digit1', 'Digit2', 'Digit3', 'Digit4', 'KeyQ', 'KeyW', 'KeyE', 'KeyR']),
  ...codesOf('pad', ['KeyA', 'KeyS', 'KeyD', 'KeyF', 'KeyG', 'KeyH', 'KeyJ', 'KeyK']),
  ['presetBack', 'Comma'],
  ['presetNext', 'Period'],
  ['letGo', 'Escape'],
]);

/** Keys of the browser and of the whole page, which cannot be assigned. */
const TAKEN = new Set(['Space', 'Enter', 'Tab', 'Home', 'KeyM', 'ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown']);
export const isFreeCode = (code: string): boolean =>
  code !== '' && !TAKEN.has(code) && !/^(Shift|Control|Alt|Meta|F\d)/.test(code);

const KEPT = 'zephiro.playKeys';

const KEPT_NOTES = 'zephiro.playNotes';

const stored = <T>(key: string, value: z.ZodType<T>, start: Readonly<Record<string, T>>): Record<string, T> => ({
  ...start,
  ...readStored(key, z.record(z.string(), value), {}),
});

/** Assigns a key or a note to a control; the control that had it gets the other one's. */
function given<T>(all: Readonly<Record<string, T>>, control: string, what: T): Readonly<Record<string, T>> {
  const holder = Object.keys(all).find((other) => all[other] === what);
  const before = all[control];
  const swapped = holder !== undefined && before !== undefined ? { [holder]: before } : {};
  return { ...all, ...swapped, [control]: what };
}

/** Notes of a controller that play the controls: those of the built-in one's pads and buttons. */
const START_NOTES: Readonly<Record<string, number>> = {
  ...BUTTON_NOTES,
  ...Object.fromEntries([
    ...Array.from({ length: MAX_STONES }, (_, i) => [`stone${i}`, FIRST_PAD + i] as const),
    ...Array.from({ length: MAX_PADS }, (_, i) => [`pad${i}`, FIRST_PAD + MAX_STONES + i] as const),
  ]),
};

interface KeyStore {
  readonly codes: Readonly<Record<string, string>>;
  /** Notes by control, 0-127, on any channel. */
  readonly notes: Readonly<Record<string, number>>;
  assignNote(control: PlayControl, note: number): void;
  /** Gives a control a key; the control that had it gets the other one's. */
  assign(control: PlayControl, code: string): void;
  reset(): void;
}

export const usePlayKeys = create<KeyStore>((set, get) => {
  const keep = (change: Partial<Pick<KeyStore, 'codes' | 'notes'>>): void => {
    set(change);
    writeStored(KEPT, get().codes);
    writeStored(KEPT_NOTES, get().notes);
  };
  return {
    codes: stored(KEPT, z.string(), START_KEYS),
    notes: stored(KEPT_NOTES, z.number().int().min(0).max(127), START_NOTES),
    assign: (control, code) => keep({ codes: given(get().codes, control, code) }),
    assignNote: (control, note) => keep({ notes: given(get().notes, control, note) }),
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

export interface ControlHandlers {
  /** @param velocity 0-1 of a note; none for a key of the keyboard */
  begin(velocity?: number): void;
  end?(): void;
  /** Aftertouch of a note while it is held, 0-1. */
  aftertouch?(pressure: number): void;
}

const handlers = new Map<string, () => ControlHandlers>();

/** Registers a control to be played by its key and note for as long as it is shown. @returns the key's name */
export function usePlayControl(control: PlayControl, keyed: ControlHandlers): string {
  const latest = useRef(keyed);
  useEffect(() => {
    latest.current = keyed;
  });
  useEffect(() => {
    const read = (): ControlHandlers => latest.current;
    handlers.set(control, read);
    return () => {
      if (handlers.get(control) === read) handlers.delete(control);
    };
  }, [control]);
  return keyName(usePlayKeys((state) => state.codes[control] ?? ''));
}

const isElsewhere = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('[role=dialog], input, textarea') !== null;

/** Listens to the keys that play. Keys that are down when the window loses the focus are released. */
export function usePlayKeyboard(): void {
  useEffect(() => {
    const down = new Map<string, ControlHandlers>();
    const listening = new AbortController();
    const on = { signal: listening.signal };
    document.addEventListener(
      'keydown',
      (event) => {
        if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey || isElsewhere(event.target))
          return;
        const { codes } = usePlayKeys.getState();
        const control = Object.keys(codes).find((one) => codes[one] === event.code);
        const keyed = control === undefined ? undefined : handlers.get(control)?.();
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

/** Lets notes of controllers play the controls. */
export function usePlayNotes(): void {
  useEffect(() => {
    const down = new Map<number, ControlHandlers>();
    const end = (note: number): void => {
      const keyed = down.get(note);
      if (down.delete(note)) keyed?.end?.();
    };
    const stop = noteMessages.on(({ kind, note, value }) => {
      if (kind === 'pressure') {
        for (const [held, keyed] of down) if (note === null || note === held) keyed.aftertouch?.(value);
      } else if (note !== null && kind === 'off') end(note);
      else if (note !== null && !down.has(note)) {
        const { notes } = usePlayKeys.getState();
        const control = Object.keys(notes).find((one) => notes[one] === note);
        const keyed = control === undefined ? undefined : handlers.get(control)?.();
        if (!keyed) return;
        down.set(note, keyed);
        keyed.begin(value);
      }
    });
    return () => {
      stop();
      for (const note of [...down.keys()]) end(note);
    };
  }, []);
}

import { create } from 'zustand';
import * as z from 'zod';
import { readStored, writeStored } from '../../../data/browserStorage';

/** Keys that modify others; Ctrl and Command are one, as a keyboard has either. */
const MODIFIERS = ['Control', 'Meta', 'Alt', 'Shift'];

/**
 * A key with its modifiers, as one text: "Mod+Shift+z", "Space", "?". Shift is left out where it only makes another
 * sign of a key, as in "?". Empty for a modifier alone.
 */
export function keyOf({ key, ctrlKey, metaKey, altKey, shiftKey }: KeyboardEvent): string {
  if (MODIFIERS.includes(key)) return '';
  const isSign = key.length === 1 && key.toLowerCase() === key.toUpperCase() && key !== ' ';
  return [
    ctrlKey || metaKey ? 'Mod' : '',
    altKey ? 'Alt' : '',
    shiftKey && !isSign ? 'Shift' : '',
    key === ' ' ? 'Space' : key.length === 1 ? key.toLowerCase() : key,
  ]
    .filter(Boolean)
    .join('+');
}

const isMac = (): boolean => typeof navigator !== 'undefined' && /Mac|iPhone|iPad/.test(navigator.userAgent);
const SHOWN: Readonly<Record<string, string>> = {
  Alt: 'Alt',
  ArrowLeft: '←',
  ArrowRight: '→',
  ArrowUp: '↑',
  ArrowDown: '↓',
  PageUp: 'Page up',
  PageDown: 'Page down',
  Escape: 'Esc',
};

/** A key as a person reads it: "Ctrl Shift Z". */
export const keyText = (key: string): string =>
  key
    .split('+')
    .map((part) =>
      part === 'Mod' ? (isMac() ? '⌘' : 'Ctrl') : (SHOWN[part] ?? (part.length === 1 ? part.toUpperCase() : part)),
    )
    .join(' ');

const STORED = 'zephiro.keys';
const storedSchema = z.record(z.string(), z.string());

interface CommandKeys {
  /** Changed keys, by the commands' ids; an empty one for a command without a key. */
  readonly changed: Readonly<Record<string, string>>;
  assign(command: string, key: string): void;
  reset(): void;
}

/** The keys of commands that differ from those they begin with, kept by this browser. */
export const useCommandKeys = create<CommandKeys>((set, get) => {
  const keep = (changed: Readonly<Record<string, string>>): void => {
    set({ changed });
    writeStored(STORED, changed);
  };
  return {
    changed: readStored(STORED, storedSchema, {}),
    assign: (command, key) => keep({ ...get().changed, [command]: key }),
    reset: () => keep({}),
  };
});

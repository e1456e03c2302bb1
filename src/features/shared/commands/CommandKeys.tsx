import { useRouter } from 'expo-router';
import { useEffect, useMemo } from 'react';
import { formatAddress } from '../../../data/address';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';
import { useThemeChoice } from '../../../ui/theme';
import { useStudio } from '../../studio/StudioProvider';
import type { Command, CommandContext } from './command';
import { COMMANDS, SECOND_KEYS } from './commands';
import { keyOf, useCommandKeys } from './keys';

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.tagName === 'INPUT' || target.tagName === 'TEXTAREA');
/** Space on a focused button presses it, as everywhere. */
const isPressed = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  ['button', 'radio', 'switch', 'tab', 'link', 'menuitem'].includes(
    target.getAttribute('role') ?? target.tagName.toLowerCase(),
  );
const isSheetOpen = (): boolean => document.querySelector('[role=dialog]') !== null;

/** The context of commands, created once for a view. */
export function useCommandContext(): CommandContext {
  const { studio } = useStudio();
  const router = useRouter();
  const { choose } = useThemeChoice();
  return useMemo(
    () => ({
      studio,
      chooseLight: choose,
      go: (view) => {
        const { channel, slot } = useView.getState();
        const piece = useOpenPiece.getState().piece?.id ?? null;
        const where = view === 'chain' ? { channel, slot } : { channel: view === 'moves' ? channel : null, slot: null };
        router.push(formatAddress({ piece, view, ...where }));
      },
    }),
    [studio, router, choose],
  );
}

/** The command of a key, by the key map stored in this browser. */
export function commandOf(key: string): Command | undefined {
  if (key === '') return undefined;
  const { changed } = useCommandKeys.getState();
  const own = COMMANDS.find((command) => (changed[command.id] ?? command.key) === key);
  return own ?? COMMANDS.find(({ id }) => id === SECOND_KEYS[key]);
}

/** Listens to the keys of all commands. The focused element handles its own keys first, and so do Play and sheets. */
export function CommandKeys() {
  const context = useCommandContext();
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (event.defaultPrevented || isTyping(event.target) || isSheetOpen()) return;
      const command = commandOf(keyOf(event));
      if (!command || command.leavesKey?.()) return;
      if (event.key === ' ' && isPressed(event.target)) return;
      event.preventDefault();
      command.run(context);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [context]);
  return null;
}

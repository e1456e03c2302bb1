import { useEffect } from 'react';
import { useOpenPiece } from '../../data/openPiece';
import { useRecording } from '../../data/recording';
import { useStudio } from '../studio/StudioProvider';

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.tagName === 'INPUT' || target.tagName === 'TEXTAREA');
/** Space on a focused button presses it, as everywhere. */
const isPressed = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  ['button', 'radio', 'switch', 'tab', 'link', 'menuitem'].includes(
    target.getAttribute('role') ?? target.tagName.toLowerCase(),
  );

/** Keys that work everywhere: space plays, Home goes to the start, M arms, Ctrl+Z and Ctrl+Shift+Z undo and redo. */
export function Shortcuts() {
  const { studio } = useStudio();
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (event.defaultPrevented || isTyping(event.target)) return;
      const command = event.ctrlKey || event.metaKey;
      const key = event.key.toLowerCase();
      if (command && key === 'z') {
        if (event.shiftKey) useOpenPiece.getState().redo();
        else useOpenPiece.getState().undo();
      } else if (command && key === 'y') useOpenPiece.getState().redo();
      else if (command || event.altKey) return;
      else if (key === ' ' && !isPressed(event.target)) studio.toggle();
      else if (key === 'm') useRecording.setState({ armed: !useRecording.getState().armed });
      else if (key === 'home') studio.locate(0);
      else return;
      event.preventDefault();
    };
    document.addEventListener('keydown', press);
    return () => document.removeEventListener('keydown', press);
  }, [studio]);
  return null;
}

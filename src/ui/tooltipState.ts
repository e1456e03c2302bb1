import { create } from 'zustand';

/** The name of a control, and the point above which it is shown, in px of the window. */
interface TooltipState {
  readonly text: string;
  readonly x: number;
  readonly y: number;
}

const SHOWN_MS = 1600;

export const useTooltip = create<{ readonly tooltip: TooltipState | null }>(() => ({ tooltip: null }));

/** Shows the name of a control above it for a moment. */
export function showTooltip(text: string, control: unknown): void {
  if (!(control instanceof HTMLElement)) return;
  const { left, top, width } = control.getBoundingClientRect();
  const tooltip = { text, x: left + width / 2, y: top };
  useTooltip.setState({ tooltip });
  setTimeout(() => {
    if (useTooltip.getState().tooltip === tooltip) useTooltip.setState({ tooltip: null });
  }, SHOWN_MS);
}

import { create } from 'zustand';

/** The name of a control that a finger rests on, and where it is in the window. */
interface Told {
  readonly text: string;
  readonly x: number;
  readonly y: number;
}

const SHOWN_MS = 1600;

export const useTold = create<{ readonly told: Told | null }>(() => ({ told: null }));

/** Shows what a control is called, above it, for a moment. */
export function tell(text: string, control: unknown): void {
  if (!(control instanceof HTMLElement)) return;
  const { left, top, width } = control.getBoundingClientRect();
  const told = { text, x: left + width / 2, y: top };
  useTold.setState({ told });
  setTimeout(() => {
    if (useTold.getState().told === told) useTold.setState({ told: null });
  }, SHOWN_MS);
}

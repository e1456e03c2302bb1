import type { Piece } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import { useRecording } from '../../../data/recording';

/** Where the echo is that is tuned. */
const AT_ECHO = { channel: 'kalimba', slot: 'kalimba-echo' };

export interface GuideStep {
  readonly text: string;
  /** Where its control is; null where it is always in view. */
  readonly at: { readonly channel: string; readonly slot: string } | null;
  /** The control to use next, as far as it is in view. */
  target(): Element | null;
  /** @param entriesBefore edits of the piece when the step began */
  isDone(piece: Piece, entriesBefore: number): boolean;
}

const control = (role: string, label: string): Element | null =>
  document.querySelector(`[role="${role}"][aria-label="${label}"], ${role}[aria-label="${label}"]`);
const feedback = (): Element | null => control('slider', 'Feedback');
const isPlaying = (): boolean => useRecording.getState().playing;

/** Hear, tune, record a move. */
export const GUIDE_STEPS: readonly GuideStep[] = [
  {
    text: 'Press Play. The voice goes out over the water and comes back, again and again.',
    at: null,
    target: () => control('button', 'Play'),
    isDone: isPlaying,
  },
  {
    text: 'Drag Feedback in the echo of the kalimba, and hear how long it answers.',
    at: AT_ECHO,
    target: feedback,
    isDone: (_piece, entriesBefore) => {
      const { entries } = useOpenPiece.getState();
      return entries.length > entriesBefore && entries.at(-1)?.edit === 'setParams';
    },
  },
  {
    text: 'Press moves, then drag Feedback again while it plays: what your hand does is kept as a lane.',
    at: AT_ECHO,
    target: () =>
      !useRecording.getState().armed
        ? control('switch', 'Record moves')
        : !isPlaying()
          ? control('button', 'Play')
          : feedback(),
    isDone: ({ lanes }) => lanes.length > 0,
  },
];

import { clipOf, RATE, scene, soundOf } from '../core/piece/testing';
import { act, fireEvent, screen } from '@testing-library/react';
import { newSlot } from '../core/piece/edits/chain';
import type { Piece } from '../core/piece/piece';
import { useAudition } from '../data/audition';
import { useClipboard } from '../data/clipboard';
import { useRecording } from '../data/recording';
import { useView } from '../data/view';
import { useOpenPiece } from '../data/openPiece';

/** A hand whose moves are only noted. */
export const quietHand = { touch: jest.fn(), release: jest.fn() };

/** What the app is given of itself in tests of what it shows: a studio that plays nothing. */
export const quietStudio = {
  studio: {
    sounds: new Map(),
    beat: 0,
    locate: jest.fn(),
    play: jest.fn(),
    player: { sampleRate: RATE },
    release: jest.fn(),
    morph: { start: jest.fn() },
    clipPrint: jest.fn(),
  },
  soundsSeen: 0,
  missing: new Map(),
};

/**
 * The studio's provider as tests mock it: `jest.mock('./studio/StudioProvider', () =>
 * jest.requireActual('./testing').quietProvider)`.
 */
export const quietProvider = {
  usePiece: () => useOpenPiece((state) => state.piece),
  useHand: () => quietHand,
  useStudio: () => quietStudio,
};

/** Opens a piece of two tracks at 120 a minute: a clip of a second on the first, a return with a space. */
export function openPiece(change: (piece: Piece) => Piece = (piece) => piece): void {
  const { piece } = scene(
    [soundOf(2, () => 0.1)],
    [
      {
        clips: [clipOf('a', 0, 4, 1, { offsetSeconds: 0.5, name: 'Hum' })],
        chain: [newSlot('c', 'compressor', 'makeRoom')],
      },
      { clips: [] },
    ],
    { lengthBeats: 32 },
  );
  const space = {
    id: 'space',
    name: 'Space',
    gain: 1,
    pan: 0,
    mute: false,
    solo: false,
    sends: [],
    chain: [newSlot('r', 'reverb', 'neutral')],
  };
  let ids = 0;
  // jsdom has no randomUUID.
  Object.defineProperty(globalThis.crypto, 'randomUUID', { configurable: true, value: () => `id-${(ids += 1)}` });
  // Nor structuredClone.
  globalThis.structuredClone ??= <Of>(value: Of): Of => JSON.parse(JSON.stringify(value)) as Of;
  localStorage.clear();
  useOpenPiece.setState({ piece: change({ ...piece, returns: [space] }), entries: [], cursor: 0, notice: null });
  useView.setState({ ...useView.getInitialState(), channel: 't0' });
  useRecording.setState(useRecording.getInitialState());
  useAudition.setState(useAudition.getInitialState());
  useClipboard.setState(useClipboard.getInitialState());
}

export const now = (): Piece => useOpenPiece.getState().piece!;
export const undo = (): void => act(() => useOpenPiece.getState().undo());
export const press = (role: string, name: string | RegExp): void =>
  void fireEvent.click(screen.getByRole(role, { name }));
/** A press that is answered later: a form looks at what was typed first. */
export const pressed = (role: string, name: string | RegExp): Promise<void> => act(async () => press(role, name));
export const type = (name: string | RegExp, text: string): void =>
  void fireEvent.change(screen.getByRole(/^Search/.test(String(name)) ? 'searchbox' : 'textbox', { name }), {
    target: { value: text },
  });
export const key = (role: string, name: string | RegExp, pressed: string): void =>
  void fireEvent.keyDown(screen.getByRole(role, { name }), { key: pressed });

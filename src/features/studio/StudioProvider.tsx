import { useEffect, type ReactNode } from 'react';
import { create } from 'zustand';
import { channelIds } from '../../core/piece/find';
import { MAIN, type Piece, type Target } from '../../core/piece/piece';
import type { ParamValue } from '../../core/params/param';
import { useOpenPiece } from '../../data/openPiece';
import { useRecording } from '../../data/recording';
import { useView } from '../../data/view';
import { resumePrints } from './printing';
import { Studio } from './studio';
import { reasonOf } from '../../core/reasonOf';

interface StudioState {
  readonly studio: Studio;
  /** Counts loaded sounds, so that components that draw sounds render again. */
  readonly soundsSeen: number;
  readonly missing: ReadonlyMap<string, string>;
}

/** The studio of the open piece, or why the browser cannot give sound. */
const useStudioStore = create<{ readonly state: StudioState | null; readonly refusal: string | null }>(() => ({
  state: null,
  refusal: null,
}));

/** Restores the playhead of this window in the piece, and stores it when the window is left. */
function rememberPlayhead(studio: Studio, piece: Piece): () => void {
  const key = `zephiro.playhead.${piece.id}`;
  const beat = Number(sessionStorage.getItem(key));
  if (beat > 0 && beat < piece.lengthBeats) studio.locate(beat);
  const note = (): void => sessionStorage.setItem(key, String(studio.beat));
  window.addEventListener('pagehide', note);
  return () => {
    note();
    window.removeEventListener('pagehide', note);
  };
}

function openStudio(piece: Piece): () => void {
  let studio: Studio;
  try {
    studio = new Studio(piece);
  } catch (error) {
    useStudioStore.setState({ refusal: reasonOf(error) });
    return () => undefined;
  }
  studio.onSounds = (missing) =>
    useStudioStore.setState(({ state }) => ({
      state: { studio, soundsSeen: (state?.soundsSeen ?? 0) + 1, missing: new Map(missing) },
    }));
  useStudioStore.setState({ state: { studio, soundsSeen: 0, missing: new Map() }, refusal: null });
  const forget = rememberPlayhead(studio, piece);
  void studio.soundsLoaded().then(() => {
    if (useStudioStore.getState().state?.studio === studio) resumePrints(studio);
  });
  studio.player.prepare().catch((error: unknown) => useOpenPiece.getState().say(`No sound yet: ${String(error)}`));
  return () => {
    forget();
    useRecording.setState({ playing: false, armed: false });
    studio.close();
  };
}

/** Provides a studio for the open piece; shows `without` when the browser cannot give sound. */
export function StudioProvider({
  children,
  without,
}: {
  readonly children: ReactNode;
  readonly without: (reason: string) => ReactNode;
}) {
  const id = useOpenPiece((open) => open.piece?.id ?? null);
  const { state, refusal } = useStudioStore();
  useEffect(() => {
    const { piece } = useOpenPiece.getState();
    return id && piece ? openStudio(piece) : undefined;
  }, [id]);
  if (refusal) return <>{without(refusal)}</>;
  return state ? <>{children}</> : null;
}

export function useStudio(): StudioState {
  const state = useStudioStore((store) => store.state);
  if (!state) throw new Error('useStudio is for views inside StudioProvider.');
  return state;
}

/** The open piece; views that use it are only shown while there is one. */
export function usePiece(): Piece {
  const piece = useOpenPiece((state) => state.piece);
  if (!piece) throw new Error('usePiece is for views with an open piece.');
  return piece;
}

/** The channel in view: the one chosen, or the first when that does not exist. */
export function useChannel(): string {
  const piece = usePiece();
  const wanted = useView((view) => view.channel);
  return channelIds(piece).includes(wanted) ? wanted : (piece.tracks[0]?.id ?? MAIN);
}

/** Touch of one target: `touch` while it moves, `release` at its end. */
export function useHand(target: Target): { touch(value: ParamValue): void; release(value: ParamValue): void } {
  const { studio } = useStudio();
  return { touch: (value) => studio.touch(target, value), release: (value) => studio.release(target, value) };
}

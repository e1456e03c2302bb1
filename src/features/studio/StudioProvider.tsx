import { createContext, useContext, useEffect, useRef, useState, type ReactNode } from 'react';
import type { Piece, Target } from '../../core/piece/piece';
import type { ParamValue } from '../../core/params/param';
import { useOpenPiece } from '../../data/openPiece';
import { useSession } from '../../data/session';
import { Studio } from './studio';

interface StudioState {
  readonly studio: Studio;
  /** Grows whenever a sound has come, so that what draws sounds draws again. */
  readonly soundsSeen: number;
  readonly missing: ReadonlyMap<string, string>;
}

const StudioContext = createContext<StudioState | null>(null);

/** Holds the studio of the open piece; shows `without` when the browser cannot give sound. */
export function StudioProvider({ children, without }: { readonly children: ReactNode; readonly without: (reason: string) => ReactNode }) {
  const id = useOpenPiece((state) => state.piece?.id ?? null);
  const [state, setState] = useState<StudioState | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const current = useRef<Studio | null>(null);
  useEffect(() => {
    const { piece } = useOpenPiece.getState();
    if (!id || !piece) return undefined;
    let studio: Studio;
    try {
      studio = new Studio(piece);
    } catch (error) {
      setRefusal(error instanceof Error ? error.message : String(error));
      return undefined;
    }
    current.current = studio;
    studio.onSounds = (missing) => setState((before) => ({ studio, soundsSeen: (before?.soundsSeen ?? 0) + 1, missing: new Map(missing) }));
    setState({ studio, soundsSeen: 0, missing: new Map() });
    studio.player.prepare().catch((error: unknown) => useOpenPiece.getState().say(`No sound yet: ${String(error)}`));
    return () => {
      useSession.getState().set({ playing: false, armed: false });
      studio.close();
    };
  }, [id]);
  if (refusal) return <>{without(refusal)}</>;
  if (!state) return null;
  return <StudioContext.Provider value={state}>{children}</StudioContext.Provider>;
}

export function useStudio(): StudioState {
  const state = useContext(StudioContext);
  if (!state) throw new Error('useStudio is for views inside StudioProvider.');
  return state;
}

/** The open piece; views that use it are only shown while there is one. */
export function usePiece(): Piece {
  const piece = useOpenPiece((state) => state.piece);
  if (!piece) throw new Error('usePiece is for views with an open piece.');
  return piece;
}

/** Hands on one target: `touch` while it moves, `release` when it is let go. */
export function useHand(target: Target): { touch(value: ParamValue): void; release(value: ParamValue): void } {
  const { studio } = useStudio();
  return { touch: (value) => studio.touch(target, value), release: (value) => studio.release(target, value) };
}

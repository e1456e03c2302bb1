import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { toBarBeat } from '../../core/music/grid';
import { snapped } from '../../core/moves/snap';
import { applyEdit, EditRefused, type Edit } from '../../core/piece/edit';
import { moveClip } from '../../core/piece/edits/clips';
import { trimClip } from '../../core/piece/edits/clipShape';
import { clipEnd } from '../../core/piece/clipEdges';
import { findClip } from '../../core/piece/find';
import type { Clip, Piece } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { useSession } from '../../data/session';
import { useDrag, type Drag } from '../../ui/pointer';
import { useTokens } from '../../ui/theme';
import { usePiece } from '../studio/StudioProvider';

/** So far from its ends a clip is taken by its edge; a short one by a third of it. */
const EDGE_PX = 26;

type Grip = 'start' | 'move' | 'end';
interface Doing {
  readonly piece: Piece;
  readonly clip: Clip;
  readonly run: () => boolean;
}

interface ClipHandsProps {
  readonly clip: Clip;
  readonly pxPerBeat: number;
  readonly width: number;
  /** Shows the clip as the hand has it; null when it lets go. */
  readonly onHold: (clip: Clip | null) => void;
}

/** Lies over the chosen clip: its middle moves it, its ends trim it, both by the grid points fall on. */
export function ClipHands({ clip, pxPerBeat, width, onHold }: ClipHandsProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const view = useRef<View>(null);
  const grip = useRef<Grip>('move');
  const done = useRef<Doing | null>(null);
  const snap = useSession((session) => session.snap);
  const edge = Math.min(EDGE_PX, width / 3);
  /** What the hand would leave, tried on the piece so that the limits of the edit are seen at once. */
  const attempt = <Args,>(edit: Edit<Args>, args: Args): Doing | null => {
    try {
      const made = applyEdit(piece, edit, args).piece;
      const found = findClip(made, clip.id);
      return found ? { piece: made, clip: found.clip, run: () => useOpenPiece.getState().run(edit, args) } : null;
    } catch (error) {
      if (error instanceof EditRefused) return null;
      throw error;
    }
  };
  const doing = (drag: Drag): Doing | null => {
    const beats = (drag.x - drag.startX) / pxPerBeat;
    const fall = (beat: number): number => Math.max(0, snapped(beat, snap, []));
    if (grip.current === 'move') return attempt(moveClip, { clip: clip.id, start: fall(clip.start + beats) });
    const from = grip.current === 'start' ? clip.start : clipEnd(piece, clip);
    return attempt(trimClip, { clip: clip.id, side: grip.current, beat: fall(from + beats) });
  };
  useDrag(view, {
    takes: () => true,
    begin: (drag) => {
      grip.current = drag.startX < edge ? 'start' : drag.startX > drag.width - edge ? 'end' : 'move';
    },
    move: (drag) => {
      done.current = doing(drag);
      if (!done.current) return;
      const { clip: held } = done.current;
      const at = grip.current === 'end' ? clipEnd(done.current.piece, held) : held.start;
      const { bar, beat } = toBarBeat(at, piece.tempo);
      useOpenPiece.getState().say(`${grip.current === 'move' ? 'Begins' : grip.current === 'start' ? 'Trimmed: begins' : 'Trimmed: ends'} at ${bar}.${beat}${at % 1 > 0.005 && at % 1 < 0.995 ? ` and ${(at % 1).toFixed(2)} of a beat` : ''}`);
      onHold(held);
    },
    end: (_drag, cancelled) => {
      if (!cancelled) done.current?.run();
      done.current = null;
      onHold(null);
    },
  }, 'none');
  return (
    <View ref={view} aria-hidden style={styles.hands}>
      <View style={[styles.edge, { width: edge, left: 0 }]}><View style={[styles.bar, { backgroundColor: tokens.ink }]} /></View>
      <View style={[styles.edge, { width: edge, right: 0 }]}><View style={[styles.bar, { backgroundColor: tokens.ink }]} /></View>
    </View>
  );
}

const styles = StyleSheet.create({
  hands: { position: 'absolute', left: 0, right: 0, top: 0, bottom: 0, cursor: 'pointer', userSelect: 'none' },
  edge: { position: 'absolute', top: 0, bottom: 0, alignItems: 'center', justifyContent: 'center' },
  bar: { width: 4, height: 22, borderRadius: 2, opacity: 0.75 },
});

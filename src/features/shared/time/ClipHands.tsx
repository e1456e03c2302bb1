import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { snapped } from '../../../core/automation/snap';
import { applyEdit, EditRefused, type Edit } from '../../../core/piece/edit';
import { moveClip } from '../../../core/piece/edits/clips';
import { trimClip } from '../../../core/piece/edits/clipShape';
import { clipEnd } from '../../../core/piece/clipEdges';
import { findClip } from '../../../core/piece/find';
import type { Clip } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';
import { useDrag, type Drag } from '../../../ui/pointer';
import { useTokens, useWide } from '../../../ui/theme';
import { usePiece, useStudio } from '../../studio/StudioProvider';
import { useClipHits } from '../throws/useHits';
import { edgeOf, placeText, SAYS } from './ClipLens';
import { cleanEdge } from './cleanEdge';
import { useClipHold, type Grip, type Held } from './clipHold';

/** Width of a clip's edge handles; at most a third of a short clip. */
const EDGE_PX = 26;

/** Vertical distance from the start of the drag at which the clip moves slowly. */
const SLOW_PX = 64;
const SLOWLY = 1 / 8;

interface Doing extends Held {
  readonly run: () => boolean;
}

interface ClipHandsProps {
  readonly clip: Clip;
  readonly pxPerBeat: number;
  readonly width: number;
  /** Shows the dragged clip; null on release. */
  readonly onHold: (clip: Clip | null) => void;
}

/** Drag area over the chosen clip: its middle moves it, its ends trim it, both by the snapping grid. */
export function ClipHands({ clip, pxPerBeat, width, onHold }: ClipHandsProps) {
  const piece = usePiece();
  const { studio } = useStudio();
  const tokens = useTokens();
  const view = useRef<View>(null);
  const wide = useWide();
  const snap = useView((view) => view.snap);
  const grip = useRef<Grip>('move');
  const done = useRef<Doing | null>(null);
  const moved = useRef({ beats: 0, slow: false });
  const hits = useClipHits(clip, snap.kind === 'hits');
  const edge = Math.min(EDGE_PX, width / 3);
  /** The piece as it would be on release, so that the limits of the edit are visible at once. */
  const attempt = <Args,>(edit: Edit<Args>, args: Args): Doing | null => {
    try {
      const made = applyEdit(piece, edit, args).piece;
      const found = findClip(made, clip.id);
      return found
        ? {
            piece: made,
            clip: found.clip,
            grip: grip.current,
            slow: moved.current.slow,
            run: () => useOpenPiece.getState().run(edit, args),
          }
        : null;
    } catch (error) {
      if (error instanceof EditRefused) return null;
      throw error;
    }
  };
  const doing = (drag: Drag): Doing | null => {
    const { beats } = moved.current;
    moved.current = {
      beats: beats + (drag.dx / pxPerBeat) * (moved.current.slow ? SLOWLY : 1),
      slow: Math.abs(drag.y - drag.startY) > SLOW_PX,
    };
    if (grip.current === 'move') {
      // By hits, the first one of the clip falls on one of another; a clip without any falls by its start.
      const lead = snap.kind === 'hits' ? (hits.own[0] ?? clip.start) - clip.start : 0;
      return attempt(moveClip, {
        clip: clip.id,
        start: Math.max(0, snapped(clip.start + lead + moved.current.beats, snap, hits.others) - lead),
      });
    }
    const side = grip.current;
    const from = side === 'start' ? clip.start : clipEnd(piece, clip);
    const trim = (beat: number): Doing | null => attempt(trimClip, { clip: clip.id, side, beat });
    const made = trim(Math.max(0, snapped(from + moved.current.beats, snap, hits.own)));
    const sound = studio.sounds.get(clip.sound);
    return made && sound && snap.kind === 'off'
      ? (trim(cleanEdge(made.piece, made.clip, side, sound.channels)) ?? made)
      : made;
  };
  useDrag(
    view,
    {
      takes: () => true,
      begin: (drag) => {
        grip.current = drag.startX < edge ? 'start' : drag.startX > drag.width - edge ? 'end' : 'move';
        // The distance before the drag was recognised is included.
        moved.current = { beats: (drag.x - drag.dx - drag.startX) / pxPerBeat, slow: false };
      },
      move: (drag) => {
        done.current = doing(drag) ?? done.current;
        if (!done.current) return;
        if (wide)
          useOpenPiece.getState().say(`${SAYS[grip.current]} ${placeText(done.current.piece, edgeOf(done.current))}`);
        else useClipHold.setState({ held: done.current });
        onHold(done.current.clip);
      },
      end: (_drag, cancelled) => {
        if (!cancelled) done.current?.run();
        done.current = null;
        useClipHold.setState({ held: null });
        onHold(null);
      },
    },
    'none',
  );
  return (
    <View ref={view} aria-hidden style={styles.hands}>
      <View style={[styles.edge, { width: edge, left: 0 }]}>
        <View style={[styles.bar, { backgroundColor: tokens.ink }]} />
      </View>
      <View style={[styles.edge, { width: edge, right: 0 }]}>
        <View style={[styles.bar, { backgroundColor: tokens.ink }]} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  hands: { position: 'absolute', left: 0, right: 0, top: 0, bottom: 0, cursor: 'pointer', userSelect: 'none' },
  edge: { position: 'absolute', top: 0, bottom: 0, alignItems: 'center', justifyContent: 'center' },
  bar: { width: 4, height: 22, borderRadius: 2, opacity: 0.75 },
});

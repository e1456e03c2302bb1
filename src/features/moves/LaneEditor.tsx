import { useCallback, useMemo, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Circle, Path } from 'react-native-svg';
import { addPoint, movePoint } from '../../core/moves/editPoints';
import type { Point } from '../../core/moves/point';
import { snapped } from '../../core/moves/snap';
import { formatNumber } from '../../core/params/format';
import type { Param } from '../../core/params/param';
import { effectOf } from '../../core/effects/catalogue';
import { layMoves, setPoints } from '../../core/piece/edits/lanes';
import { findSlot, isWaiting, kindWaitedFor, paramOf } from '../../core/piece/find';
import type { Lane, Piece } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { useSession } from '../../data/session';
import { useDrag, useKeys, type Drag } from '../../ui/pointer';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';
import { laneTrack, valueInUnit } from '../../core/moves/lane';
import { usePiece } from '../studio/StudioProvider';
import type { Drawing } from './DrawButton';
import { LaneOverlay } from './LaneOverlay';
import { isCrowded, linePath, shownPoints, standsClose, type Window } from './lanePath';
import { drawnLane, strike, type Stroke } from './stroke';

const PAD = 12;
/** A finger this near takes the point along. */
const REACH_PX = 22;

interface LaneEditorProps {
  readonly lane: Lane;
  readonly pxPerBeat: number;
  readonly width: number;
  readonly height: number;
  /** What of the lane is in sight, or near it. */
  readonly window: Window;
  /** Index of the chosen point; null while the lane is not the chosen one. */
  readonly chosen: number | null;
  readonly onChoose: (index: number | null) => void;
  /** Whether a drag draws the line anew, and how, instead of taking a point along. */
  readonly drawing: Drawing;
  /** Beats of the channel's hits, for points that fall on them. */
  readonly hits: readonly number[];
}

/** One lane: its line in coral, points that are dragged, a tap on the line adds one, tools for the chosen one. */
export function LaneEditor({ lane, pxPerBeat, width, height, window, chosen, onChoose, drawing, hits }: LaneEditorProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const param = paramOf(piece, lane.target);
  const snap = useSession((session) => session.snap);
  const [moved, setMoved] = useState<readonly Point[] | null>(null);
  const view = useRef<View>(null);
  const stroke = useRef<Stroke | null>(null);
  const grip = useRef<{ index: number; beat: number; position: number; points: readonly Point[] } | null>(null);
  const points = moved ?? lane.points;
  const track = useMemo(() => (param ? laneTrack(piece, { ...lane, points: [...points] }, param) : null), [piece, lane, points, param]);
  const run = useOpenPiece((state) => state.run);
  const y = useCallback((position: number): number => PAD + (1 - position) * (height - 2 * PAD), [height]);
  const place = (index: number): { x: number; y: number } => ({
    x: points[index]!.beat * pxPerBeat,
    y: y(track?.positions[index] ?? 0),
  });
  const nearest = (x: number, y: number): number | null => {
    let best: number | null = null;
    let away = REACH_PX;
    points.forEach((_, i) => {
      const at = place(i);
      const distance = Math.hypot(at.x - x, at.y - y);
      if (distance < away) {
        away = distance;
        best = i;
      }
    });
    return best;
  };
  const positionAtY = (y: number): number => Math.min(1, Math.max(0, 1 - (y - PAD) / (height - 2 * PAD)));
  const value = (position: number): number => (param ? valueInUnit(piece, param, position, lane.unit) : 0);
  useDrag(view, {
    begin: (drag) => {
      if (drawing !== 'off') {
        stroke.current = new Map();
        return true;
      }
      const index = nearest(drag.startX, drag.startY);
      if (index === null) return false;
      grip.current = { index, beat: points[index]!.beat, position: track?.positions[index] ?? 0, points };
      onChoose(index);
      return true;
    },
    move: (drag: Drag) => {
      if (stroke.current) {
        strike(stroke.current, drag, positionAtY);
        setMoved(drawnLane(piece, lane, stroke.current, pxPerBeat, drawing, snap)?.points ?? null);
        return;
      }
      const from = grip.current;
      if (!from) return;
      const beat = snapped(from.beat + (drag.x - drag.startX) / pxPerBeat, snap, hits);
      const position = Math.min(1, Math.max(0, from.position - (drag.y - drag.startY) / (height - 2 * PAD)));
      grip.current = { ...from };
      setMoved(movePoint(from.points, from.index, beat, value(position)));
    },
    end: (_drag, cancelled) => {
      const drawn = stroke.current && !cancelled ? drawnLane(piece, lane, stroke.current, pxPerBeat, drawing, snap) : null;
      stroke.current = null;
      if (drawn) {
        run(layMoves, { lanes: [drawn], what: 'Draw' });
        setMoved(null);
        return;
      }
      if (!cancelled && moved) run(setPoints, { lane: lane.id, points: [...moved], what: 'Move' });
      setMoved(null);
      grip.current = null;
    },
    tap: (drag) => {
      const index = nearest(drag.x, drag.y);
      if (index !== null) {
        onChoose(index);
        return;
      }
      const added = addPoint(points, snapped(drag.x / pxPerBeat, snap, hits), value(positionAtY(drag.y)));
      run(setPoints, { lane: lane.id, points: added.points, what: 'Add' });
      onChoose(added.index);
    },
  }, 'none');
  useKeys(view, (event) => {
    const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (step === 0) return false;
    onChoose(Math.max(0, Math.min(points.length - 1, (chosen ?? -1) + step)));
    return true;
  });
  const { from, to } = window;
  const { shown, crowded, path } = useMemo(() => {
    const seen = shownPoints(points, pxPerBeat, { from, to });
    const drawn = track ? linePath({ points, positions: track.positions, shapes: track.shapes, pxPerBeat, y }, seen, { from, to }) : '';
    return { shown: seen, crowded: isCrowded(seen, { from, to }), path: drawn };
  }, [points, track, pxPerBeat, y, from, to]);
  if (!param || !track) return <Words kind="small">These moves wait: what they moved is no longer here.</Words>;
  return (
    <View style={[styles.lane, { borderColor: tokens.line, opacity: lane.on && !isWaiting(piece, lane.target) ? 1 : 0.5 }]}>
      <View style={styles.head}>
        <Words kind="strong" tone="coralInk" numberOfLines={1}>{`∿ ${laneName(piece, lane, param)}`}</Words>
        <Words kind="small">{`${isWaiting(piece, lane.target) ? 'waiting · ' : ''}${lane.travels ? 'travels with clips · ' : ''}${points.length} ${points.length === 1 ? 'point' : 'points'}`}</Words>
      </View>
      <View
        ref={view}
        role="group"
        tabIndex={0}
        aria-label={`Lane ${laneName(piece, lane, param)}, ${points.length} points. Arrow keys choose a point`}
        style={[styles.field, { width, height, backgroundColor: tokens.card }]}
      >
        <Svg width={width} height={height}>
          <Path d={path} stroke={tokens.coral} strokeWidth={crowded ? 1 : 2.2} fill="none" strokeLinejoin="round" />
          {crowded ? null : points.slice(shown.first, shown.end).map((_, k) => {
            const i = shown.first + k;
            const at = place(i);
            const on = i === chosen;
            const small = standsClose(points, i, pxPerBeat);
            return <Circle key={i} cx={at.x} cy={at.y} r={on ? 8 : small ? 2.5 : 5} fill={on || small ? tokens.coral : tokens.card} stroke={tokens.coral} strokeWidth={small && !on ? 0 : 2} />;
          })}
        </Svg>
        <LaneOverlay lane={lane} track={track} pxPerBeat={pxPerBeat} width={width} height={height} y={y} />
        {param.kind === 'number' ? (
          <>
            <Words kind="small" style={[styles.top, { backgroundColor: tokens.card }]}>{formatNumber({ ...param, offAt: undefined }, param.max)}</Words>
            <Words kind="small" style={[styles.bottom, { backgroundColor: tokens.card }]}>{formatNumber({ ...param, offAt: undefined }, param.min)}</Words>
          </>
        ) : null}
      </View>
    </View>
  );
}

export function laneName(piece: Piece, lane: Lane, param: Param): string {
  const slot = lane.target.effect ? findSlot(piece, lane.target.channel, lane.target.effect) : undefined;
  const kind = slot?.effect ?? kindWaitedFor(lane.target);
  return kind ? `${effectOf(kind).name} ${param.label.toLowerCase()}` : param.label;
}

const styles = StyleSheet.create({
  lane: { borderTopWidth: 1, paddingTop: 8, marginTop: 10 },
  head: { flexDirection: 'row', justifyContent: 'space-between', alignItems: 'baseline', gap: 10, maxWidth: 640 },
  field: { borderRadius: 10, overflow: 'hidden', marginTop: 4, cursor: 'pointer', userSelect: 'none' },
  top: { position: 'absolute', right: 0, top: 0, paddingHorizontal: 6, fontSize: 11, pointerEvents: 'none' },
  bottom: { position: 'absolute', right: 0, bottom: 0, paddingHorizontal: 6, fontSize: 11, pointerEvents: 'none' },
});

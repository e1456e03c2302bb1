import { useRef, useState, type RefObject } from 'react';
import type { View } from 'react-native';
import { addPoint } from '../../core/automation/editPoints';
import { valueInUnit } from '../../core/piece/moves/lane';
import type { Point } from '../../core/automation/point';
import { snapped } from '../../core/automation/snap';
import type { Param } from '../../core/params/param';
import { layMoves, setPoints } from '../../core/piece/edits/lanes';
import type { Lane } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { useView } from '../../data/view';
import { useDrag, useKeys, type Drag } from '../../ui/pointer';
import { usePiece, useStudio } from '../studio/StudioProvider';
import type { Drawing } from './DrawButton';
import { dragged, gripAt, pointAt, type Grip, type LaneGeometry, type Way } from './laneGrip';
import { drawnLane, strike, type Stroke } from './stroke';
import { editByKey } from './pointKeys';

interface Hand {
  readonly lane: Lane;
  readonly param: Param | null;
  /** The lane without the present drag. */
  readonly laid: LaneGeometry | null;
  readonly height: number;
  readonly pad: number;
  readonly chosen: number | null;
  readonly onChoose: (index: number | null) => void;
  readonly drawing: Drawing;
  readonly hits: readonly number[];
}

/** What an arrow key moves a point by where points fall on no grid. */
const KEY_BEATS = 0.0625;
const KEY_STEP = 0.01;
const KEY_STRIDE = 0.1;

/** The gestures and keys of a lane's field. @returns the points during a drag; null otherwise */
export function useLaneHand(view: RefObject<View | null>, hand: Hand): readonly Point[] | null {
  const { lane, param, laid, height, pad, chosen, onChoose, drawing, hits } = hand;
  const piece = usePiece();
  const { studio } = useStudio();
  const snap = useView((view) => view.snap);
  const run = useOpenPiece((state) => state.run);
  const [moved, setMoved] = useState<readonly Point[] | null>(null);
  const stroke = useRef<Stroke | null>(null);
  const grip = useRef<{ readonly grip: Grip; readonly laid: LaneGeometry; readonly upright: boolean } | null>(null);
  const { points } = lane;
  const room = height - 2 * pad;
  const positionAtY = (y: number): number => Math.min(1, Math.max(0, 1 - (y - pad) / room));
  const fall = (beat: number): number => snapped(beat, snap, hits);
  const drawn = (): Lane | null =>
    stroke.current && drawnLane(piece, lane, stroke.current, laid?.pxPerBeat ?? 1, drawing, snap);
  const wayOf = (drag: Drag): Way => {
    const { grip: held, upright } = grip.current!;
    const way = { beats: (drag.x - drag.startX) / laid!.pxPerBeat, position: -(drag.y - drag.startY) / room };
    if (held.kind === 'bend') return { ...way, beats: 0 };
    if (held.kind === 'point') return way;
    return upright ? { ...way, beats: 0 } : { ...way, position: 0 };
  };
  useDrag(
    view,
    {
      takes: (x, y) => drawing !== 'off' || (laid !== null && gripAt(laid, x, y, chosen) !== null),
      begin: (drag) => {
        if (drawing !== 'off') {
          stroke.current = new Map();
          return true;
        }
        const found = laid && gripAt(laid, drag.startX, drag.startY, chosen);
        if (!found) return false;
        grip.current = { grip: found, laid, upright: Math.abs(drag.y - drag.startY) >= Math.abs(drag.x - drag.startX) };
        if (found.kind !== 'bend') onChoose(Math.max(0, found.index));
        return true;
      },
      move: (drag) => {
        if (stroke.current) {
          strike(stroke.current, drag, positionAtY);
          setMoved(drawn()?.points ?? null);
        } else if (grip.current && param)
          setMoved(dragged(piece, lane, param, grip.current.laid, grip.current.grip, wayOf(drag), fall));
      },
      end: (_drag, cancelled) => {
        const made = cancelled ? null : drawn();
        const kind = grip.current?.grip.kind;
        stroke.current = null;
        grip.current = null;
        if (made) run(layMoves, { lanes: [made], what: 'Draw' });
        else if (!cancelled && moved && kind)
          run(setPoints, {
            lane: lane.id,
            points: [...moved],
            what: kind === 'bend' ? 'Bend' : kind === 'segment' ? 'Shift' : 'Move',
          });
        setMoved(null);
      },
      tap: (drag) => {
        if (!laid || !param) return;
        const index = pointAt(laid, drag.x, drag.y);
        if (index !== null) {
          onChoose(index);
          return;
        }
        const added = addPoint(
          points,
          fall(drag.x / laid.pxPerBeat),
          valueInUnit(piece, param, positionAtY(drag.y), lane.unit),
        );
        run(setPoints, { lane: lane.id, points: added.points, what: 'Add' });
        onChoose(added.index);
      },
    },
    'pan-x pan-y',
  );
  const shift = (by: Way): boolean => {
    if (chosen === null || !laid || !param || chosen >= points.length) return false;
    return run(setPoints, {
      lane: lane.id,
      points: dragged(piece, lane, param, laid, { kind: 'point', index: chosen }, by, (beat) => beat),
      what: 'Move',
    });
  };
  const stepBeats = snap.kind === 'grid' ? snap.beats : KEY_BEATS;
  useKeys(view, (event) => {
    const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    const rise =
      event.key === 'ArrowUp'
        ? KEY_STEP
        : event.key === 'ArrowDown'
          ? -KEY_STEP
          : event.key === 'PageUp'
            ? KEY_STRIDE
            : event.key === 'PageDown'
              ? -KEY_STRIDE
              : 0;
    if (rise !== 0) return shift({ beats: 0, position: rise });
    if (step !== 0 && event.shiftKey) return shift({ beats: step * stepBeats, position: 0 });
    if (step !== 0) {
      onChoose(Math.max(0, Math.min(points.length - 1, (chosen ?? -1) + step)));
      return true;
    }
    if (event.key === 'Home' || event.key === 'End') {
      onChoose(event.key === 'Home' ? 0 : points.length - 1);
      return true;
    }
    if (!param || !laid) return false;
    const context = { piece, lane, param, laid, chosen, onChoose, playhead: studio.beat, stepBeats };
    return editByKey(context, event);
  });
  return moved;
}

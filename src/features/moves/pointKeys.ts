import { addPoint, removePoint } from '../../core/automation/editPoints';
import type { Point } from '../../core/automation/point';
import type { Param } from '../../core/params/param';
import { setPoints } from '../../core/piece/edits/lanes';
import { valueInUnit } from '../../core/piece/moves/lane';
import type { Lane, Piece } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import type { LaneGeometry } from './laneGrip';

/** The lane that editing keys act on, and where. */
export interface PointContext {
  readonly piece: Piece;
  readonly lane: Lane;
  readonly param: Param;
  readonly laid: LaneGeometry;
  /** Index of the chosen point; null while none is. */
  readonly chosen: number | null;
  readonly onChoose: (index: number | null) => void;
  /** Position of the playhead, in beats. */
  readonly playhead: number;
  /** How far behind its original a copy is put, in beats. */
  readonly stepBeats: number;
}

/** A point that was cut or copied: its place on the rail, so that it can be pasted into any lane, and its shape. */
let copied: (Pick<Point, 'shape' | 'bend'> & { readonly position: number }) | null = null;

/** Adds the copied point, or says that there is none. */
function insertCopied(context: PointContext, beat: number, what: string): boolean {
  const { piece, lane, param, onChoose } = context;
  if (!copied) {
    useOpenPiece.getState().say('No point has been copied yet.');
    return true;
  }
  const { position, shape, bend } = copied;
  const added = addPoint(lane.points, beat, valueInUnit(piece, param, position, lane.unit));
  const points = added.points.map((point, i) => (i === added.index ? { ...point, shape, bend } : point));
  if (useOpenPiece.getState().run(setPoints, { lane: lane.id, points, what })) onChoose(added.index);
  return true;
}

function copy({ lane, laid, chosen }: PointContext): boolean {
  const point = chosen === null ? undefined : lane.points[chosen];
  if (!point) return false;
  copied = { position: laid.track.positions[chosen!]!, shape: point.shape, bend: point.bend };
  return true;
}

/** Takes the chosen point out; the last one of a lane stays. */
export function removeChosen({ lane, chosen, onChoose }: PointContext): boolean {
  if (chosen === null || lane.points.length < 2) return false;
  const points = removePoint(lane.points, chosen);
  if (useOpenPiece.getState().run(setPoints, { lane: lane.id, points, what: 'Remove' })) onChoose(null);
  return true;
}

/**
 * Delete, and with Ctrl or Command C, X, V and D, on the points of a lane: a copy is pasted at the playhead, or put a
 * step behind its original.
 * @returns false for a key that means nothing there
 */
export function editByKey(context: PointContext, { key, ctrlKey, metaKey }: KeyboardEvent): boolean {
  const { lane, chosen, playhead, stepBeats } = context;
  if (key === 'Delete' || key === 'Backspace') return removeChosen(context);
  if (!ctrlKey && !metaKey) return false;
  switch (key.toLowerCase()) {
    case 'c':
      if (!copy(context)) return false;
      useOpenPiece.getState().say('The point is copied. Paste puts it at the playhead, into any lane.');
      return true;
    case 'x':
      return copy(context) && removeChosen(context);
    case 'v':
      return insertCopied(context, playhead, 'Paste');
    case 'd':
      return copy(context) && insertCopied(context, lane.points[chosen!]!.beat + stepBeats, 'Duplicate');
    default:
      return false;
  }
}

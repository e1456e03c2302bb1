import type { Param } from '../../core/params/param';
import { laneTrack } from '../../core/piece/moves/lane';
import { echoSlot, laneOf, scene, soundOf, clipOf } from '../../core/piece/testing';
import { findLane, paramOf } from '../../core/piece/find';
import type { Lane, Piece } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { editByKey, type PointContext } from './pointKeys';

const target = { kind: 'effect', channel: 't0', effect: 'e', param: 'feedback' } as const;
const other = { ...target, param: 'timeL' };

beforeEach(() => {
  const { piece } = scene(
    [soundOf(1, () => 0)],
    [{ clips: [clipOf('a', 0, 0, 1)], chain: [echoSlot('e', { timeL: 300 })] }],
  );
  const feedback = laneOf('t0', 'e', 'feedback', [
    [0, 0.2],
    [4, 0.6],
    [8, 0.4],
  ]);
  const time = laneOf('t0', 'e', 'timeL', [[0, 300]]);
  useOpenPiece.setState({ piece: { ...piece, lanes: [feedback, time] }, notice: null });
});

const now = (): Piece => useOpenPiece.getState().piece!;
const lane = (of: Lane['target'] = target): Lane => findLane(now(), of)!;

/** Presses a key with Ctrl on a lane; gives whether it was used and which point is chosen then. */
function press(
  key: string,
  chosen: number | null,
  { of = target, ctrlKey = true, playhead = 6 }: { of?: Lane['target']; ctrlKey?: boolean; playhead?: number } = {},
) {
  let choice = chosen;
  const param: Param = paramOf(now(), of)!;
  const track = laneTrack(now(), lane(of), param);
  const context: PointContext = {
    piece: now(),
    lane: lane(of),
    param,
    laid: { points: lane(of).points, track, pxPerBeat: 10, y: (position) => position },
    chosen,
    onChoose: (index) => void (choice = index),
    playhead,
    stepBeats: 1,
  };
  return { used: editByKey(context, { key, ctrlKey, metaKey: false } as KeyboardEvent), choice };
}
const places = (of?: Lane['target']): number[][] =>
  lane(of).points.map(({ beat, value }) => [beat, Number(value.toFixed(3))]);

test('nothing copied yet is said', () => {
  expect(press('v', null).used).toBe(true);
  expect(useOpenPiece.getState().notice).toBe('No point has been copied yet.');
  expect(lane().points).toHaveLength(3);
});

test('a point is copied to the playhead with its value and shape, and stays where it was', () => {
  expect(press('c', 1)).toEqual({ used: true, choice: 1 });
  expect(press('v', 1, { playhead: 6 })).toEqual({ used: true, choice: 2 });
  expect(places()).toEqual([
    [0, 0.2],
    [4, 0.6],
    [6, 0.6],
    [8, 0.4],
  ]);
});

test('one that is cut is gone, and can be pasted into another lane at the same place of its rail', () => {
  expect(press('x', 1)).toEqual({ used: true, choice: null });
  expect(places().map(([beat]) => beat)).toEqual([0, 8]);
  press('v', null, { of: other, playhead: 2 });
  const pasted = laneTrack(now(), lane(other), paramOf(now(), other)!).positions[1]!;
  press('v', null, { playhead: 2 });
  expect(laneTrack(now(), lane(), paramOf(now(), target)!).positions[1]).toBeCloseTo(pasted, 6);
});

test('a duplicate lies a step behind; Delete takes the chosen one, but never the last', () => {
  expect(press('d', 0)).toEqual({ used: true, choice: 1 });
  expect(places()[1]).toEqual([1, 0.2]);
  expect(press('Delete', 1, { ctrlKey: false }).used).toBe(true);
  expect(lane().points).toHaveLength(3);
  expect(press('Delete', 0, { of: other, ctrlKey: false }).used).toBe(false);
  expect(press('q', 0).used).toBe(false);
  expect(press('c', 0, { ctrlKey: false }).used).toBe(false);
});

import { applyEdit, applyPiecePatches } from '../edit';
import { findSlot } from '../find';
import { clipOf, echoSlot, scene, soundOf } from '../testing';
import { setParams } from './chain';

test('sides of an echo that are parted begin where they were heard, and linked again lose nothing', () => {
  const { piece } = scene(
    [soundOf(1, () => 0)],
    [{ clips: [clipOf('a', 0, 0, 1)], chain: [echoSlot('e', { linked: true, timeL: 150, timeR: 450 })] }],
  );
  const times = (of: typeof piece) => {
    const { timeL, timeR } = findSlot(of, 't0', 'e')!.values;
    return [timeL, timeR];
  };
  const parted = applyEdit(piece, setParams, { channel: 't0', slot: 'e', values: { linked: false } });
  expect(times(parted.piece)).toEqual([150, 150]);
  const moved = applyEdit(parted.piece, setParams, { channel: 't0', slot: 'e', values: { timeR: '1/4' } });
  const linked = applyEdit(moved.piece, setParams, { channel: 't0', slot: 'e', values: { linked: true } });
  expect(times(linked.piece)).toEqual([150, '1/4']);
  // Set to what it is, nothing moves; undone, all is as it was.
  expect(
    times(applyEdit(moved.piece, setParams, { channel: 't0', slot: 'e', values: { linked: false } }).piece),
  ).toEqual([150, '1/4']);
  expect(times(applyPiecePatches(parted.piece, parted.backward))).toEqual([150, 450]);
});

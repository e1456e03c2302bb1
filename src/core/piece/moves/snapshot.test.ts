import { clipOf, laneOf, scene, soundOf, targetOf } from '../testing';
import { applyEdit } from '../edit';
import { dropSnapshot, keepSnapshot, recallSnapshot } from '../edits/snapshots';
import { layMoves } from '../edits/lanes';
import { newSlot } from '../edits/chain';
import { baseValue, channelOfTarget, findLane, paramOf, sameTarget } from '../find';
import { readPiece } from '../versions/readPiece';
import type { Piece, Target } from '../piece';
import { laneTrack, trackAt } from './lane';
import { goalsOf, morphLanes, takeSnapshot } from './snapshot';

const filter = newSlot('f', 'filter', 'neutral', { cutoff: 500 });
const echo = newSlot('e', 'echo', 'neutral', { timeL: '1/8d', hold: false, routing: 'stereo' });
const back = { id: 'r', name: 'Return', gain: 1, pan: 0, mute: false, solo: false, chain: [], sends: [] };
const { piece: plain } = scene(
  [soundOf(1, () => 0)],
  [{ clips: [clipOf('a', 0, 0, 1)], chain: [filter, echo], sends: [{ to: 'r', level: 0.2, pre: false }] }],
  { returns: [back] },
);
const piece: Piece = {
  ...plain,
  lanes: [
    laneOf('t0', 'f', 'cutoff', [
      [0, 200],
      [8, 3200],
    ]),
  ],
};
const at = (effect: string | null, param: string): Target => targetOf('t0', effect, param);
const positionOf = (of: Piece, target: Target, beat: number): number =>
  trackAt(laneTrack(of, findLane(of, target)!, paramOf(of, target)!), beat);

/** The piece after hands have changed it, with the snapshot of how it was kept in it. */
const changed = (): Piece => {
  const kept = applyEdit(piece, keepSnapshot, { snapshot: takeSnapshot(piece, 't0', 4, 's', 'Low water') }).piece;
  const [track] = kept.tracks;
  const chain = [
    { ...filter, on: false },
    { ...echo, values: { ...echo.values, timeL: 700, hold: true, routing: 'pingPong' } },
  ];
  return {
    ...kept,
    lanes: [],
    tracks: [{ ...track!, gain: 0.5, pan: 0.3, mute: true, chain, sends: [{ to: 'r', level: 1, pre: false }] }],
  };
};

describe('snapshots', () => {
  test('hold what stands at the place: lanes where they are, note values as such', () => {
    const { values } = takeSnapshot(piece, 't0', 4, 's', 'Low water');
    const valueAt = (wanted: Target): unknown => values.find(({ target }) => sameTarget(target, wanted))?.value;
    const value = (effect: string | null, param: string): unknown => valueAt(at(effect, param));
    expect(value('f', 'cutoff')).toBeCloseTo(800, 6);
    expect([
      value('e', 'timeL'),
      value('e', 'on'),
      valueAt({ kind: 'send', channel: 't0', to: 'r' }),
      value(null, 'mute'),
    ]).toEqual(['1/8d', true, 0.2, false]);
    expect(takeSnapshot(piece, null, 0, 's', 'All').values.some(({ target }) => channelOfTarget(target) === 'r')).toBe(
      true,
    );
  });

  test('recalled, everything is as it was, in one edit; followed lanes stay in charge, and what is gone is left out', () => {
    const before = changed();
    const after = applyEdit(before, recallSnapshot, { id: 's' }).piece;
    expect(goalsOf(after, after.snapshots[0]!, 0)).toEqual([]);
    expect([
      after.tracks[0]!.gain,
      after.tracks[0]!.mute,
      after.tracks[0]!.chain[0]!.on,
      after.tracks[0]!.sends[0]!.level,
    ]).toEqual([1, false, true, 0.2]);
    const laned = { ...before, lanes: piece.lanes };
    expect(applyEdit(laned, recallSnapshot, { id: 's' }).piece.tracks[0]!.chain[0]!.values.cutoff).toBe(500);
    const less = { ...before, tracks: [{ ...before.tracks[0]!, chain: [before.tracks[0]!.chain[1]!] }] };
    expect(baseValue(applyEdit(less, recallSnapshot, { id: 's' }).piece, at('e', 'timeL'))).toBe('1/8d');
    expect(applyEdit(before, dropSnapshot, { id: 's' }).piece.snapshots).toEqual([]);
  });

  test('a morph as moves goes straight along every rail, arrives on the beat and stays', () => {
    const before = changed();
    const goals = goalsOf(before, before.snapshots[0]!, 8);
    const lanes = morphLanes(before, before.snapshots[0]!, 8, 4, (i) => `m${i}`);
    expect(lanes).toHaveLength(goals.length);
    const after = applyEdit(before, layMoves, { lanes, what: 'Morph' }).piece;
    for (const { target, param, from, to } of goals) {
      expect(positionOf(after, target, 7.99)).toBeCloseTo(from, 6);
      expect(positionOf(after, target, 12)).toBeCloseTo(to, 6);
      expect(positionOf(after, target, 40)).toBeCloseTo(to, 6);
      if (param.kind === 'number') expect(positionOf(after, target, 9)).toBeCloseTo(from + (to - from) / 4, 6);
    }
    expect([8, 11.9].map((beat) => positionOf(after, at('f', 'on'), beat))).toEqual([1, 1]);
    expect([8, 11.9, 12].map((beat) => positionOf(after, at('e', 'hold'), beat))).toEqual([1, 1, 0]);
    expect(goalsOf(after, after.snapshots[0]!, 12)).toEqual([]);
  });

  test('a morph at once steps, over lanes that are there too, and leaves what comes later', () => {
    const before = {
      ...changed(),
      lanes: [
        laneOf('t0', 'f', 'cutoff', [
          [0, 200],
          [16, 3200],
        ]),
        laneOf('t0', null, 'pan', [
          [0, -1],
          [30, 1],
        ]),
      ],
    };
    const after = applyEdit(before, layMoves, {
      lanes: morphLanes(before, before.snapshots[0]!, 8, 0, (i) => `m${i}`),
      what: 'Morph',
    }).piece;
    const pan = (beat: number): number => positionOf(after, at(null, 'pan'), beat);
    expect([pan(8), pan(29.9), pan(30)]).toEqual([0.5, 0.5, 1]);
    expect(pan(4)).toBeCloseTo(positionOf(before, at(null, 'pan'), 4), 6);
  });

  test('a piece of before has none', () => {
    const { snapshots: _none, ...old } = { ...piece, version: 4 };
    expect(readPiece(old).snapshots).toEqual([]);
  });
});

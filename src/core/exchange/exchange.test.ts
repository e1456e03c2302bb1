import fc from 'fast-check';
import { between } from '../testing';
import { writeMidi } from 'midi-file';
import { paramPosition } from '../params/resolve';
import { newSlot } from '../piece/edits/chain';
import { paramOf, targetKey } from '../piece/find';
import { emptyPiece, type Lane, type Piece, type Target } from '../piece/piece';
import { laneTrack, trackAt } from '../piece/moves/lane';
import type { Point } from '../automation/point';
import { readMovesCsv, writeMovesCsv } from './movesCsv';
import { readMovesMidi, writeMovesMidi } from './movesMidi';

const own = { gain: 1, pan: 0, mute: false, solo: false };
const piece: Piece = {
  ...emptyPiece('p', 'Pier'),
  tracks: [
    {
      ...own,
      id: 't',
      name: 'Möwe, "far"',
      clips: [],
      chain: [newSlot('e1', 'echo', 'neutral'), newSlot('e2', 'echo', 'neutral')],
      sends: [{ to: 'r', level: 0.5, pre: false }],
    },
  ],
  returns: [{ ...own, id: 'r', name: 'Space: wide', chain: [], sends: [] }],
  modulators: [
    {
      id: 'm',
      name: 'Macro 1',
      kind: 'macro',
      level: 0,
    },
  ],
};
const TARGETS: readonly Target[] = [
  { kind: 'effect', channel: 't', effect: 'e2', param: 'input' },
  { kind: 'effect', channel: 't', effect: 'e1', param: 'cutoff' },
  { kind: 'send', channel: 't', to: 'r' },
  { kind: 'macro', macro: 'm' },
  { kind: 'channel', channel: 'r', param: 'pan' },
];
/** The same piece as it is elsewhere: other ids, the same names. */
const elsewhere: Piece = JSON.parse(
  JSON.stringify(piece)
    .replaceAll('"e1"', '"x1"')
    .replaceAll('"e2"', '"x2"')
    .replaceAll('"r"', '"rr"')
    .replaceAll('"m"', '"mm"'),
) as Piece;

/** The key of a target of `piece` as it is in `elsewhere`. */
const elsewhereKey = (key: string): string =>
  key
    .split('/')
    .map((part) => ({ e1: 'x1', e2: 'x2', r: 'rr', m: 'mm' })[part] ?? part)
    .join('/');

const lanesOf = fc
  .array(
    fc.array(
      fc.record({
        beat: fc.integer({ min: 0, max: 9600 }),
        share: between(0, 1),
        shape: fc.constantFrom('line', 'hold', 'curve'),
        bend: between(-1, 1),
      }),
      { minLength: 1, maxLength: 8 },
    ),
    { minLength: 1, maxLength: TARGETS.length },
  )
  .map((all): Lane[] =>
    all.map((list, i) => {
      const param = paramOf(piece, TARGETS[i]!)!;
      const [low, high] = param.kind === 'number' ? [param.min, param.max] : [0, 1];
      const points = list
        .map(
          ({ beat, share, shape, bend }) =>
            ({ beat: beat / 960, value: low + (high - low) * share, shape, bend: bend + 0 }) as Point,
        )
        .sort((a, b) => a.beat - b.beat)
        .filter((point, k, sorted) => point.beat !== sorted[k - 1]?.beat);
      return { id: `l${i}`, target: TARGETS[i]!, unit: 'own', on: true, points };
    }),
  );

let count = 0;
const newId = (): string => `new${(count += 1)}`;

test('a table comes back as it went, into another piece with the same names', () => {
  fc.assert(
    fc.property(lanesOf, (lanes) => {
      const read = readMovesCsv(elsewhere, writeMovesCsv(piece, lanes), newId);
      expect(read.missed).toEqual([]);
      expect(read.lanes.map(({ points }) => points)).toEqual(lanes.map(({ points }) => points));
      expect(read.lanes.map(({ target }) => targetKey(target))).toEqual(
        lanes.map(({ target }) => elsewhereKey(targetKey(target))),
      );
    }),
  );
});

test.each([14, 7] as const)(
  'a MIDI file of %d bits comes back as it went, to the fineness of its controllers',
  (bits) => {
    const step = 1 / (bits === 14 ? 16_383 : 127);
    fc.assert(
      fc.property(lanesOf, (lanes) => {
        const { lanes: back, missed } = readMovesMidi(elsewhere, writeMovesMidi(piece, lanes, bits), newId);
        expect(missed).toEqual([]);
        expect(back).toHaveLength(lanes.length);
        back.forEach((lane, i) => {
          const param = paramOf(elsewhere, lane.target)!;
          expect(lane.points.map(({ beat, shape, bend }) => ({ beat, shape, bend }))).toEqual(
            lanes[i]!.points.map(({ beat, shape, bend }) => ({ beat, shape, bend })),
          );
          lane.points.forEach(({ value }, k) =>
            expect(
              Math.abs(paramPosition(param, value) - paramPosition(param, lanes[i]!.points[k]!.value)),
            ).toBeLessThanOrEqual(0.5 * step + 1e-6),
          );
        });
      }),
      { numRuns: 60 },
    );
  },
);

test('controllers of a stranger become stretches that can be pasted anywhere', () => {
  const swell = Array.from({ length: 65 }, (_, i) => ({
    deltaTime: i === 0 ? 480 : 30,
    type: 'controller' as const,
    channel: 2,
    controllerType: 74,
    value: Math.min(127, 2 * i),
  }));
  const bytes = Uint8Array.from(
    writeMidi({
      header: { format: 0, numTracks: 1, ticksPerBeat: 480 },
      tracks: [[{ deltaTime: 0, type: 'trackName', text: 'Lead' }, ...swell, { deltaTime: 0, type: 'endOfTrack' }]],
    }),
  );
  const { lanes, loose } = readMovesMidi(piece, bytes, newId);
  expect(lanes).toEqual([]);
  expect(loose).toHaveLength(1);
  expect(loose[0]!.lengthBeats).toBeCloseTo(4, 6);
  expect(loose[0]!.points.length).toBeLessThan(6);
  const track = laneTrack(
    piece,
    { unit: 'own', points: loose[0]!.points.map((point) => ({ ...point, value: point.position })) },
    {
      kind: 'number',
      unit: 'ratio',
      min: 0,
      max: 1,
      initial: 0,
      taper: { kind: 'linear' },
      smoothingSeconds: 0,
      label: '',
      hint: '',
      group: '',
    },
  );
  expect(trackAt(track, 2)).toBeCloseTo(64 / 127, 2);
});

test('what cannot be read is told, and the rest is kept', () => {
  expect(readMovesCsv(piece, 'a,b\n1,2', newId)).toEqual({
    lanes: [],
    missed: [expect.stringMatching(/no table of moves/)],
  });
  const text = writeMovesCsv(piece, [
    { id: 'l', target: TARGETS[0]!, unit: 'own', on: true, points: [{ beat: 1, value: 0.5, shape: 'line', bend: 0 }] },
  ]);
  const read = readMovesCsv(
    piece,
    `${text}\n${text.split('\n')[1]!.replace(',1,0.5', ',soon,0.5')}\n${text.split('\n')[1]!.replace(',1,0.5', ',,0.5')}\nNobody,,1,pan,own,2,0,line,0`,
    newId,
  );
  expect(read.lanes).toHaveLength(1);
  expect(read.missed).toEqual([
    expect.stringMatching(/^Row 3: beat/),
    expect.stringMatching(/^Row 4: beat/),
    expect.stringMatching(/^Nobody, pan: there is no such parameter/),
  ]);
  expect(readMovesMidi(piece, Uint8Array.of(1, 2, 3), newId).missed[0]).toMatch(/no MIDI file/);
});

import type { Player } from '../../audio/player';
import { applyEdit } from '../../core/piece/edit';
import { keepSnapshot } from '../../core/piece/edits/snapshots';
import type { Snapshot, Target } from '../../core/piece/piece';
import { clipOf, laneOf, scene, soundOf } from '../../core/piece/testing';
import { useOpenPiece } from '../../data/openPiece';
import { useRecording } from '../../data/recording';
import { Morph, nextLine } from './morph';

const PAN: Target = { kind: 'channel', channel: 't0', param: 'pan' };
const MUTE: Target = { kind: 'channel', channel: 't0', param: 'mute' };
const LOW_WATER: Snapshot = {
  id: 's',
  name: 'Low water',
  channel: 't0',
  values: [
    { target: PAN, value: 0.5 },
    { target: MUTE, value: true },
  ],
};

const { piece: plain } = scene([soundOf(1, () => 0)], [{ clips: [clipOf('a', 0, 0, 1)] }], { lengthBeats: 32 });
const host = { beat: 0, touch: jest.fn() };
const gesture = jest.fn();
const piece = () => useOpenPiece.getState().piece!;
const said = () => useOpenPiece.getState().notice;

function begin(lanes = plain.lanes): Morph {
  const { piece: kept } = applyEdit({ ...plain, lanes }, keepSnapshot, { snapshot: LOW_WATER });
  useOpenPiece.setState({ piece: kept, entries: [], cursor: 0, notice: null });
  return new Morph(host, { gesture } as unknown as Player);
}
const order = { snapshot: LOW_WATER, gridBeats: 0, overBeats: 0, asMoves: false };

beforeEach(() => {
  let ids = 0;
  Object.defineProperty(globalThis.crypto, 'randomUUID', { configurable: true, value: () => `id-${(ids += 1)}` });
  useRecording.setState({ ...useRecording.getInitialState(), playing: true });
  host.beat = 0;
  host.touch.mockReset();
  gesture.mockReset();
});

test('while nothing plays a snapshot is there at once', () => {
  useRecording.setState({ playing: false });
  begin().start({ ...order, gridBeats: 4, overBeats: 8 });
  expect(piece().tracks[0]).toMatchObject({ pan: 0.5, mute: true });
});

test('a step is held by the engine from its line on, and is the piece’s own once the line has passed', () => {
  const morph = begin();
  host.beat = 1;
  morph.start({ ...order, gridBeats: 4 });
  // Beat 4 at 120 a minute is two seconds.
  expect(gesture.mock.calls.map(([{ kind, atSample }]) => [kind, atSample])).toEqual([
    ['hold', 96_000],
    ['hold', 96_000],
  ]);
  host.beat = 3.9;
  morph.follow();
  expect(piece().tracks[0]).toMatchObject({ pan: 0, mute: false });
  gesture.mockReset();
  host.beat = 4.01;
  morph.follow();
  expect(piece().tracks[0]).toMatchObject({ pan: 0.5, mute: true });
  expect(gesture.mock.calls.map(([{ kind }]) => kind)).toEqual(['release', 'release']);
  // It has arrived: nothing more is done.
  morph.follow();
  expect(useOpenPiece.getState().cursor).toBe(1);
});

test('on the way values go along, switches on at the beginning; at the end it is one edit', () => {
  const morph = begin();
  morph.start({ ...order, overBeats: 8 });
  host.beat = 4;
  morph.follow();
  expect(host.touch.mock.calls).toEqual([
    [PAN, expect.closeTo(0.25, 6)],
    [MUTE, true],
  ]);
  expect(useOpenPiece.getState().cursor).toBe(0);
  host.beat = 8;
  morph.follow();
  expect(piece().tracks[0]).toMatchObject({ pan: 0.5, mute: true });
  expect(useOpenPiece.getState().cursor).toBe(1);
});

test('playing that jumps back ends it where it was going; so does the next one', () => {
  const morph = begin();
  morph.start({ ...order, overBeats: 8 });
  host.beat = 6;
  morph.follow();
  host.beat = 2;
  morph.follow();
  expect(piece().tracks[0]!.pan).toBe(0.5);
  useOpenPiece.getState().undo();
  morph.start({ ...order, overBeats: 8 });
  morph.start({ ...order, overBeats: 8 });
  expect(piece().tracks[0]!.pan).toBe(0.5);
});

test('what has moves of its own follows them, and that is said', () => {
  const morph = begin([laneOf('t0', null, 'pan', [[0, -1]])]);
  morph.start({ ...order, overBeats: 8 });
  host.beat = 4;
  morph.follow();
  expect(host.touch.mock.calls.map(([target]) => target)).toEqual([MUTE]);
  host.beat = 9;
  morph.follow();
  expect(said()).toBe('Low water: 1 value follows its moves');
});

test('as moves it leaves lanes behind, and says how many', () => {
  const morph = begin();
  host.beat = 2;
  morph.start({ ...order, gridBeats: 4, overBeats: 4, asMoves: true });
  expect(said()).toBe('2 lanes go to Low water');
  const pan = piece().lanes.find(({ target }) => target.kind === 'channel' && target.param === 'pan')!;
  expect(pan.points.filter(({ beat }) => beat === 4 || beat === 8).map(({ beat, value }) => [beat, value])).toEqual([
    [4, expect.closeTo(0, 9)],
    [8, expect.closeTo(0.5, 9)],
  ]);
  expect(piece().tracks[0]!.pan).toBe(0);
});

test('to where everything stands already it goes nowhere', () => {
  useRecording.setState({ playing: false });
  const morph = begin();
  morph.start(order);
  morph.start({ ...order, asMoves: true });
  expect(said()).toBe('Low water is how it stands already.');
});

test.each([
  [1, 4, 4],
  [4, 4, 4],
  [5, 0, 5],
  [13, 4, 16 - 1 / 64],
  [17, 4, 20],
])('in a loop that ends at 16 the next line from beat %d on a grid of %d is %d', (beat, grid, line) => {
  const looped = { ...plain, loop: { on: true, start: 8, end: 16 } };
  expect(nextLine(looped, beat, grid)).toBeCloseTo(line, 9);
});

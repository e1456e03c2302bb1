import type { ParamValue } from '../../../core/params/param';
import { emptyPiece, type Piece, type Target } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import type { Studio } from '../../studio/studio';
import { ControlHands } from './controlHands';
import { useControllers } from './controllerStore';

const pan: Target = { kind: 'channel', channel: 't', param: 'pan' };
const track = { id: 't', name: 'T', gain: 1, pan: 0, mute: false, solo: false, sends: [], clips: [], chain: [] };
const piece: Piece = {
  ...emptyPiece('p', 'P'),
  tracks: [track],
  controls: [{ id: 'c', number: 21, midiChannel: 2, target: pan }],
};

let told: (readonly [string, Target, ParamValue])[] = [];
const studio = {
  touch: (target: Target, value: ParamValue) => told.push(['touch', target, value]),
  release: (target: Target, value: ParamValue) => told.push(['release', target, value]),
} as unknown as Studio;
let hands: ControlHands;
const move = (position: number, number = 21): void => hands.take({ number, midiChannel: 2, position });

beforeEach(() => {
  jest.useFakeTimers();
  told = [];
  useOpenPiece.setState({
    piece,
    revision: 1,
    entries: [],
    cursor: 0,
    savedEntries: 0,
    cutSince: Infinity,
    change: 0,
    notice: null,
  });
  useControllers.setState({ learning: null, waiting: {} });
  hands = new ControlHands(studio);
});
afterEach(() => jest.useRealTimers());

test('a control far from its rail moves nothing, and says where it will take hold', () => {
  move(0.1);
  move(0.2);
  expect(told).toEqual([]);
  expect(useControllers.getState().waiting).toEqual({ c: 0.5 });
});

test('passing where the rail stands it takes hold, goes along, and lets go when it rests', () => {
  move(0.2);
  move(0.6);
  move(1);
  expect(told).toEqual([
    ['touch', pan, expect.closeTo(0.2, 9)],
    ['touch', pan, 1],
  ]);
  expect(useControllers.getState().waiting).toEqual({});
  jest.advanceTimersByTime(300);
  expect(told).toHaveLength(2);
  jest.advanceTimersByTime(100);
  expect(told[2]).toEqual(['release', pan, 1]);
});

test('a control of another number or channel is not its own', () => {
  move(0.5, 22);
  hands.take({ number: 21, midiChannel: 0, position: 0.5 });
  expect(told).toEqual([]);
});

test('what waits to be mapped gets the next control that moves, in the place of the one it had', () => {
  useControllers.setState({ learning: pan });
  move(0.5, 40);
  expect(useOpenPiece.getState().piece!.controls).toEqual([
    { id: expect.any(String), number: 40, midiChannel: 2, target: pan },
  ]);
  expect(useControllers.getState().learning).toBeNull();
  expect(told).toEqual([['touch', pan, expect.closeTo(0, 9)]]);
});

test('closed, it lets nothing go any more: the piece is another one by then', () => {
  move(0.5);
  hands.close();
  jest.advanceTimersByTime(1000);
  expect(told.map(([what]) => what)).toEqual(['touch']);
});

import type { Player } from '../../audio/player';
import { laneTrack, trackAt } from '../../core/piece/moves/lane';
import type { RecordMode } from '../../core/piece/moves/record';
import { newSlot } from '../../core/piece/edits/chain';
import { paramOf } from '../../core/piece/find';
import { emptyPiece, type Lane, type Piece, type Target } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { useRecording } from '../../data/recording';
import { MoveRecorder, thinnedAgain } from './moveRecorder';

const RATE = 48_000;
const LATENCY = 0.05;
const input: Target = { kind: 'effect', channel: 't', effect: 'e', param: 'input' };
const feedback: Target = { kind: 'effect', channel: 't', effect: 'e', param: 'feedback' };
const track = {
  id: 't',
  name: 'T',
  gain: 1,
  pan: 0,
  mute: false,
  solo: false,
  sends: [],
  clips: [],
  chain: [newSlot('e', 'echo', 'neutral')],
};
/** 120 BPM: a beat is half a second. */
const piece: Piece = { ...emptyPiece('p', 'P'), tempo: { bpm: 120, beatsPerBar: 4 }, tracks: [track] };

const gestures: string[] = [];
const player = {
  position: 0,
  heardAt: () => player.position - LATENCY * RATE,
  gesture: ({ kind, value }: { kind: string; value: number }) => void gestures.push(`${kind} ${value}`),
};
let recorder: MoveRecorder;

/** The moment at which a beat is heard: what is computed then is ahead by the latency. */
const hear = (beat: number): void => void (player.position = Math.round((beat * 0.5 + LATENCY) * RATE));
const lanes = (): Lane[] => useOpenPiece.getState().piece!.lanes;
const at = (lane: Lane, beat: number): number => trackAt(laneTrack(piece, lane, paramOf(piece, lane.target)!), beat);

function start(mode: RecordMode, first: Partial<Piece> = {}, beat = 0): void {
  useOpenPiece.setState({
    piece: { ...piece, ...first },
    revision: 1,
    entries: [],
    cursor: 0,
    savedEntries: 0,
    cutSince: Infinity,
    change: 0,
    notice: null,
  });
  useRecording.setState({
    armed: true,
    playing: true,
    mode,
    modes: {},
    seamBeats: 1 / 16,
    takes: {},
    passes: {},
    punch: null,
  });
  gestures.length = 0;
  recorder = new MoveRecorder(player as unknown as Player);
  hear(beat);
  recorder.begin();
}

/** A hand that rides from a beat to a beat, its place read at every sixtieth of a second as it is heard. */
function ride(target: Target, from: number, to: number, place: (beat: number) => number): void {
  for (let beat = from; beat <= to + 1e-9; beat += 1 / 30) {
    hear(beat);
    recorder.follow();
    recorder.read(target, place(beat));
  }
}

test('touch: a ride lands where it was heard, no further off than its readings are apart, and lets go into what was there', () => {
  start('touch');
  const step = (beat: number): number => (beat < 5 ? 0.3 : 0.8);
  ride(input, 4, 6, step);
  expect(recorder.letGo(input)).toBe(false);
  const [lane] = lanes();
  for (const beat of [4.1, 4.5, 4.9, 5.1, 5.9]) expect(at(lane!, beat)).toBeCloseTo(step(beat), 2);
  const crossing = lane!.points.find(({ beat, value }) => beat > 4.5 && value > 0.55)!.beat;
  expect(Math.abs(crossing - 5) * 500).toBeLessThan(1000 / 60);
  expect([3.9, 6.1].map((beat) => at(lane!, beat))).toEqual([1, 1]);
});

test('latch: what the hand left stands until playing stops, and a second touch goes on from there', () => {
  start('latch');
  ride(input, 2, 3, () => 0.4);
  expect(recorder.letGo(input)).toBe(true);
  expect(lanes()).toEqual([]);
  ride(input, 6, 7, () => 0.7);
  recorder.letGo(input);
  hear(9);
  recorder.stop();
  expect(lanes()).toHaveLength(1);
  expect([2.5, 4.5, 5.9, 6.5, 8.9, 9.2].map((beat) => Math.round(100 * at(lanes()[0]!, beat)) / 100)).toEqual([
    0.4, 0.4, 0.4, 0.7, 0.7, 1,
  ]);
  expect(gestures.filter((gesture) => gesture.startsWith('release'))).toHaveLength(1);
});

test('within a stretch alone: what the hand does before and after it is heard, and not recorded', () => {
  start('latch');
  useRecording.setState({ punch: { start: 4, end: 6 } });
  ride(input, 2, 8, (beat) => beat / 10);
  recorder.letGo(input);
  hear(9);
  recorder.stop();
  const [lane] = lanes();
  for (const beat of [4.1, 5, 5.9]) expect(at(lane!, beat)).toBeCloseTo(beat / 10, 2);
  expect([3, 3.9, 6.1, 8].map((beat) => at(lane!, beat))).toEqual([1, 1, 1, 1]);
  useRecording.setState({ punch: { start: 20, end: 24 }, playing: true });
  ride(input, 10, 12, () => 0.2);
  recorder.letGo(input);
  recorder.stop();
  expect(lanes()).toEqual([lane]);
});

test('passes of a loop are kept apart, oldest first', () => {
  start('touch');
  for (const place of [0.2, 0.6]) {
    ride(input, 4, 6, () => place);
    recorder.letGo(input);
  }
  const passes = useRecording.getState().passes[lanes()[0]!.id]!;
  expect(passes.map(({ readings, before }) => [readings[9]!.position, before === null])).toEqual([
    [0.2, true],
    [0.6, false],
  ]);
});

test('several rails that end together are one undo', () => {
  start('latch');
  // Both in one hand, as the axes of a field.
  ride(input, 1, 2, () => {
    recorder.read(feedback, 0.25);
    return 0.5;
  });
  recorder.letGo(input);
  recorder.letGo(feedback);
  hear(3);
  recorder.stop();
  expect(lanes()).toHaveLength(2);
  useOpenPiece.getState().undo();
  expect(lanes()).toEqual([]);
});

test('write: every lane of the channel is written anew from where playing begins, then the mode is touch', () => {
  const old: Lane = {
    id: 'old',
    target: input,
    unit: 'own',
    on: true,
    points: [
      { beat: 0, value: 0.2, shape: 'line', bend: 0 },
      { beat: 8, value: 0.6, shape: 'line', bend: 0 },
    ],
  };
  start('write', { lanes: [old] }, 2);
  hear(6);
  recorder.stop();
  expect([2.1, 4, 5.9].map((beat) => Math.round(100 * at(lanes()[0]!, beat)) / 100)).toEqual([0.3, 0.3, 0.3]);
  expect(at(lanes()[0]!, 1)).toBeCloseTo(at(old, 1), 6);
  expect(at(lanes()[0]!, 7)).toBeCloseTo(at(old, 7), 6);
  expect(useRecording.getState().mode).toBe('touch');
});

test.each([
  ['falls back', -0.45],
  ['runs ahead', 0.45],
])('an estimate of what is heard that %s for a moment ends no pass', (_how, seconds) => {
  start('latch');
  ride(input, 2, 3, () => 0.4);
  recorder.letGo(input);
  hear(5);
  recorder.follow();
  const { heardAt } = player;
  player.heardAt = () => heardAt() + seconds * RATE;
  recorder.follow();
  player.heardAt = heardAt;
  recorder.follow();
  hear(6);
  recorder.follow();
  expect(lanes()).toEqual([]);
  recorder.stop();
  expect(lanes()).toHaveLength(1);
  expect([2.5, 4.5, 5.9].map((beat) => at(lanes()[0]!, beat))).toEqual([0.4, 0.4, 0.4]);
});

test('a loop ends a latched pass and begins the next where it goes back to', () => {
  start('latch', {}, 4);
  ride(input, 5, 6, () => 0.4);
  recorder.letGo(input);
  hear(7.98);
  recorder.follow();
  hear(4.02);
  recorder.follow();
  expect(lanes()).toHaveLength(1);
  expect(at(lanes()[0]!, 4.5)).toBe(1);
  hear(5);
  recorder.stop();
  expect([4.5, 5.5, 7.5].map((beat) => Math.round(100 * at(lanes()[0]!, beat)) / 100)).toEqual([0.4, 0.4, 0.4]);
});

test('read records nothing, and a mode of its own keeps a channel out', () => {
  start('touch');
  useRecording.setState({ modes: { t: 'read' } });
  expect([recorder.on('t'), recorder.on('other')]).toEqual([false, true]);
});

test('the last pass can be thinned again: fewer points, never further off than asked', () => {
  start('touch');
  const wave = (beat: number): number => 0.5 + 0.3 * Math.sin(beat * 3);
  ride(input, 4, 12, wave);
  recorder.letGo(input);
  const [fine] = lanes();
  const take = useRecording.getState().takes[fine!.id]!;
  const coarse = thinnedAgain(useOpenPiece.getState().piece!, take, 0.05, 1 / 16)!;
  expect(coarse.points.length).toBeLessThan(0.7 * fine!.points.length);
  for (const { beat, position } of take.readings)
    expect(Math.abs(at(coarse, beat) - position)).toBeLessThanOrEqual(0.05 + 1e-6);
});

test('a switch that is played is written at the samples at which the engine took it, whatever is heard then', () => {
  start('touch');
  const hold: Target = { kind: 'effect', channel: 't', effect: 'e', param: 'hold' };
  hear(3);
  recorder.readApplied(hold, { position: 1 }, 24_064);
  hear(5);
  recorder.finishPlayed(hold, 72_000);
  const [lane] = lanes();
  expect(lane!.target).toEqual(hold);
  expect(lane!.points.map(({ beat, value }) => [Math.round(beat * 24_000), value]).slice(-2)).toEqual([
    [24_064, 1],
    [72_000, 0],
  ]);
  expect(gestures).toEqual([]);
});

import { clipOf, echoSlot, hashOf, laneOf, RATE, scene, soundOf } from '../piece/testing';
import { compilePlan } from './compilePlan';
import { planPrint } from './print';
import { render } from './render';
import { beatsToSamples } from '../music/tempo';
import { applyEdit, applyPiecePatches } from '../piece/edit';
import { pieceSchema, type Piece, type Print, type PrintOrder } from '../piece/piece';
import { addPrint, placePrint, removePrint, renewPrint } from '../piece/edits/prints';

const MADE = hashOf(7);
const NEXT = hashOf(8);
const struck = soundOf(0.5, (i) => 0.4 * Math.sin(i * 0.11) * Math.exp(-i / 4000));
const begun = scene(
  [struck],
  [
    {
      gain: 0.7,
      pan: -0.4,
      clips: [clipOf('a', 0, 3, 0.5), clipOf('b', 0, 12, 0.5)],
      chain: [echoSlot('e', { timeL: '1/8', feedback: 0.5 })],
    },
    { clips: [clipOf('c', 0, 1, 0.5)] },
  ],
  { lengthBeats: 16 },
);
const start = begun.piece;
const ORDER: PrintOrder = { channel: start.tracks[0]!.id, clip: 'a', fromBeat: 3, toBeat: 4, part: 'mix', tailBars: 2 };
const print: Print = {
  id: 'p',
  name: 'A print',
  sound: MADE,
  startSample: beatsToSamples(3, start.tempo, RATE),
  sampleRate: RATE,
  madeAt: '',
  from: {
    channel: ORDER.channel,
    channelName: 'Track',
    clip: 'a',
    fromBeat: 3,
    toBeat: 4,
    part: 'mix',
    tail: '2 bars',
    bpm: start.tempo.bpm,
    order: ORDER,
  },
};
const info = (frames: number) => ({ name: 'A print', frames, sampleRate: RATE, channels: 2 as const });
const add = (place?: { instead: boolean }, frames = RATE) =>
  applyEdit(start, addPrint, {
    print,
    sound: info(frames),
    ...(place ? { place: { clip: 'placed', track: 'prints', ...place } } : {}),
  });
const placed = (piece: Piece) => piece.tracks.find(({ id }) => id === 'prints')!;

test('a print goes to the Shelf alone, and nothing else changes', () => {
  const { piece } = add();
  expect(piece).toEqual({ ...start, prints: [print], sounds: { ...start.sounds, [MADE]: info(RATE) } });
});

test('one that goes to where it came from has level and place of its track, and one undo takes all of it away', () => {
  const { piece, backward } = add({ instead: false });
  expect(placed(piece)).toMatchObject({
    gain: 0.7,
    pan: -0.4,
    chain: [],
    clips: [{ id: 'placed', sound: MADE, print: 'p', offsetSeconds: 0, lengthSeconds: 1 }],
  });
  expect(placed(piece).clips[0]!.start).toBeCloseTo(3, 9);
  expect(piece.tracks.slice(0, 2)).toEqual(start.tracks);
  expect(pieceSchema.safeParse(piece).success).toBe(true);
  expect(applyPiecePatches(piece, backward)).toEqual(start);
});

test('prints of one track share a track for prints; the piece stays as long as it is', () => {
  const late = { ...print, id: 'q', startSample: beatsToSamples(15, start.tempo, RATE) };
  const both = applyEdit(add({ instead: false }).piece, addPrint, {
    print: late,
    sound: info(4 * RATE),
    place: { clip: 'second', track: 'others', instead: false },
  }).piece;
  expect(both.tracks).toHaveLength(3);
  expect(placed(both).clips.map(({ id }) => id)).toEqual(['placed', 'second']);
  // The second rings for four seconds from the last beat but one on.
  expect(both.lengthBeats).toBe(start.lengthBeats);
});

test('a print in the place of its clip sounds as the clip did, to the bit, up to where it was cut; the clip is muted, not gone', () => {
  const order = { ...ORDER };
  const made = render({ ...planPrint(start, order), sounds: begun.sounds })!;
  const { piece } = add({ instead: true }, made.left.length);
  expect(piece.tracks[0]!.clips.map(({ id, mute }) => [id, mute ?? false])).toEqual([
    ['a', true],
    ['b', false],
  ]);
  const heard = (one: Piece): Float32Array =>
    render({
      plan: compilePlan(one),
      sounds: new Map([...begun.sounds, [MADE, [made.left, made.right]]]),
      fromSample: 0,
      toSample: beatsToSamples(10, one.tempo, RATE),
      tail: { kind: 'seconds', seconds: 0 },
    })!.left;
  const [live, printed] = [heard(start), heard(piece)];
  expect(live.some((x) => Math.abs(x) > 0.05)).toBe(true);
  expect(live.reduce((most, x, i) => Math.max(most, Math.abs(x - printed[i]!)), 0)).toBeLessThan(1e-7);
});

test('in the place of its clip it goes where that went, and made again it sounds as before though the clip is muted', () => {
  const space = {
    id: 'space',
    name: 'Space',
    gain: 0.8,
    pan: 0,
    mute: false,
    solo: false,
    sends: [],
    chain: [echoSlot('s', { timeL: 90, feedback: 0.3 })],
  };
  const sending: Piece = {
    ...start,
    returns: [space],
    lanes: [
      laneOf(ORDER.channel, null, 'pan', [
        [2, -1],
        [6, 1],
      ]),
    ],
    tracks: start.tracks.map((track, i) =>
      i === 0 ? { ...track, sends: [{ to: 'space', level: 0.5, pre: false }] } : track,
    ),
  };
  const made = render({ ...planPrint(sending, ORDER), sounds: begun.sounds })!;
  const { piece } = applyEdit(sending, addPrint, {
    print,
    sound: info(made.left.length),
    place: { clip: 'placed', track: 'prints', instead: true },
  });
  expect(placed(piece).sends).toEqual(sending.tracks[0]!.sends);
  const again = render({ ...planPrint(piece, ORDER), sounds: begun.sounds })!;
  expect(again.left).toEqual(made.left);
  const heard = (one: Piece): Float32Array =>
    render({
      plan: compilePlan(one),
      sounds: new Map([...begun.sounds, [MADE, [made.left, made.right]]]),
      fromSample: 0,
      toSample: beatsToSamples(10, one.tempo, RATE),
      tail: { kind: 'seconds', seconds: 0 },
    })!.left;
  const [live, printed] = [heard(sending), heard(piece)];
  expect(live.reduce((most, x, i) => Math.max(most, Math.abs(x - printed[i]!)), 0)).toBeLessThan(1e-6);
  // A print that is only placed has a track without sends.
  expect(
    applyEdit(piece, placePrint, {
      print: 'p',
      place: { clip: 'plain', track: 'others', instead: false },
    }).piece.tracks.map(({ id }) => id),
  ).toEqual([...piece.tracks.map(({ id }) => id), 'others']);
});

test('placing again takes the next free place; what is no longer there is refused in words', () => {
  const { piece } = add();
  const later = applyEdit(piece, placePrint, {
    print: 'p',
    place: { clip: 'placed', track: 'prints', instead: false },
  }).piece;
  expect(placed(later).clips).toHaveLength(1);
  expect(() =>
    applyEdit(later, placePrint, { print: 'p', place: { clip: 'placed', track: 'x', instead: false } }),
  ).toThrow('of that id');
  const gone = applyEdit(later, removePrint, { print: 'p' }).piece;
  expect(placed(gone).clips).toHaveLength(1);
  expect(() => applyEdit(gone, placePrint, { print: 'p', place: { clip: 'y', track: 'x', instead: false } })).toThrow(
    'no longer on the Shelf',
  );
});

test('a print made again carries along what was placed of it; what was trimmed stays within what there is', () => {
  const { piece } = add({ instead: false }, 2 * RATE);
  const trimmed = {
    ...piece,
    tracks: piece.tracks.map((track) =>
      track.id === 'prints'
        ? { ...track, clips: [{ ...track.clips[0]!, offsetSeconds: 0.5, lengthSeconds: 1, fadeOutSeconds: 0.4 }] }
        : track,
    ),
  };
  const renew = (one: Piece, seconds: number): Piece =>
    applyEdit(one, renewPrint, { print: { ...print, sound: NEXT }, sound: info(seconds * RATE) }).piece;
  // It reached to the end, and does so still.
  expect(placed(renew(piece, 3)).clips[0]).toMatchObject({ sound: NEXT, offsetSeconds: 0, lengthSeconds: 3 });
  expect(placed(renew(trimmed, 3)).clips[0]).toMatchObject({ sound: NEXT, offsetSeconds: 0.5, lengthSeconds: 1 });
  expect(placed(renew(trimmed, 0.75)).clips[0]).toMatchObject({
    offsetSeconds: 0.5,
    lengthSeconds: 0.25,
    fadeOutSeconds: 0.25,
  });
  expect(renew(piece, 3).prints).toHaveLength(1);
});

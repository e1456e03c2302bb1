import { clipOf, laneOf } from '../testing';
import { applyEdit, applyPiecePatches, type Edit, type Edited } from '../edit';
import { channelOfTarget, findSlot } from '../find';
import { newReturn, pieceSchema, type Piece, type Track } from '../piece';
import { addStrand, renameStrand } from './braid';
import {
  addEffect,
  choosePreset,
  copyEffect,
  copyEffects,
  duplicateEffect,
  moveEffect,
  newSlot,
  removeEffect,
  replaceEffect,
  setEffectOn,
  setEffectSide,
  setParams,
} from './chain';
import {
  addTrack,
  removeTrack,
  renamePiece,
  renameTrack,
  setChannelParam,
  setLoop,
  setSwitch,
  setTempo,
} from './channels';
import { addClip, copyClip, moveClip, removeClip } from './clips';
import { crossfadeClip, joinClip, repeatClip, setClip, slipClip, splitClip, trimClip } from './clipShape';
import { mapControl, unmapControl } from './controls';
import { dropKept, keepSetting, takeKept } from './storedVariants';
import {
  clearLanes,
  layMoves,
  pointLane,
  recordMove,
  removeLane,
  setLaneOn,
  setLanesTravel,
  setPoints,
  throwHits,
} from './lanes';
import { addLink, removeLink, setLink, setModulator } from './links';
import { putSection, removeSection } from './sections';
import { addReturn, addSharedReturns, copySends, removeReturn, removeSend, setSend } from './sends';
import { dropSnapshot, keepSnapshot } from './snapshots';

import { everything as piece, lfo, PAN, FEEDBACK } from './testingScene';

interface Case {
  readonly label: string;
  readonly run: (on: Piece) => Edited;
  readonly see: (after: Piece) => unknown;
  readonly want: unknown;
}
const when = <Args>(edit: Edit<Args>, args: Args, label: string, see: Case['see'], want: unknown): Case => ({
  label,
  run: (on) => applyEdit(on, edit, edit.args.parse(args)),
  see,
  want,
});

const track = (after: Piece, index = 0): Track => after.tracks[index]!;
const effects = (after: Piece): string[] => track(after).chain.map(({ effect }) => effect);
const starts = (after: Piece): number[] => track(after).clips.map(({ start }) => start);
const clip = (after: Piece, id = 'a') => track(after).clips.find((one) => one.id === id)!;

test('the piece that all of this is tried on is a valid one', () => {
  expect(pieceSchema.safeParse(piece).error?.issues).toBeUndefined();
});

const CASES: readonly Case[] = [
  when(renamePiece, { name: ' Spring tide ' }, 'Name the piece “Spring tide”', ({ name }) => name, 'Spring tide'),
  when(setTempo, { bpm: 92.5 }, 'Tempo 92.5 BPM', ({ tempo }) => tempo.bpm, 92.5),
  when(setLoop, { on: true, start: 4, end: 12 }, 'Loop on', ({ loop }) => loop, { on: true, start: 4, end: 12 }),
  when(
    addTrack,
    { track: { ...piece.tracks[1]!, id: 'new', name: 'Rope', chain: [] }, sounds: {} },
    'Add track Rope',
    ({ tracks }) => tracks.map(({ name }) => name),
    ['Track 0', 'Track 1', 'Rope'],
  ),
  when(
    removeTrack,
    { track: 't0' },
    'Remove track Track 0',
    ({ tracks, lanes, links }) => [tracks.length, lanes, links],
    [1, [], []],
  ),
  when(
    renameTrack,
    { track: 't1', name: 'Voice' },
    'Rename Track 1 to Voice',
    (after) => track(after, 1).name,
    'Voice',
  ),
  when(
    setChannelParam,
    { channel: 't1', param: 'pan', value: -0.5 },
    'Track 1: pan 50 % left',
    (after) => track(after, 1).pan,
    -0.5,
  ),
  when(setSwitch, { track: 't0', which: 'solo', on: true }, 'Solo Track 0', (after) => track(after).solo, true),

  when(
    addClip,
    { track: 't1', clip: clipOf('d', 0, 0, 1) },
    'Place d on Track 1',
    (after) => track(after, 1).clips.length,
    1,
  ),
  when(
    moveClip,
    { clip: 'a', start: 20, track: 't1' },
    'Move a to Track 1',
    (after) => [starts(after), track(after, 1).clips[0]!.start],
    [[8, 10], 20],
  ),
  when(
    copyClip,
    { clip: 'a', start: 30, track: 't0', id: 'copy' },
    'Copy a on Track 0',
    (after) => [starts(after), after.lengthBeats],
    [[4, 8, 10, 30], 36],
  ),
  when(removeClip, { clip: 'b' }, 'Remove b', starts, [4, 10]),
  when(
    trimClip,
    { clip: 'a', side: 'start', beat: 3 },
    'Trim the start of a',
    (after) => [clip(after).start, clip(after).offsetSeconds, clip(after).lengthSeconds],
    [3, 0.5, 2.5],
  ),
  when(
    splitClip,
    { clip: 'a', beat: 6, id: 'half' },
    'Split a',
    (after) => [clip(after).lengthSeconds, clip(after, 'half').offsetSeconds],
    [1, 2],
  ),
  when(joinClip, { clip: 'a' }, 'Join a with the next', (after) => [starts(after), clip(after).lengthSeconds], [
    [4, 10],
    4,
  ]),
  when(slipClip, { clip: 'a', offsetSeconds: 100 }, 'Slip a', (after) => clip(after).offsetSeconds, 6),
  when(
    setClip,
    { clip: 'a', change: { fadeOutSeconds: 1.5, fadeInSeconds: 1 } },
    'Fade in, Fade out of a',
    (after) => [clip(after).fadeInSeconds, clip(after).fadeOutSeconds],
    [1, 1],
  ),
  when(
    repeatClip,
    { clip: 'a', every: 4, ids: ['x', 'y'] },
    'Repeat a 2 times',
    (after) => [...starts(after)].sort((a, b) => a - b),
    [4, 8, 8, 10, 12],
  ),
  when(
    crossfadeClip,
    { clip: 'b' },
    'Crossfade b into the next',
    (after) => [clip(after, 'b').fadeOutSeconds, clip(after, 'c').fadeInSeconds],
    [1, 1],
  ),

  when(addEffect, { channel: 't0', slot: newSlot('f', 'filter', 'neutral'), at: 1 }, 'Add Filter to Track 0', effects, [
    'echo',
    'filter',
    'compressor',
  ]),
  when(
    removeEffect,
    { channel: 't0', slot: 'e' },
    'Remove Echo from Track 0',
    (after) => [effects(after), after.lanes.map(({ id }) => id), after.links],
    [['compressor'], ['pan'], []],
  ),
  when(moveEffect, { channel: 't0', slot: 'e', to: 1 }, 'Move Echo in Track 0', effects, ['compressor', 'echo']),
  when(
    setEffectOn,
    { channel: 't0', slot: 'e', on: false },
    'Echo off on Track 0',
    (after) => findSlot(after, 't0', 'e')!.on,
    false,
  ),
  when(
    setParams,
    { channel: 't0', slot: 'e', values: { feedback: 0.7 } },
    'Echo: feedback 70 %',
    (after) => findSlot(after, 't0', 'e')!.values.feedback,
    0.7,
  ),
  when(
    choosePreset,
    { channel: 't0', slot: 'e', preset: 'callAcross' },
    'Echo: preset Call across the water',
    (after) => findSlot(after, 't0', 'e')!.values.routing,
    'pingpong',
  ),
  when(duplicateEffect, { channel: 't0', slot: 'e', id: 'e2' }, 'Duplicate Echo in Track 0', effects, [
    'echo',
    'echo',
    'compressor',
  ]),
  when(
    copyEffect,
    { channel: 't0', slot: 'e', to: 'r', id: 'e3' },
    'Copy Echo to Space',
    ({ returns }) => returns[0]!.chain.map(({ effect }) => effect),
    ['echo'],
  ),
  when(
    copyEffects,
    {
      channel: 't0',
      slot: 'e',
      copies: [
        { to: 'r', id: 'e4' },
        { to: 't1', id: 'e5' },
      ],
    },
    'Copy Echo to 2 channels',
    ({ returns, tracks }) => [returns[0]!.chain.at(-1)!.id, tracks[1]!.chain.at(-1)!.id],
    ['e4', 'e5'],
  ),
  when(
    replaceEffect,
    { channel: 't0', slot: 'e', effect: 'reverb', preset: 'neutral' },
    'Replace Echo by Reverb on Track 0',
    effects,
    ['reverb', 'compressor'],
  ),
  when(
    setEffectSide,
    { channel: 't0', slot: 'c1', side: 't1' },
    'Compressor: listen to Track 1',
    (after) => findSlot(after, 't0', 'c1')!.side,
    't1',
  ),
  when(
    addStrand,
    { channel: 't1', slot: 'bd', called: 'Deep' },
    'Lay strand Deep',
    (after) => track(after, 1).chain[0]!.strands!.some(({ name }) => name === 'Deep'),
    true,
  ),
  when(
    renameStrand,
    { channel: 't1', slot: 'bd', place: 1, called: 'Dry' },
    'Call a strand Dry',
    (after) => track(after, 1).chain[0]!.strands![0]!.name,
    'Dry',
  ),

  when(
    addReturn,
    { made: newReturn('r2', 'Echo') },
    'Add return Echo',
    ({ returns }) => returns.map(({ name }) => name),
    ['Space', 'Echo'],
  ),
  when(
    addSharedReturns,
    { made: [newReturn('r3', 'Echo'), newReturn('r4', 'Hall')], level: 0.25 },
    'Add Echo and Hall, fed by every track',
    ({ tracks }) => tracks.map(({ sends }) => sends.slice(-2)),
    piece.tracks.map(() => ['r3', 'r4'].map((to) => ({ to, level: 0.25, pre: false }))),
  ),
  when(removeReturn, { id: 'r' }, 'Remove return Space', (after) => [after.returns, track(after).sends], [[], []]),
  when(
    setSend,
    { channel: 't1', to: 'r', level: 0.25 },
    'Send Track 1 to Space: −12.0 dB',
    (after) => track(after, 1).sends,
    [{ to: 'r', level: 0.25, pre: false }],
  ),
  when(removeSend, { channel: 't0', to: 'r' }, 'Remove send Track 0 to Space', (after) => track(after).sends, []),
  when(copySends, { from: 't0', to: ['t1'] }, 'Copy sends of Track 0 to Track 1', (after) => track(after, 1).sends, [
    { to: 'r', level: 0.5, pre: false },
  ]),

  when(
    recordMove,
    {
      lane: {
        ...laneOf('t0', null, 'gain', [
          [0, 1],
          [4, 0],
        ]),
        id: 'g',
      },
      how: 'ride',
    },
    'Record level on Track 0',
    ({ lanes }) => lanes.length,
    3,
  ),
  when(
    layMoves,
    { lanes: [{ ...laneOf('t0', null, 'pan', [[0, 0]]), id: 'pan' }], what: 'Flip in time' },
    'Flip in time: pan on Track 0',
    ({ lanes }) => lanes.find(({ id }) => id === 'pan')!.points.length,
    1,
  ),
  when(
    throwHits,
    {
      lane: {
        ...laneOf('t0', null, 'pan', [
          [0, 0],
          [4, 1],
        ]),
        target: { kind: 'send', channel: 't0', to: 'r' },
        id: 'th',
      },
      hits: 2,
    },
    'Throw 2 hits of Track 0 into Space',
    ({ lanes }) => lanes.some(({ id }) => id === 'th'),
    true,
  ),
  when(
    setPoints,
    { lane: 'pan', points: [{ beat: 2, value: 0, shape: 'hold', bend: 0 }], what: 'Move' },
    'Move a point of pan on Track 0',
    ({ lanes }) => lanes[0]!.points,
    [{ beat: 2, value: 0, shape: 'hold', bend: 0 }],
  ),
  when(setLaneOn, { lane: 'pan', on: false }, 'Leave pan on Track 0', ({ lanes }) => lanes[0]!.on, false),
  when(
    setLanesTravel,
    { lanes: ['pan', 'fb'], travels: true },
    '2 lanes travel with clips',
    ({ lanes }) => lanes.map(({ travels }) => travels),
    [true, true],
  ),
  when(
    pointLane,
    { lane: 'pan', to: { kind: 'channel', channel: 't1', param: 'pan' } },
    'Point pan on Track 0 at pan on Track 1',
    ({ lanes }) => lanes.some(({ target }) => channelOfTarget(target) === 't1'),
    true,
  ),
  when(removeLane, { lane: 'fb' }, 'Remove moves of feedback on Track 0', ({ lanes }) => lanes.map(({ id }) => id), [
    'pan',
  ]),
  when(clearLanes, { channel: null }, 'Clear all moves of the piece', ({ lanes }) => lanes, []),

  when(
    addLink,
    { modulator: { ...lfo, id: 'm2', name: 'Swell' }, link: { id: 'l2', modulator: 'm2', target: PAN, depth: 1 } },
    'Let Swell turn pan on Track 0',
    ({ links, modulators }) => [links.length, modulators.length],
    [2, 2],
  ),
  when(setLink, { link: 'l', depth: -0.25 }, 'Link depth -25 %', ({ links }) => links[0]!.depth, -0.25),
  when(removeLink, { link: 'l' }, 'Remove a link of Tide', ({ links, modulators }) => [links, modulators], [[], []]),
  when(
    setModulator,
    { modulator: 'm', change: { name: 'Ebb' } },
    'Name of Tide',
    ({ modulators }) => modulators[0]!.name,
    'Ebb',
  ),

  when(
    putSection,
    { id: 's2', name: 'Flood', beat: 16 },
    'Section Flood',
    ({ sections }) => sections!.map(({ name }) => name),
    ['Ebb', 'Flood'],
  ),
  when(removeSection, { section: 's' }, 'Remove section Ebb', ({ sections }) => sections, []),
  when(
    mapControl,
    { control: { id: 'k2', number: 21, midiChannel: 0, target: FEEDBACK } },
    'Control 21 moves feedback of Track 0',
    ({ controls }) => controls!.length,
    2,
  ),
  when(unmapControl, { control: 'k' }, 'Let no control move pan of Track 0', ({ controls }) => controls, []),
  when(
    keepSnapshot,
    { snapshot: { id: 'n2', name: 'High water', channel: 't0', values: [{ target: PAN, value: 1 }] } },
    'Snapshot High water of Track 0',
    ({ snapshots }) => snapshots.length,
    2,
  ),
  when(dropSnapshot, { id: 'n' }, 'Let go of snapshot Low water', ({ snapshots }) => snapshots, []),
  when(
    keepSetting,
    { channel: 't0', id: 'A', called: 'A' },
    'Keep Track 0 as A',
    (after) => track(after).kept!.map(({ name, chain }) => [name, chain.length]),
    [['A', 2]],
  ),
];

test.each(CASES.map((one) => [one.label, one] as const))('%s', (_label, { label, run, see, want }) => {
  const edited = run(piece);
  expect(edited.label).toBe(label);
  expect(see(edited.piece)).toEqual(want);
  expect(pieceSchema.safeParse(edited.piece).error?.issues).toBeUndefined();
  // There and back again by what the history keeps of it.
  expect(applyPiecePatches(edited.piece, edited.backward)).toEqual(piece);
  expect(applyPiecePatches(piece, edited.forward)).toEqual(edited.piece);
});

test('a setting is taken back though the chain was changed, and let go', () => {
  const kept = applyEdit(piece, keepSetting, { channel: 't0', id: 'A', called: 'A' }).piece;
  const changed = applyEdit(applyEdit(kept, removeEffect, { channel: 't0', slot: 'e' }).piece, setEffectOn, {
    channel: 't0',
    slot: 'c1',
    on: false,
  }).piece;
  const taken = applyEdit(changed, takeKept, { channel: 't0', id: 'A' });
  expect([taken.label, effects(taken.piece), findSlot(taken.piece, 't0', 'c1')!.on]).toEqual([
    'Track 0: take A',
    ['echo', 'compressor'],
    true,
  ]);
  expect(track(applyEdit(taken.piece, dropKept, { channel: 't0', id: 'A' }).piece).kept).toEqual([]);
});

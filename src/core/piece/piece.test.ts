import fc from 'fast-check';
import { between } from '../testing';
import { effectOf } from '../effects/catalogue';
import { paramAtPosition, fromEngineNumber } from '../params/resolve';
import { applyEdit, applyPiecePatches, EditRefused, type Edit, type Edited } from './edit';
import { blockOf } from './block';
import { placeBlock } from './edits/blocks';
import { repeatClip, setClip, splitClip, trimClip } from './edits/clipShape';
import { mapControl } from './edits/controls';
import { addStrand, removeStrand } from './edits/braid';
import {
  addEffect,
  choosePreset,
  copyEffect,
  duplicateEffect,
  moveEffect,
  newSlot,
  removeEffect,
  replaceEffect,
  setEffectOn,
  setParams,
} from './edits/chain';
import { addTrack, removeTrack, renamePiece, setChannelParam, setLoop, setSwitch, setTempo } from './edits/channels';
import { addClip, moveClip, removeClip } from './edits/clips';
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
} from './edits/lanes';
import { addLink, removeLink, setLink, setModulator } from './edits/links';
import { dropSnapshot, keepSnapshot, recallSnapshot } from './edits/snapshots';
import { morphLanes, takeSnapshot } from './moves/snapshot';
import { addReturn, copySends, removeReturn, removeSend, setSend } from './edits/sends';
import { chainOf, channelIds, paramOf, reaches, slotsIn, findSlot } from './find';
import { emptyPiece, pieceSchema, type Piece } from './piece';
import { readPiece, UnreadablePiece } from './versions';

const hash = '0'.repeat(64);
const clip = {
  id: 'c',
  name: 'Clip',
  sound: hash,
  start: 4,
  offsetSeconds: 0,
  lengthSeconds: 2,
  gain: 1,
  fadeInSeconds: 0,
  fadeOutSeconds: 0,
  print: null,
};
const track = (id: string): Piece['tracks'][number] => ({
  id,
  name: `Track ${id}`,
  gain: 1,
  pan: 0,
  mute: false,
  solo: false,
  sends: [],
  clips: [],
  chain: [newSlot(`${id}-echo`, 'echo', 'callAcross'), newSlot(`${id}-braid`, 'braid', 'bloom')],
});
const made = (id: string): Piece['returns'][number] => ({
  id,
  name: `Return ${id}`,
  gain: 1,
  pan: 0,
  mute: false,
  solo: false,
  sends: [],
  chain: [],
});
const start: Piece = {
  ...emptyPiece('p', 'Piece'),
  sounds: { [hash]: { name: 's', frames: 96_000, sampleRate: 48_000, channels: 1 } },
  tracks: [track('a'), track('b')],
  returns: [made('r0'), made('r1')],
};

const modulator = {
  name: 'LFO',
  kind: 'lfo' as const,
  rate: '1/4',
  shape: 'sine' as const,
  phase: 0,
  glide: 0,
  steps: [0, 1],
  level: 0,
  roll: 0,
};

type Doing = (piece: Piece) => Edited;
const doing =
  <Args>(edit: Edit<Args>, args: Args): Doing =>
  (piece) =>
    applyEdit(piece, edit, args);
const { params } = effectOf('echo');

/** Any edit a person could do, with any arguments; what it names may be gone by then. */
const anyEdit: fc.Arbitrary<Doing> = fc
  .record({
    kind: fc.nat(48),
    id: fc.constantFrom('a', 'b', 'n1', 'n2'),
    share: between(0, 1),
    flag: fc.boolean(),
    param: fc.constantFrom(...Object.keys(params)),
    n: fc.nat(40),
  })
  .map(({ kind, id, share, flag, param, n }) => {
    const slot = `${id}-echo`;
    const target = { channel: id, effect: slot, param };
    const value = fromEngineNumber(params[param]!, paramAtPosition(params[param]!, share));
    const points = [{ beat: n, value: share, shape: 'curve' as const, bend: share }];
    const all = [
      doing(renamePiece, { name: `Piece ${n}` }),
      doing(setTempo, { bpm: 40 + n }),
      doing(setLoop, { on: flag, start: n, end: n + 4 }),
      doing(addTrack, { track: track(`n${n % 3}`), sounds: {} }),
      doing(removeTrack, { track: id }),
      doing(setChannelParam, { channel: id, param: flag ? 'gain' : 'pan', value: share }),
      doing(setSwitch, { track: id, which: flag ? 'mute' : 'solo', on: flag }),
      doing(addClip, { track: id, clip: { ...clip, id: `c${n}` } }),
      doing(moveClip, { clip: `c${n}`, start: n }),
      doing(removeClip, { clip: `c${n}` }),
      doing(addEffect, { channel: id, slot: newSlot(`${id}-${n}`, 'echo', 'neutral'), at: 0 }),
      doing(removeEffect, { channel: id, slot }),
      doing(moveEffect, { channel: id, slot, to: n % 3 }),
      doing(setParams, { channel: id, slot, values: { [param]: value } }),
      doing(recordMove, { lane: { id: `l${n % 4}`, target, unit: 'own', on: true, points }, how: 'ride' }),
      doing(choosePreset, { channel: id, slot, preset: 'fogBank' }),
      doing(addEffect, {
        channel: id,
        slot: newSlot(`${id}-in${n}`, flag ? 'braid' : 'echo', 'neutral'),
        at: 0,
        inside: { slot: `${id}-braid`, strand: flag ? null : (n % 3) + 1 },
      }),
      doing(addStrand, { channel: id, slot: `${id}-braid`, called: 'New' }),
      doing(removeStrand, { channel: id, slot: `${id}-braid`, place: (n % 3) + 1 }),
      doing(duplicateEffect, { channel: id, slot: `${id}-braid`, id: `dup${n}-${share}`.slice(0, 40) }),
      doing(copyEffect, {
        channel: id,
        slot: `${id}-braid`,
        to: flag ? 'r0' : 'b',
        id: `copy${n}-${share}`.slice(0, 40),
      }),
      doing(replaceEffect, { channel: id, slot: `${id}-braid`, effect: 'reverb', preset: 'neutral' }),
      doing(addReturn, { made: made(`r${n}-${share}`.slice(0, 40)) }),
      doing(removeReturn, { id: `r${n % 2}` }),
      doing(setSend, { channel: flag ? id : `r${n % 2}`, to: `r${(n >> 1) % 2}`, level: share }),
      doing(removeSend, { channel: id, to: `r${n % 2}` }),
      doing(copySends, { from: id, to: ['a', 'r0', 'r1'] }),
      doing(addLink, {
        modulator: { ...modulator, kind: n % 2 ? 'lfo' : 'macro', id: `m${n % 3}` },
        link: {
          id: `k${n}`,
          modulator: `m${n % 3}`,
          target: flag ? target : { channel: id, effect: null, param: `send:r${n % 2}` },
          depth: share,
        },
      }),
      doing(removeLink, { link: `k${n}` }),
      doing(setModulator, { modulator: `m${n % 3}`, change: { kind: 'steps', steps: [share, -share] } }),
      doing(recordMove, {
        lane: {
          id: `x${n}`,
          target: { channel: 'main', effect: null, param: `macro:m${n % 3}` },
          unit: 'own',
          on: true,
          points,
        },
        how: 'ride',
      }),
      doing(throwHits, {
        hits: 1,
        lane: {
          id: `t${n}`,
          target: { channel: id, effect: null, param: `send:r${n % 2}` },
          unit: 'own',
          on: true,
          points,
        },
      }),
      doing(moveClip, { clip: `c${n}`, start: n, track: flag ? 'a' : 'b' }),
      (piece: Piece) =>
        doing(setLanesTravel, { lanes: piece.lanes.slice(0, 3).map((lane) => lane.id), travels: flag })(piece),
      (piece: Piece) =>
        doing(keepSnapshot, {
          snapshot: takeSnapshot(piece, flag ? id : null, n, `s${n % 4}-${share}`.slice(0, 40), 'Kept'),
        })(piece),
      (piece: Piece) => doing(recallSnapshot, { id: piece.snapshots[0]?.id ?? '' })(piece),
      (piece: Piece) =>
        doing(layMoves, {
          lanes: piece.snapshots[0]
            ? morphLanes(piece, piece.snapshots[0], n, n % 5, (i) => `morph${n}-${i}-${share}`.slice(0, 60))
            : [],
          what: 'Morph',
        })(piece),
      (piece: Piece) =>
        doing(pointLane, {
          lane: piece.lanes[n % Math.max(1, piece.lanes.length)]?.id ?? '',
          to: { channel: id, effect: null, param: flag ? 'pan' : 'mute' },
        })(piece),
      doing(recordMove, {
        lane: {
          id: `tempo${n}`,
          target: { channel: 'main', effect: null, param: 'tempo' },
          unit: 'own',
          on: true,
          points: [{ beat: n, value: 40 + 200 * share, shape: flag ? 'line' : 'hold', bend: 0 }],
        },
        how: 'draw',
      }),
      doing(dropSnapshot, { id: `s${n % 4}` }),
      doing(mapControl, {
        control: {
          id: `c${n}`,
          number: n,
          midiChannel: 0,
          target: flag ? target : { channel: 'main', effect: null, param: `macro:m${n % 3}` },
        },
      }),
      doing(trimClip, { clip: `c${n}`, side: flag ? 'start' : 'end', beat: 40 * share }),
      doing(splitClip, { clip: `c${n}`, beat: 40 * share, id: `s${n}-${share}`.slice(0, 40) }),
      doing(setClip, { clip: `c${n}`, change: { reversed: flag, fadeInSeconds: share } }),
      doing(repeatClip, { clip: `c${n}`, every: 4, ids: [`p${n}-${share}`.slice(0, 40)] }),
      doing(clearLanes, { channel: n < 5 ? null : id }),
      doing(addLink, {
        modulator: { ...modulator, kind: n % 2 ? 'lfo' : 'macro', id: `m${n % 3}` },
        link: {
          id: `q${n}`,
          modulator: `m${n % 3}`,
          target: { channel: 'main', effect: null, param: `macro:m${(n >> 2) % 3}` },
          depth: share,
          curve: -share,
        },
      }),
      doing(setModulator, { modulator: `m${n % 3}`, change: { kind: flag ? 'macro' : 'lfo' } }),
      doing(setLink, { link: `k${n}`, curve: share, range: flag ? null : { low: 1 - share, high: share } }),
    ];
    return all[kind]!;
  });

/** What edits leave of a piece; those that are refused change nothing. */
const after = (edits: readonly Doing[]): Piece =>
  edits.reduce((piece, edit) => {
    try {
      return edit(piece).piece;
    } catch (error) {
      if (error instanceof EditRefused) return piece;
      throw error;
    }
  }, start);

test('whatever is edited: no two effects have one id, sends never make a loop, and no move is left without what it moves', () => {
  fc.assert(
    fc.property(fc.array(anyEdit, { maxLength: 40 }), (edits) => {
      const piece = after(edits);
      const slots = channelIds(piece).flatMap((channel) => slotsIn(chainOf(piece, channel)));
      expect(new Set(slots.map(({ id }) => id)).size).toBe(slots.length);
      for (const { id, sends } of piece.returns) expect(sends.some((send) => reaches(piece, send.to, id))).toBe(false);
      for (const { target } of [...piece.lanes, ...piece.links, ...(piece.controls ?? [])])
        expect(paramOf(piece, target)).toBeDefined();
      for (const { id } of piece.modulators) expect(piece.links.some((link) => link.modulator === id)).toBe(true);
      for (const { modulator } of piece.links) expect(piece.modulators.some(({ id }) => id === modulator)).toBe(true);
    }),
    { numRuns: 60 },
  );
});

test('a block brings its effects with all that lies in them into another piece, under ids of their own', () => {
  const block = blockOf(start, start.tracks[0]!.chain, 'block', 'Far shore');
  const once = applyEdit(emptyPiece('q', 'Other'), placeBlock, { channel: 'main', block, at: 0, id: 'first' }).piece;
  const twice = applyEdit(once, placeBlock, { channel: 'main', block, at: 0, id: 'second' }).piece;
  const ids = slotsIn(twice.main.chain).map(({ id }) => id);
  expect(ids).toHaveLength(8);
  expect(new Set(ids).size).toBe(8);
  expect(twice.main.chain[1]!.strands!.map(({ chain }) => chain.map(({ effect }) => effect))).toEqual([
    [],
    ['taps', 'reverb'],
  ]);
});

test('a copied effect is turned along with the first; a block brings what turns it, once for each place', () => {
  const target = { channel: 'a', effect: 'a-echo', param: 'feedback' };
  const linked = applyEdit(start, addLink, {
    modulator: { ...modulator, id: 'm' },
    link: { id: 'k', modulator: 'm', target, depth: 0.3, curve: 0.5, range: { low: 0.1, high: 0.6 } },
  }).piece;
  const copied = applyEdit(linked, copyEffect, { channel: 'a', slot: 'a-echo', to: 'b', id: 'copy' }).piece;
  expect(copied.links.map(({ modulator: by, target: { channel, effect } }) => [by, channel, effect])).toEqual([
    ['m', 'a', 'a-echo'],
    ['m', 'b', 'copy'],
  ]);
  const block = blockOf(linked, linked.tracks[0]!.chain, 'block', 'Far shore');
  const once = applyEdit(emptyPiece('q', 'Other'), placeBlock, { channel: 'main', block, at: 0, id: 'first' }).piece;
  const twice = applyEdit(once, placeBlock, { channel: 'main', block, at: 0, id: 'second' }).piece;
  expect(twice.modulators).toHaveLength(2);
  expect(twice.links).toHaveLength(2);
  for (const link of twice.links) {
    expect(link).toMatchObject({ depth: 0.3, curve: 0.5, range: { low: 0.1, high: 0.6 } });
    expect(findSlot(twice, 'main', link.target.effect!)?.effect).toBe('echo');
  }
});

test('chains lie in one another only so deep', () => {
  const deeper = (piece: Piece, n: number): Piece =>
    applyEdit(piece, addEffect, {
      channel: 'a',
      slot: newSlot(`d${n}`, 'echo', 'neutral'),
      at: 0,
      inside: { slot: n === 1 ? 'a-echo' : `d${n - 1}`, strand: null },
    }).piece;
  const deep = [1, 2, 3].reduce(deeper, start);
  expect(() => deeper(deep, 4)).toThrow(EditRefused);
});

test('any edits followed by as many undos restore the piece exactly, redo goes back, and it is a valid piece all along', () => {
  fc.assert(
    fc.property(fc.array(anyEdit, { maxLength: 25 }), (edits) => {
      const done: Edited[] = [];
      let piece = start;
      for (const edit of edits) {
        try {
          const edited = edit(piece);
          done.push(edited);
          piece = edited.piece;
        } catch (error) {
          if (!(error instanceof EditRefused)) throw error;
        }
      }
      const undone = [...done].reverse().reduce((at, edited) => applyPiecePatches(at, edited.backward), piece);
      const redone = done.reduce((at, edited) => applyPiecePatches(at, edited.forward), undone);
      expect(undone).toEqual(start);
      expect(redone).toEqual(piece);
      expect(done.every((edited) => edited.label.length > 3)).toBe(true);
      return pieceSchema.safeParse(piece).success;
    }),
    { numRuns: 60 },
  );
});

test('removing an effect or a track takes its moves along, and undo brings them back', () => {
  const lane = {
    id: 'l',
    target: { channel: 'a', effect: 'a-echo', param: 'mix' },
    unit: 'own' as const,
    on: true,
    points: [{ beat: 0, value: 0.5, shape: 'line' as const, bend: 0 }],
  };
  const { piece } = applyEdit(start, recordMove, { lane, how: 'ride' });
  const removed = applyEdit(piece, removeEffect, { channel: 'a', slot: 'a-echo' });
  expect(removed.piece.lanes).toEqual([]);
  expect(applyPiecePatches(removed.piece, removed.backward)).toEqual(piece);
});

test.each([
  ['a clip that is gone', doing(moveClip, { clip: 'x', start: 1 })],
  ['a parameter that is none', doing(setParams, { channel: 'a', slot: 'a-echo', values: { warmth: 1 } })],
  ['a loop of nothing', doing(setLoop, { on: true, start: 4, end: 4 })],
  ['pan of the main output', doing(setChannelParam, { channel: 'main', param: 'pan', value: 0.5 })],
  [
    'a lane that is gone',
    doing(setPoints, { lane: 'x', points: [{ beat: 0, value: 0, shape: 'line', bend: 0 }], what: 'Move' }),
  ],
  ['an effect that is gone', doing(setEffectOn, { channel: 'a', slot: 'x', on: false })],
])('%s is refused in plain words', (_what, edit) => {
  expect(() => edit(start)).toThrow(EditRefused);
});

test('the history names edits as a person would', () => {
  const label = (edit: Doing): string => edit(start).label;
  expect(label(doing(setParams, { channel: 'a', slot: 'a-echo', values: { timeL: '1/8d' } }))).toBe(
    'Echo: time dotted eighth · 450 ms',
  );
  expect(label(doing(addEffect, { channel: 'b', slot: newSlot('z', 'echo', 'neutral'), at: 0 }))).toBe(
    'Add Echo to Track b',
  );
  expect(label(doing(setTempo, { bpm: 92.5 }))).toBe('Tempo 92.5 BPM');
  const { piece } = applyEdit(start, recordMove, {
    lane: {
      id: 'l',
      target: { channel: 'a', effect: 'a-echo', param: 'input' },
      unit: 'own',
      on: true,
      points: [{ beat: 0, value: 1, shape: 'line', bend: 0 }],
    },
    how: 'ride',
  });
  expect(applyEdit(piece, setLaneOn, { lane: 'l', on: false }).label).toBe('Leave input on Track a');
  expect(applyEdit(piece, removeLane, { lane: 'l' }).label).toBe('Remove moves of input on Track a');
});

describe('reading a stored piece', () => {
  test('what was written is read back', () => expect(readPiece(JSON.parse(JSON.stringify(start)))).toEqual(start));

  test.each([
    ['no object', 'hello', /no JSON object/],
    ['no version', {}, /no version/],
    ['a newer one', { ...start, version: 9 }, /newer Zephiro/],
    ['a damaged one', { ...start, tempo: { bpm: 9000, beatsPerBar: 4 } }, /damaged at tempo\.bpm/],
    [
      'an unknown effect',
      {
        ...start,
        tracks: [{ ...start.tracks[0], chain: [{ ...newSlot('z', 'echo', 'neutral'), effect: 'teleport' }] }],
      },
      /unknown effect/,
    ],
    [
      'a value out of range',
      {
        ...start,
        tracks: [{ ...start.tracks[0], chain: [{ ...newSlot('z', 'echo', 'neutral'), values: { feedback: 7 } }] }],
      },
      /feedback/,
    ],
  ])('%s is refused with what is wrong', (_what, stored, message) => {
    expect(() => readPiece(stored)).toThrow(UnreadablePiece);
    expect(() => readPiece(stored)).toThrow(message);
  });
});

test('every preset is a valid effect, named for a purpose', () => {
  const { presets } = effectOf('echo');
  expect(presets.length).toBeGreaterThanOrEqual(13);
  expect(new Set(presets.map((preset) => preset.name)).size).toBe(presets.length);
  for (const preset of presets) {
    const chain = [newSlot('z', 'echo', preset.id)];
    expect(pieceSchema.safeParse({ ...start, main: { gain: 1, chain } }).success).toBe(true);
    expect(preset.purpose.length).toBeGreaterThan(20);
  }
});

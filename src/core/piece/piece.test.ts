import { makeModulator } from '../automation/modulator';
import fc from 'fast-check';
import { effectOf } from '../effects/catalogue';
import { applyEdit, applyPiecePatches, EditRefused, type Edited } from './edit';
import { blockOf } from './block';
import { placeBlock } from './edits/blocks';
import { addEffect, copyEffect, newSlot, removeEffect, setEffectOn, setParams } from './edits/chain';
import { setChannelParam, setLoop, setTempo } from './edits/channels';
import { moveClip } from './edits/clips';
import { recordMove, removeLane, setLaneOn, setPoints } from './edits/lanes';
import { addLink } from './edits/links';
import { chainOf, channelIds, paramOf, reaches, slotsIn, findSlot, channelOfTarget, effectOfTarget } from './find';
import { emptyPiece, pieceSchema, type Piece, type Target, type Lane } from './piece';
import { contextAt } from './tempoOf';
import { readPiece, UnreadablePiece } from './versions/readPiece';

import { after, anyEdit, doing, modulator, start, type Doing } from './edits/testing';
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
  const target: Target = { kind: 'effect', channel: 'a', effect: 'a-echo', param: 'feedback' };
  const linked = applyEdit(start, addLink, {
    modulator: makeModulator('lfo', { ...modulator, id: 'm' }),
    link: { id: 'k', modulator: 'm', target, depth: 0.3, curve: 0.5, range: { low: 0.1, high: 0.6 } },
  }).piece;
  const copied = applyEdit(linked, copyEffect, { channel: 'a', slot: 'a-echo', to: 'b', id: 'copy' }).piece;
  expect(copied.links.map(({ modulator: by, target: to }) => [by, channelOfTarget(to), effectOfTarget(to)])).toEqual([
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
    expect(findSlot(twice, 'main', effectOfTarget(link.target)!)?.effect).toBe('echo');
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
  const lane: Lane = {
    id: 'l',
    target: { kind: 'effect', channel: 'a', effect: 'a-echo', param: 'mix' },
    unit: 'own',
    on: true,
    points: [{ beat: 0, value: 0.5, shape: 'line', bend: 0 }],
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
      target: { kind: 'effect', channel: 'a', effect: 'a-echo', param: 'input' },
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

test('note values are read by the metre that holds at a beat', () => {
  const piece = emptyPiece('p', 'Piece');
  const sections = [
    { id: 's', name: 'Waltz', beat: 16, metre: { beatsPerBar: 3, unit: 4 as const } },
    { id: 't', name: 'Seven', beat: 28, metre: { beatsPerBar: 3.5, unit: 8 as const } },
  ];
  const barAt = (beat: number): number => contextAt({ ...piece, sections }, beat).tempo.beatsPerBar;
  expect([0, 15.9, 16, 27, 28, 60].map(barAt)).toEqual([4, 4, 3, 3, 3.5, 3.5]);
  expect(contextAt(piece, 8)).toEqual({ tempo: piece.tempo, sampleRate: piece.sampleRate });
});

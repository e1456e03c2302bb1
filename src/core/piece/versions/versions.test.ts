import fc from 'fast-check';
import { produceWithPatches } from 'immer';
import { makeModulator } from '../../automation/modulator';
import { readBlock } from '../block';
import { applyEdit, applyPiecePatches, EditRefused, UNREADABLE_EDIT, type HistoryEntry, type Patch } from '../edit';
import { addEffect, newSlot } from '../edits/chain';
import { anyEdit, start, type Doing } from '../edits/testing';
import { emptyPiece, type Lane, type Piece, type Target } from '../piece';
import { hasOldHistory, migrateHistory, migratePatches } from './migrateHistory';
import { readPiece } from './readPiece';
import type { Stored } from './changedLists';

/** A target as version 6 wrote it. */
const targetOfVersion6 = (target: Target): Stored =>
  target.kind === 'awaited'
    ? { kind: 'effect', channel: target.channel, effect: `waits:${target.effectKind}`, param: target.param }
    : target;

/** A target as version 5 wrote it. */
function oldTarget(target: Target): Stored {
  switch (target.kind) {
    case 'effect':
      return { channel: target.channel, effect: target.effect, param: target.param };
    case 'awaited':
      return { channel: target.channel, effect: `waits:${target.effectKind}`, param: target.param };
    case 'channel':
      return { channel: target.channel, effect: null, param: target.param };
    case 'send':
      return { channel: target.channel, effect: null, param: `send:${target.to}` };
    case 'macro':
      return { channel: 'main', effect: null, param: `macro:${target.macro}` };
    case 'tempo':
      return { channel: 'main', effect: null, param: 'tempo' };
  }
}

/** What version 5 wrote for every modulator, of whichever kind. */
const OLD_FIELDS = { rate: 1, shape: 'sine', phase: 0, glide: 0, steps: [0, 1], level: 0, roll: 0 };
const withOldTarget = <T extends { readonly target: Target }>(item: T): Stored => ({
  ...item,
  target: oldTarget(item.target),
});

/** A piece as version 5 stored it. */
const oldPiece = (piece: Piece): Stored => ({
  ...piece,
  version: 5,
  lanes: piece.lanes.map(withOldTarget),
  links: piece.links.map(withOldTarget),
  modulators: piece.modulators.map((modulator) => ({ ...OLD_FIELDS, ...modulator })),
  snapshots: piece.snapshots.map((snapshot) => ({ ...snapshot, values: snapshot.values.map(withOldTarget) })),
  ...(piece.controls ? { controls: piece.controls.map(withOldTarget) } : {}),
});

const withTargetOfVersion6 = <T extends { readonly target: Target }>(item: T): Stored => ({
  ...item,
  target: targetOfVersion6(item.target),
});

/** A piece as version 6 stored it. */
const pieceOfVersion6 = (piece: Piece): Stored => ({
  ...piece,
  version: 6,
  lanes: piece.lanes.map(withTargetOfVersion6),
  links: piece.links.map(withTargetOfVersion6),
  snapshots: piece.snapshots.map((snapshot) => ({ ...snapshot, values: snapshot.values.map(withTargetOfVersion6) })),
  ...(piece.controls ? { controls: piece.controls.map(withTargetOfVersion6) } : {}),
});

const isRecord = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null;

/** Makes a draft another document by the smallest changes, down to single fields of targets. */
function become(draft: Record<string, unknown>, to: Readonly<Record<string, unknown>>): void {
  for (const key of Object.keys(draft)) if (!(key in to)) delete draft[key];
  for (const [key, value] of Object.entries(to)) {
    const old = draft[key];
    if (Array.isArray(old) && Array.isArray(value)) {
      if (old.length > value.length) old.splice(value.length);
      become(old as unknown as Record<string, unknown>, value as unknown as Record<string, unknown>);
    } else if (isRecord(old) && isRecord(value) && !Array.isArray(old) && !Array.isArray(value)) become(old, value);
    else if (old !== value) draft[key] = value;
  }
}

const patchesBetween = (from: Stored, to: Stored): [Patch[], Patch[]] => {
  const [, forward, backward] = produceWithPatches(from, (draft) => become(draft, structuredClone(to)));
  return [forward, backward];
};

/** Moves that wait for a reverb. */
const waiting: Lane = {
  id: 'waiting',
  target: { kind: 'awaited', channel: 'a', effectKind: 'reverb', param: 'decay' },
  unit: 'own',
  on: true,
  points: [{ beat: 1, value: 0.5, shape: 'curve', bend: 0 }],
};

/** All states that edits lead through; those that are refused lead nowhere. */
function statesOf(edits: readonly Doing[]): Piece[] {
  const states: Piece[] = [{ ...start, lanes: [waiting] }];
  for (const edit of edits) {
    try {
      states.push(edit(states[states.length - 1]!).piece);
    } catch (error) {
      if (!(error instanceof EditRefused)) throw error;
    }
  }
  return states;
}

const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

const entryOf = (forward: Patch[], backward: Patch[], i: number): HistoryEntry => ({
  id: `e${i}`,
  at: '',
  edit: 'any',
  label: `Edit ${i}`,
  forward,
  backward,
});

describe.each([
  [5, oldPiece],
  [6, pieceOfVersion6],
])('a piece of version %i', (_, stored) => {
  test('comes back as it was, and its history leads through the same states', () => {
    fc.assert(
      fc.property(fc.array(anyEdit, { maxLength: 30 }), fc.nat(30), (edits, at) => {
        const states = statesOf(edits);
        const old = states.map((state) => plain(stored(state)));
        const entries = old.slice(1).map((next, i) => entryOf(...patchesBetween(old[i]!, next), i));
        const cursor = Math.min(at, entries.length);
        const made = migrateHistory(old[cursor]!, entries, cursor);
        let piece = readPiece(old[cursor]);
        expect(piece).toEqual(plain(states[cursor]));
        for (let i = cursor; i < made.length; i += 1) {
          piece = applyPiecePatches(piece, made[i]!.forward);
          expect(piece).toEqual(plain(states[i + 1]));
        }
        for (let i = made.length - 1; i >= 0; i -= 1) {
          piece = applyPiecePatches(piece, made[i]!.backward);
          expect(piece).toEqual(plain(states[i]));
        }
      }),
      { numRuns: 60 },
    );
  });

  test('changes that were not saved yet lead to the same piece', () => {
    fc.assert(
      fc.property(fc.array(anyEdit, { maxLength: 10 }), (edits) => {
        const states = statesOf(edits);
        let piece = states[0]!;
        states.slice(1).forEach((state, i) => {
          const before = plain(stored(states[i]!));
          const [forward] = patchesBetween(before, plain(stored(state)));
          piece = applyPiecePatches(piece, migratePatches(before, forward));
          expect(piece).toEqual(plain(state));
        });
      }),
      { numRuns: 40 },
    );
  });
});

describe('a piece of version 5', () => {
  test('an entry that does not fit the document ends what can be undone; those after it can be', () => {
    const [bare, added] = [plain(oldPiece(start)), { ...plain(oldPiece(start)), lanes: [{ id: 'l' }] }];
    const [forward, backward] = patchesBetween(bare, added);
    const wrong: Patch[] = [{ op: 'replace', path: ['lanes', 7, 'target', 'param'], value: 'x' }];
    const made = migrateHistory(
      added,
      [entryOf([], [], 0), entryOf(wrong, wrong, 1), entryOf(forward, backward, 2)],
      3,
    );
    expect(made.map(({ edit }) => edit)).toEqual([UNREADABLE_EDIT, UNREADABLE_EDIT, 'any']);
    expect(made[2]!.backward).toEqual(backward);
  });

  test('has modulators with what their kind has, and what was left out', () => {
    const all = { ...OLD_FIELDS, id: 'm', name: 'M', form: [0, 1] };
    const stored = {
      ...emptyPiece('p', 'P'),
      version: 5,
      modulators: ['lfo', 'steps', 'drift', 'macro', 'follower'].map((kind) => ({ ...all, id: kind, kind })),
    };
    const named = { name: 'M' };
    expect(readPiece(stored).modulators).toEqual([
      { ...named, id: 'lfo', kind: 'lfo', rate: 1, shape: 'sine', form: [0, 1], phase: 0, roll: 0 },
      { ...named, id: 'steps', kind: 'steps', rate: 1, steps: [0, 1], glide: 0, chance: 1, roll: 0 },
      { ...named, id: 'drift', kind: 'drift', rate: 1, roll: 0 },
      { ...named, id: 'macro', kind: 'macro', level: 0 },
      { ...named, id: 'follower', kind: 'follower', attackMs: 10, releaseMs: 250 },
    ]);
    expect([hasOldHistory(stored), hasOldHistory(emptyPiece('p', 'P')), hasOldHistory(null)]).toEqual([
      true,
      false,
      false,
    ]);
  });
});

test('moves of version 6 that wait for an effect have a target of their own kind, and are attached when one comes', () => {
  const stored = plain(pieceOfVersion6({ ...start, lanes: [waiting] }));
  expect(stored).toMatchObject({ version: 6, lanes: [{ target: { kind: 'effect', effect: 'waits:reverb' } }] });
  const read = readPiece(stored);
  expect(read.lanes).toEqual([waiting]);
  const { piece } = applyEdit(read, addEffect, { channel: 'a', slot: newSlot('rev', 'reverb', 'neutral'), at: 0 });
  expect(piece.lanes[0]!.target).toEqual({ kind: 'effect', channel: 'a', effect: 'rev', param: 'decay' });
});

test('a block of version 5 has its links and modulators, one of this version stays as it is', () => {
  const block = {
    id: 'b',
    name: 'B',
    slots: start.tracks[0]!.chain,
    sounds: {},
    modulators: [makeModulator('lfo', { id: 'm', name: 'LFO' })],
    links: [
      {
        id: 'l',
        modulator: 'm',
        depth: 0.5,
        target: { kind: 'effect', channel: 'a', effect: 'a-echo', param: 'feedback' },
      },
    ],
  } as const;
  const old = {
    ...block,
    modulators: block.modulators.map((modulator) => ({ ...OLD_FIELDS, ...modulator })),
    links: block.links.map(withOldTarget),
  };
  expect(readBlock(plain(old))).toEqual(block);
  expect(readBlock(plain(block))).toEqual(block);
});

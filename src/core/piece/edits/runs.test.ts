import { makeModulator, modulatorSchema, MAX_RUN_STEPS, type Run } from '../../automation/modulator';
import { blockOf } from '../block';
import { applyEdit, applyPiecePatches } from '../edit';
import { scene, soundOf, targetOf } from '../testing';
import type { Piece } from '../piece';
import { placeBlock } from './blocks';
import { copyEffect, newSlot, removeEffect } from './chain';
import { removeLink, setModulator } from './links';
import { runsOf, setRuns } from './runs';

/** A stutter with two runs on one track, and an empty track. */
const piece: Piece = (() => {
  const { piece: plain } = scene(
    [soundOf(1, () => 0)],
    [
      { clips: [], chain: [newSlot('h', 'stutter', 'neutral')] },
      { clips: [], chain: [] },
    ],
  );
  return {
    ...plain,
    modulators: ['a', 'b'].map((id) => makeModulator('run', { id, name: id, hold: 'h', roll: 3 })),
    links: [
      { id: 'la', modulator: 'a', target: targetOf('t0', 'h', 'level'), depth: 0.2 },
      { id: 'lb', modulator: 'b', target: targetOf('t0', 'h', 'slice'), depth: 0.2 },
    ],
  };
})();

test('all runs of a hold are switched at once, thrown anew with a number each, and undone as one', () => {
  const off = applyEdit(piece, setRuns, { hold: 'h', on: false });
  expect(runsOf(off.piece, 'h').map(({ on }) => on)).toEqual([false, false]);
  expect(off.label).toBe('All runs of a hold off');
  const thrown = applyEdit(off.piece, setRuns, { hold: 'h', roll: 999 });
  expect(runsOf(thrown.piece, 'h').map(({ roll, on }) => [roll, on])).toEqual([
    [999, false],
    [0, false],
  ]);
  expect(applyPiecePatches(thrown.piece, thrown.backward)).toEqual(off.piece);
  expect(() => applyEdit(piece, setRuns, { hold: 'gone', on: true })).toThrow('That hold has no runs');
});

test('a copy of a hold has runs of its own, which begin with the copy', () => {
  const { piece: copied } = applyEdit(piece, copyEffect, { channel: 't0', slot: 'h', to: 't1', id: 'copy' });
  const own = runsOf(copied, 'copy');
  expect(own.map(({ roll, steps }) => [roll, steps])).toEqual(
    runsOf(piece, 'h').map(({ roll, steps }) => [roll, steps]),
  );
  expect(new Set(copied.modulators.map(({ id }) => id)).size).toBe(4);
  const links = copied.links.filter(({ target }) => target.kind === 'effect' && target.effect === 'copy');
  expect(links.map(({ modulator }) => modulator).sort()).toEqual(own.map(({ id }) => id).sort());
  const { piece: gone } = applyEdit(copied, removeEffect, { channel: 't1', slot: 'copy' });
  expect([gone.modulators, gone.links]).toEqual([piece.modulators, piece.links]);
});

test('a block keeps a hold’s runs, and each placing has its own', () => {
  const block = blockOf(piece, piece.tracks[0]!.chain, 'k', 'Block');
  const { piece: placed } = applyEdit(piece, placeBlock, { channel: 't1', block, at: 0, id: 'p' });
  const made = placed.tracks[1]!.chain[0]!.id;
  expect(runsOf(placed, made)).toHaveLength(2);
  expect(placed.modulators).toHaveLength(4);
});

describe('a modulator that becomes a run', () => {
  const steps = Array.from({ length: 50 }, (_, i) => (i % 3) / 3);
  const row = makeModulator('steps', { id: 'a', name: 'Row', steps });
  const before: Piece = { ...piece, modulators: [row, ...piece.modulators.slice(1)] };
  const become = (kind: 'run' | 'steps', on: Piece): Piece =>
    applyEdit(on, setModulator, { modulator: 'a', change: { kind, ...(kind === 'run' ? { hold: 'h' } : {}) } }).piece;

  test('keeps as many of its steps as a run can have', () => {
    const run = become('run', before).modulators[0] as Run;
    expect(run).toMatchObject({ kind: 'run', hold: 'h', name: 'Row', on: true });
    expect(run.steps).toEqual(steps.slice(0, MAX_RUN_STEPS));
  });

  test('and back, with two steps where it had one', () => {
    const single: Piece = {
      ...piece,
      modulators: [{ ...(piece.modulators[0] as Run), steps: [0.5] }, piece.modulators[1]!],
    };
    const [back] = become('steps', single).modulators;
    expect(back).toMatchObject({ kind: 'steps', steps: [0.5, 0.5] });
    expect(modulatorSchema.safeParse(back).success).toBe(true);
  });
});

test('a run goes with the last link that it turns', () => {
  const { piece: after } = applyEdit(piece, removeLink, { link: 'la' });
  expect(after.modulators.map(({ id }) => id)).toEqual(['b']);
});

describe('runs that share their length', () => {
  const set = (on: Piece, modulator: string, change: object): Piece =>
    applyEdit(on, setModulator, { modulator, change }).piece;
  const runs = (on: Piece): Run[] => runsOf(on, 'h');

  test('have as many steps and the same rate, whichever is changed; what was drawn stays and goes on from its start', () => {
    const long = set(piece, 'a', { steps: [0.1, 0.2, 0.3], off: [2], rate: '1/16' });
    const both = set(set(long, 'a', { sharesLength: true }), 'b', { sharesLength: true });
    expect(runs(both).map(({ rate, steps }) => [rate, steps.length])).toEqual([
      ['1/16', 3],
      ['1/16', 3],
    ]);
    const longer = set(both, 'b', { steps: [1, 0, 1, 0, 1] });
    expect(runs(longer)[0]!.steps).toEqual([0.1, 0.2, 0.3, 0.1, 0.2]);
    const shorter = set(longer, 'b', { steps: [1, 0], rate: 3 });
    expect(runs(shorter).map(({ rate, steps, off }) => [rate, steps, off])).toEqual([
      [3, [0.1, 0.2], []],
      [3, [1, 0], []],
    ]);
    expect(shorter.modulators.every((modulator) => modulatorSchema.safeParse(modulator).success)).toBe(true);
  });

  test('leave those alone that have a length of their own, and are on their own again when they are switched off', () => {
    const shared = set(piece, 'a', { sharesLength: true });
    expect(runs(set(shared, 'a', { steps: [1] }))[1]).toEqual(runs(piece)[1]);
    const apart = set(set(set(shared, 'b', { sharesLength: true }), 'b', { sharesLength: false }), 'b', { steps: [1] });
    expect(runs(apart)[0]!.steps).toEqual(runs(piece)[0]!.steps);
  });

  test('those of another hold are not among them', () => {
    const other = makeModulator('run', { id: 'c', name: 'c', hold: 'x', sharesLength: true, steps: [0.5] });
    const link = { id: 'lc', modulator: 'c', target: targetOf('t0', 'h', 'mix'), depth: 0.2 };
    const on = { ...piece, modulators: [...piece.modulators, other], links: [...piece.links, link] };
    expect(set(set(on, 'a', { sharesLength: true }), 'a', { steps: [1, 1] }).modulators[2]).toEqual(other);
  });

  test('a run that is given to another hold takes the length of the runs there', () => {
    const there = makeModulator('run', {
      id: 'c',
      name: 'c',
      hold: 'x',
      sharesLength: true,
      steps: [0.5],
      rate: '1/16',
    });
    const link = { id: 'lc', modulator: 'c', target: targetOf('t0', 'h', 'mix'), depth: 0.2 };
    const on = { ...piece, modulators: [...piece.modulators, there], links: [...piece.links, link] };
    const moved = set(set(on, 'a', { sharesLength: true }), 'a', { hold: 'x' });
    expect(moved.modulators[0]).toMatchObject({ steps: [runs(piece)[0]!.steps[0]], rate: '1/16' });
    expect(moved.modulators[2]).toEqual(there);
  });
});

import fc from 'fast-check';
import { applyPiecePatches, type HistoryEntry } from '../core/piece/edit';
import { renamePiece, setTempo } from '../core/piece/edits/channels';
import { emptyPiece } from '../core/piece/piece';
import { useOpenPiece } from './openPiece';
import type { UnsavedBase, UnsavedChange } from './unsavedStore';
import { changeBetween, migrateSave, replay } from './unsavedWork';

const state = (): ReturnType<typeof useOpenPiece.getState> => useOpenPiece.getState();

test('from any state of the server, replaying what was kept gives the piece and the history as they were', () => {
  const step = fc.oneof(
    fc.record({ do: fc.constant('rename' as const), n: fc.nat(9) }),
    fc.record({ do: fc.constant('goTo' as const), n: fc.nat(9) }),
    fc.record({ do: fc.constant('tempo' as const), n: fc.nat(9) }),
  );
  const act = ({ do: what, n }: { do: 'rename' | 'goTo' | 'tempo'; n: number }): void => {
    if (what === 'rename') state().run(renamePiece, { name: `Name ${n}` });
    else if (what === 'tempo') state().run(setTempo, { bpm: 60 + n });
    else state().goTo(Math.min(n, state().entries.length));
  };
  fc.assert(
    fc.property(fc.array(step, { maxLength: 12 }), fc.array(step, { maxLength: 12 }), (before, after) => {
      useOpenPiece.setState({ ...useOpenPiece.getInitialState(), piece: emptyPiece('p', 'Piece') });
      before.forEach(act);
      const { piece, entries, cursor } = state();
      const base: UnsavedBase = {
        pieceId: 'p',
        window: 'w',
        revision: 1,
        document: piece,
        entries: entries.length,
        cursor,
      };
      const changes: UnsavedChange[] = [];
      const stop = useOpenPiece.subscribe((now, was) => {
        if (now.change !== was.change)
          changes.push({ ...changeBetween(was, now), pieceId: 'p', window: 'w', seq: changes.length });
      });
      after.forEach(act);
      stop();
      const replayed = replay({ base, changes });
      expect(replayed.piece).toEqual(state().piece);
      expect([...entries.slice(0, replayed.history.from), ...replayed.history.entries]).toEqual(state().entries);
      expect(replayed.history.cursor).toBe(state().cursor);
    }),
    { numRuns: 300 },
  );
});

test('what an earlier program left unsaved of a piece of version 5 is saved as one of this version', () => {
  const target = { channel: 'main', effect: null, param: 'gain' };
  const lane = { id: 'l', target, unit: 'own', on: true, points: [{ beat: 0, value: 1, shape: 'line', bend: 0 }] };
  const document = { ...emptyPiece('p', 'P'), version: 5, lanes: [] };
  const base: UnsavedBase = { pieceId: 'p', window: 'w', revision: 1, document, entries: 0, cursor: 0 };
  const patches = [{ op: 'add' as const, path: ['lanes', 0], value: lane }];
  const entry: HistoryEntry = {
    id: 'e',
    at: '',
    edit: 'recordMove',
    label: 'Record',
    forward: patches,
    backward: [{ op: 'replace', path: ['lanes', 'length'], value: 0 }],
  };
  const drawn = { pieceId: 'p', window: 'w', seq: 1, patches, entry, cursor: 1 };
  const undone = { ...drawn, seq: 2, patches: entry.backward, entry: null, cursor: 0 };
  const now = { kind: 'channel', channel: 'main', param: 'gain' };
  const { piece, history } = replay({ base, changes: [drawn] });
  expect([piece.version, piece.lanes[0]!.target, history.cursor]).toEqual([7, now, 1]);
  expect(applyPiecePatches(piece, history.entries[0]!.backward).lanes).toEqual([]);
  expect(replay({ base, changes: [drawn, undone] }).piece.lanes).toEqual([]);
  const saved = migrateSave({ ...document, lanes: [lane] }, { from: 0, entries: [entry], cursor: 1 });
  expect([saved.piece, saved.history.entries]).toEqual([piece, history.entries]);
});

import fc from 'fast-check';
import { applyPiecePatches, UNREADABLE_EDIT, type HistoryEntry } from '../core/piece/edit';
import { removeTrack, renamePiece, renameTrack, addTrack, setTempo } from '../core/piece/edits/channels';
import { emptyPiece, newTrack, type Piece } from '../core/piece/piece';
import { useOpenPiece } from './openPiece';

const state = () => useOpenPiece.getState();
const rename = (name: string): boolean => state().run(renamePiece, { name });
/** What edits change here, in short. */
const shown = (): string => `${state().piece!.name} ${state().piece!.tempo.bpm}`;
const labels = (): string[] => state().entries.map(({ label }) => label);

function open(entries: readonly HistoryEntry[] = [], cursor = entries.length, piece = emptyPiece('p', 'Piece')): void {
  useOpenPiece.setState({
    ...useOpenPiece.getInitialState(),
    piece,
    revision: 3,
    entries,
    cursor,
    savedEntries: entries.length,
  });
}

beforeEach(() => open());

describe('editing', () => {
  test('an edit changes the piece, is an entry that can be undone, and waits to be saved', () => {
    expect(rename('One')).toBe(true);
    expect(state()).toMatchObject({ cursor: 1, change: 1, saveState: { kind: 'waiting' } });
    expect([state().piece!.name, labels()]).toEqual(['One', ['Name the piece “One”']]);
    expect(applyPiecePatches(state().piece!, state().entries[0]!.backward)).toEqual(emptyPiece('p', 'Piece'));
  });

  test('one that changes nothing is done, and is no entry', () => {
    expect(rename('Piece')).toBe(true);
    expect(state()).toMatchObject({ entries: [], change: 0, saveState: { kind: 'saved' } });
  });

  test('one that is refused changes nothing and says why', () => {
    const before = state().piece;
    expect(state().run(removeTrack, { track: 'gone' })).toBe(false);
    expect(state()).toMatchObject({ piece: before, entries: [], change: 0 });
    expect(state().notice).toMatch(/\w/);
  });

  test('without a piece there is nothing to edit', () => {
    useOpenPiece.setState({ piece: null });
    expect(rename('One')).toBe(false);
    expect(state().takeOut(0)).toBe(false);
    state().undo();
    expect(state()).toMatchObject({ piece: null, entries: [], cursor: 0 });
  });

  test('one that is wrong is an error, not a notice', () => {
    const wrong = {
      name: 'wrong',
      args: { parse: (args: unknown) => args },
      label: () => '',
      apply: () => {
        throw new TypeError('a fault of the program');
      },
    } as never;
    expect(() => state().run(wrong, {})).toThrow('a fault of the program');
    expect(state().notice).toBeNull();
  });
});

describe('undoing', () => {
  test('says what was undone and redone', () => {
    rename('One');
    state().undo();
    expect([state().piece!.name, state().notice]).toEqual(['Piece', 'Undone: Name the piece “One”']);
    state().redo();
    expect([state().piece!.name, state().notice]).toEqual(['One', 'Redone: Name the piece “One”']);
  });

  test('at either end it does nothing', () => {
    state().undo();
    state().redo();
    expect(state()).toMatchObject({ cursor: 0, change: 0, notice: null, saveState: { kind: 'saved' } });
  });

  test('an edit after it takes the place of what could be redone', () => {
    rename('One');
    rename('Two');
    state().undo();
    rename('Three');
    expect(labels()).toEqual(['Name the piece “One”', 'Name the piece “Three”']);
    state().redo();
    expect(state().piece!.name).toBe('Three');
  });

  test('whatever is edited, undone and redone, the piece is the one that its entries lead to', () => {
    const step = fc.oneof(
      fc.record({ kind: fc.constant('edit' as const), n: fc.nat(9) }),
      fc.record({ kind: fc.constant('go' as const), n: fc.integer({ min: -3, max: 30 }) }),
      fc.record({ kind: fc.constant('undo' as const), n: fc.constant(0) }),
      fc.record({ kind: fc.constant('redo' as const), n: fc.constant(0) }),
    );
    fc.assert(
      fc.property(fc.array(step, { maxLength: 30 }), (steps) => {
        open();
        /** Names and tempi as a list of states with a position in it. */
        let model: { readonly states: readonly string[]; readonly at: number } = { states: [shown()], at: 0 };
        for (const { kind, n } of steps) {
          const last = model.states.length - 1;
          if (kind === 'edit') {
            if (n < 5) rename(`Name ${n}`);
            else state().run(setTempo, { bpm: 60 + n });
            const made = shown();
            if (made !== model.states[model.at])
              model = { states: [...model.states.slice(0, model.at + 1), made], at: model.at + 1 };
          } else if (kind === 'go') {
            state().goTo(n);
            model = { ...model, at: Math.max(0, Math.min(last, n)) };
          } else if (kind === 'undo') {
            state().undo();
            model = { ...model, at: Math.max(0, model.at - 1) };
          } else {
            state().redo();
            model = { ...model, at: Math.min(last, model.at + 1) };
          }
          const { cursor, entries } = state();
          if (shown() !== model.states[model.at]) return false;
          if (cursor !== model.at || entries.length !== model.states.length - 1) return false;
        }
        return true;
      }),
    );
  });

  const entry = (id: string, edit = 'any'): HistoryEntry => ({
    id,
    at: '',
    edit,
    label: id,
    forward: [],
    backward: [],
  });

  test('an entry that cannot be read ends what can be undone, and says so', () => {
    open([entry('a'), entry('b', UNREADABLE_EDIT), entry('c'), entry('d')]);
    state().goTo(0);
    expect(state().cursor).toBe(2);
    expect(state().notice).toMatch(/cannot be read any more/);
    expect(state().takeOut(0)).toBe(false);
    expect(state().notice).toMatch(/cannot be taken out/);
  });

  test('it ends what can be redone, too', () => {
    open([entry('a'), entry('b', UNREADABLE_EDIT), entry('c')], 1);
    state().goTo(3);
    expect(state().cursor).toBe(1);
    expect(state().notice).toMatch(/cannot be read any more/);
  });
});

describe('taking one edit out of the middle', () => {
  const withTracks = (): void => {
    for (const id of ['x', 'y']) state().run(addTrack, { track: newTrack(id, id), sounds: {} });
  };

  test('is an edit of its own that can be undone', () => {
    withTracks();
    rename('Named');
    expect(state().takeOut(0)).toBe(true);
    expect(state().piece!.tracks.map(({ id }) => id)).toEqual(['y']);
    expect(state().piece!.name).toBe('Named');
    expect(state()).toMatchObject({ cursor: 4, saveState: { kind: 'waiting' } });
    expect(state().notice).toBe(labels()[3]);
    state().undo();
    expect(state().piece!.tracks.map(({ id }) => id)).toEqual(['x', 'y']);
  });

  test('one on which later ones depend stays, and that is said', () => {
    withTracks();
    state().run(renameTrack, { track: 'x', name: 'Other' });
    const before = state().piece;
    expect(state().takeOut(0)).toBe(false);
    expect(state()).toMatchObject({ piece: before, cursor: 3 });
    expect(state().notice).toMatch(/\w/);
  });

  test('one that is undone already cannot be', () => {
    rename('One');
    state().undo();
    expect(state().takeOut(0)).toBe(false);
  });
});

describe('saving', () => {
  test('what was changed while a save was under way waits for the next', () => {
    rename('One');
    const { change } = state();
    state().saveBegins();
    rename('Two');
    state().savedAs(4, 1, change);
    expect(state()).toMatchObject({ revision: 4, savedEntries: 1, saveState: { kind: 'waiting' } });
    state().saveBegins();
    state().savedAs(5, 2, state().change);
    expect(state()).toMatchObject({ revision: 5, savedEntries: 2, saveState: { kind: 'saved' } });
  });

  test('a history that was cut while a save was under way is sent again from there', () => {
    for (const name of ['One', 'Two', 'Three']) rename(name);
    const { change } = state();
    state().saveBegins();
    state().goTo(1);
    rename('Four');
    state().savedAs(4, 3, change);
    expect(state()).toMatchObject({ savedEntries: 1, saveState: { kind: 'waiting' } });
  });

  test('after a conflict edits go on into the kept copy: the state stays until it is opened', () => {
    state().saving({ kind: 'conflict', message: 'm', keptAs: 'copy' });
    rename('One');
    expect(state().saveState.kind).toBe('conflict');
    state().undo();
    expect(state().saveState.kind).toBe('conflict');
  });

  test('who waits for it is told once it is saved, or why it cannot be', async () => {
    await expect(state().saved()).resolves.toBeUndefined();
    rename('One');
    const waiting = state().saved();
    state().savedAs(4, 1, state().change);
    await expect(waiting).resolves.toBeUndefined();
    rename('Two');
    const refused = state().saved();
    state().saving({ kind: 'away', message: 'The server is away.' });
    await expect(refused).rejects.toThrow('The server is away. Files can be written once the server has the piece.');
    await expect(state().saved()).rejects.toThrow('The server is away.');
  });
});

describe('opening', () => {
  const answer = (piece: Piece) => {
    const stored = { piece, revision: 9, lastSave: '', history: { entries: [], cursor: 0 } };
    globalThis.fetch = (async () => new Response(JSON.stringify(stored))) as typeof fetch;
  };

  test('shows the stored state and counts, so that the same piece opened again is noticed', async () => {
    rename('Unsaved');
    const { opened } = state();
    answer(emptyPiece('q', 'Other'));
    await state().open('q');
    expect(state()).toMatchObject({
      piece: { id: 'q', name: 'Other' },
      revision: 9,
      change: 0,
      saveState: { kind: 'saved' },
      opened: opened + 1,
    });
  });

  test('one that cannot be read leaves the open piece as it is', async () => {
    rename('Unsaved');
    const before = state();
    globalThis.fetch = (async () => {
      throw new TypeError('no network');
    }) as typeof fetch;
    await expect(state().open('q')).rejects.toThrow();
    expect(state()).toEqual(before);
  });
});

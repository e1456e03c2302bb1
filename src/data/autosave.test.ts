import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { renamePiece, setTempo } from '../core/piece/edits/channels';
import { emptyPiece } from '../core/piece/piece';
import type { SaveRequest } from './api';
import { Autosave } from './autosave';
import { useOpenPiece } from './openPiece';
import { UnsavedStore, type UnsavedBase, type UnsavedWork } from './unsavedStore';

const local = new Map<string, string>();
Object.assign(globalThis, {
  localStorage: {
    getItem: (key: string) => local.get(key) ?? null,
    setItem: (key: string, value: string) => void local.set(key, value),
    removeItem: (key: string) => void local.delete(key),
  },
});

interface Sent {
  readonly method: string;
  readonly ifMatch: string | undefined;
  readonly save: SaveRequest;
}
let sent: Sent[] = [];
/** What the server answers next; `away` is no answer at all, `lost` one that does not arrive. */
let answers: ('ok' | 'away' | 'lost' | number)[] = [];
let revision = 1;
let lastSave = '';
globalThis.fetch = jest.fn(async (_url, init) => {
  if (init?.method === 'GET')
    return new Response(
      JSON.stringify({ piece: emptyPiece('p', 'Stored'), revision, lastSave, history: { entries: [], cursor: 0 } }),
    );
  const { headers, body, method } = init as { headers: Record<string, string>; body: string; method: string };
  const save = JSON.parse(body) as SaveRequest;
  sent.push({ method, ifMatch: headers['If-Match'], save });
  const answer = answers.shift() ?? 'ok';
  if (answer === 'away') throw new TypeError('no network');
  if (answer === 'ok' || answer === 'lost') {
    revision += 1;
    lastSave = save.saveId;
  }
  if (answer === 'lost') throw new TypeError('connection lost');
  if (answer === 'ok') return new Response(JSON.stringify({ revision }));
  const problem = {
    title: 'Refused',
    detail: `Answer ${answer}.`,
    status: answer,
    keptAs: answer === 409 ? 'copy' : undefined,
  };
  return new Response(JSON.stringify(problem), { status: answer });
}) as typeof fetch;

let autosave: Autosave;
const state = (): ReturnType<typeof useOpenPiece.getState> => useOpenPiece.getState();
const rename = (name: string): boolean => state().run(renamePiece, { name });

/** Lets the database do what it was asked to. */
const settle = async (): Promise<void> => {
  for (let i = 0; i < 30; i += 1) await new Promise((resolve) => setImmediate(resolve));
};
async function pass(ms: number): Promise<void> {
  for (let passed = 0; passed < ms; passed += 50) {
    await jest.advanceTimersByTimeAsync(50);
    await settle();
  }
}
function show(id = 'p', name = 'Piece'): void {
  useOpenPiece.setState({
    piece: emptyPiece(id, name),
    revision,
    entries: [],
    cursor: 0,
    savedEntries: 0,
    cutSince: Infinity,
    change: 0,
    saveState: { kind: 'saved' },
    notice: null,
    unkept: false,
    opened: state().opened + 1,
  });
}
/** What is in the browser's database, with changes. */
async function kept(): Promise<UnsavedWork[]> {
  const store = await UnsavedStore.open();
  const works = await store.list();
  store.close();
  return works.filter(({ changes }) => changes.length > 0);
}

beforeEach(async () => {
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] });
  globalThis.indexedDB = new IDBFactory();
  local.clear();
  sent = [];
  answers = [];
  revision = 1;
  lastSave = '';
  autosave = await Autosave.start();
  show();
  await settle();
});
afterEach(() => autosave.end());

test('an edit is saved within a second, several in a row as one save, and then nothing is kept here', async () => {
  rename('One');
  rename('Two');
  await settle();
  expect((await kept())[0]!.changes).toHaveLength(2);
  await pass(1000);
  const seen = sent.map(({ ifMatch, save: { piece, history } }) => [
    ifMatch,
    piece.name,
    history.from,
    history.entries.length,
    history.cursor,
  ]);
  expect(seen).toEqual([['"1"', 'Two', 0, 2, 2]]);
  expect([state().saveState.kind, state().revision, await kept()]).toEqual(['saved', 2, []]);
});

test('an edit is kept even if the page ends in the turn in which it was made', async () => {
  rename('One');
  autosave.end();
  await settle();
  expect((await kept())[0]!.changes.map(({ entry }) => entry?.label)).toEqual(['Name the piece “One”']);
});

test('while the server is away the same save is sent again, and what came meanwhile after it', async () => {
  answers = ['away', 'away'];
  rename('One');
  await pass(500);
  expect(state().saveState).toMatchObject({
    kind: 'away',
    message: expect.stringContaining('Your work is kept in this browser') as string,
  });
  state().run(setTempo, { bpm: 77 });
  await pass(6000);
  const seen = sent.map(({ ifMatch, save: { history } }) => [ifMatch, history.from, history.entries.length]);
  expect(seen).toEqual([
    ['"1"', 0, 1],
    ['"1"', 0, 1],
    ['"1"', 0, 1],
    ['"2"', 1, 1],
  ]);
  expect(new Set(sent.slice(0, 3).map(({ save }) => save.saveId)).size).toBe(1);
  expect([state().saveState.kind, state().revision, await kept()]).toEqual(['saved', 3, []]);
});

test('undo and another edit replace the end of the history on the server', async () => {
  rename('One');
  rename('Two');
  await pass(1000);
  state().undo();
  rename('Three');
  await pass(1000);
  const { history, piece } = sent[1]!.save;
  expect([piece.name, history.from, history.entries.map(({ label }) => label), history.cursor]).toEqual([
    'Three',
    1,
    ['Name the piece “Three”'],
    2,
  ]);
});

test('a full disk is tried again; after a conflict further edits go into the same kept copy', async () => {
  answers = [507, 409, 409];
  rename('One');
  await pass(500);
  expect(state().saveState.kind).toBe('refused');
  await pass(2000);
  expect(state().saveState).toMatchObject({ kind: 'conflict', keptAs: 'copy' });
  await pass(10_000);
  expect(sent).toHaveLength(2);
  rename('Two');
  expect(state().saveState.kind).toBe('conflict');
  await pass(1000);
  expect(sent.map(({ ifMatch, save }) => [ifMatch, save.window, save.piece.name])).toEqual(
    ['One', 'One', 'Two'].map((name) => ['"1"', autosave.window, name]),
  );
});

test('a kept copy that is opened is not written again: the next edit goes on from it', async () => {
  answers = [409];
  rename('Mine');
  await pass(500);
  expect(state().saveState).toMatchObject({ kind: 'conflict', keptAs: 'copy' });
  show('copy', 'Mine (kept copy)');
  await pass(3000);
  expect([sent.length, await kept(), state().notice]).toEqual([1, [], null]);
  rename('Goes on');
  await pass(1000);
  expect(sent.map(({ save }) => save.piece.id)).toEqual(['p', 'copy']);
  expect(state().saveState.kind).toBe('saved');
});

test('what was changed after a conflict goes into the copy, though its window has turned away', async () => {
  answers = [409, 409];
  rename('Mine');
  await pass(500);
  rename('Mine too');
  show('copy', 'Mine (kept copy)');
  await pass(1000);
  expect(sent.map(({ save }) => [save.piece.id, save.piece.name])).toEqual([
    ['p', 'Mine'],
    ['p', 'Mine too'],
  ]);
  expect([await kept(), state().notice]).toEqual([[], 'Work of an earlier window: Answer 409.']);
});

test('a conflict that is answered after another piece was opened is told', async () => {
  let answer: () => void = () => undefined;
  const fetched = globalThis.fetch;
  globalThis.fetch = async (...given) => {
    await new Promise<void>((resolve) => (answer = resolve));
    return fetched(...given);
  };
  answers = [409];
  rename('Mine');
  await pass(500);
  globalThis.fetch = fetched;
  show('q', 'Other');
  answer();
  await pass(500);
  expect([sent.length, await kept(), state().notice]).toEqual([1, [], 'Answer 409.']);
});

test('where the browser keeps nothing it is said, and leaving the page is asked about', async () => {
  autosave.end();
  globalThis.indexedDB = {
    open: () => {
      throw new Error('not in this mode');
    },
  } as unknown as IDBFactory;
  const listeners = new Map<string, (event: { preventDefault: () => void }) => void>();
  Object.assign(globalThis, {
    addEventListener: (name: string, act: () => void) => void listeners.set(name, act),
    removeEventListener: () => undefined,
  });
  autosave = await Autosave.start();
  show();
  const asks = (): boolean => {
    let asked = false;
    listeners.get('beforeunload')!({ preventDefault: () => (asked = true) });
    return asked;
  };
  answers = ['away'];
  rename('One');
  await pass(500);
  expect(state().saveState).toMatchObject({
    kind: 'away',
    message: expect.stringMatching(/cannot keep your work.*Leave the window open/) as string,
  });
  expect(asks()).toBe(true);
  await pass(3000);
  expect([state().saveState.kind, asks()]).toEqual(['saved', false]);
});

test('a piece that is turned away from is saved none the less', async () => {
  answers = ['away'];
  rename('Left behind');
  await pass(500);
  show('q', 'Other');
  await pass(3000);
  expect(sent.at(-1)!.save.piece).toMatchObject({ id: 'p', name: 'Left behind' });
  expect([state().piece!.name, state().saveState.kind, await kept()]).toEqual(['Other', 'saved', []]);
});

describe('what earlier windows left', () => {
  const leave = async (name = 'Left', answer: 'away' | 'lost' = 'away'): Promise<void> => {
    answers = [answer];
    rename(name);
    await pass(400);
    autosave.end();
    expect(await kept()).toHaveLength(1);
    autosave = await Autosave.start();
  };

  test('is sent and forgotten', async () => {
    await leave();
    await autosave.sendEarlierWork();
    expect([sent[1]!.save.piece.name, sent[1]!.ifMatch, await kept()]).toEqual(['Left', '"1"', []]);
  });

  test('is not sent twice when it had arrived and only the answer was lost', async () => {
    await leave('Arrived', 'lost');
    await autosave.sendEarlierWork();
    expect([sent.length, await kept()]).toEqual([1, []]);
  });

  test.each(['away', 507] as const)('stays when the server answers %s, and opening waits', async (answer) => {
    await leave();
    answers = [answer];
    await expect(autosave.sendEarlierWork()).rejects.toThrow();
    expect(await kept()).toHaveLength(1);
  });

  test('becomes a piece of its own when its piece was removed', async () => {
    await leave();
    answers = [404, 'ok'];
    await autosave.sendEarlierWork();
    expect(sent.at(-1)).toMatchObject({ method: 'POST', save: { name: 'Left (kept copy)' } });
    expect([await kept(), state().notice]).toEqual([[], expect.stringContaining('“Left (kept copy)”')]);
  });

  test('is put aside, not lost, when the server refuses it', async () => {
    await leave();
    answers = [400];
    await autosave.sendEarlierWork();
    expect([await kept(), state().notice]).toEqual([
      [],
      expect.stringMatching(/put aside in this browser: Answer 400/),
    ]);
  });

  test('is on the server when it was a conflict', async () => {
    await leave();
    answers = [409];
    await autosave.sendEarlierWork();
    expect([await kept(), state().notice]).toEqual([[], 'Work of an earlier window: Answer 409.']);
  });

  test('is told of and not sent again when its window had the answer that it is in a copy', async () => {
    answers = [409];
    rename('Left');
    await pass(500);
    autosave.end();
    autosave = await Autosave.start();
    await autosave.sendEarlierWork();
    expect([sent.length, await kept(), state().notice]).toEqual([1, [], 'Work of an earlier window: Answer 409.']);
  });

  test('is left alone while its window is still there, whichever of several it is', async () => {
    const held = new Set<string>();
    const locks = {
      request: async (
        name: string,
        given: { signal: AbortSignal } | (() => Promise<void>),
        act?: () => Promise<void>,
      ) => {
        if (typeof given === 'function') {
          held.add(name);
          return given();
        }
        if (!held.has(name)) return act!();
        return new Promise<void>((_, reject) =>
          given.signal.addEventListener('abort', () => reject(given.signal.reason)),
        );
      },
    };
    Object.defineProperty(globalThis, 'navigator', { value: { locks }, configurable: true });
    autosave.end();
    const windows = await Promise.all([Autosave.start(), Autosave.start()]);
    for (const [i, window] of windows.entries()) {
      const store = await UnsavedStore.open();
      const base: UnsavedBase = {
        pieceId: 'p',
        window: window.window,
        revision: 1,
        document: emptyPiece('p', 'P'),
        entries: 0,
        cursor: 0,
      };
      await store.begin(base);
      const patches = [{ op: 'replace' as const, path: ['name'], value: `Window ${i}` }];
      await store.addChange({ pieceId: 'p', window: window.window, seq: 1, patches, entry: null, cursor: 0 });
      store.close();
      window.end();
    }
    held.delete(`zephiro.window.${windows[0].window}`);
    autosave = await Autosave.start();
    let opened = false;
    void autosave.sendEarlierWork().then(() => (opened = true));
    for (let waited = 0; !opened && waited < 100; waited += 1) await jest.advanceTimersByTimeAsync(100);
    expect([opened, sent.map(({ save }) => save.piece.name)]).toEqual([true, ['Window 0']]);
    held.delete(`zephiro.window.${windows[1].window}`);
    await autosave.sendEarlierWork();
    expect([sent.map(({ save }) => save.piece.name), await kept()]).toEqual([['Window 0', 'Window 1'], []]);
    Reflect.deleteProperty(globalThis, 'navigator');
  });
});

describe('what a window leaves that keeps its lock for longer than opening waits', () => {
  /** Locks that a test frees; who asks for one that is held waits. */
  const held = new Map<string, (() => void)[]>();
  const locks = {
    request: async (name: string, given: unknown, act?: () => Promise<void>) => {
      if (!act) return;
      const waiting = held.get(name);
      if (waiting) await new Promise<void>((resolve) => waiting.push(resolve));
      await act();
    },
  };
  const LATE = 'zephiro.window.late';
  const free = async (): Promise<void> => {
    for (const go of held.get(LATE) ?? []) go();
    await pass(100);
  };

  beforeEach(async () => {
    Object.defineProperty(globalThis, 'navigator', { value: { locks }, configurable: true });
    held.set(LATE, []);
    const store = await UnsavedStore.open();
    const document = emptyPiece('p', 'P');
    await store.begin({ pieceId: 'p', window: 'late', revision: 1, document, entries: 0, cursor: 0 });
    const patches = [{ op: 'replace' as const, path: ['name'], value: 'Late' }];
    await store.addChange({ pieceId: 'p', window: 'late', seq: 1, patches, entry: null, cursor: 0 });
    store.close();
    const earlier = autosave.sendEarlierWork();
    await pass(3500);
    await earlier;
    expect(sent).toEqual([]);
  });
  afterEach(() => Reflect.deleteProperty(globalThis, 'navigator'));

  test('is sent once the lock is free, and its piece is opened anew', async () => {
    await free();
    expect([sent.map(({ save }) => save.piece.name), state().piece!.name]).toEqual([['Late'], 'Stored']);
  });

  test('waits for the next opening while its piece has changes of its own here', async () => {
    answers = ['away'];
    rename('Mine');
    await free();
    expect(sent.map(({ save }) => save.piece.name)).not.toContain('Late');
    expect((await kept()).some(({ base }) => base.window === 'late')).toBe(true);
  });
});

import { renamePiece, setTempo } from '../core/piece/edits/channels';
import { emptyPiece } from '../core/piece/piece';
import type { SaveRequest } from './api';
import { sendKept, startAutosave } from './autosave';
import { useOpenPiece } from './openPiece';

const KEPT = 'zephiro.unsaved';
const kept = new Map<string, string>();
Object.assign(globalThis, { localStorage: { getItem: (key: string) => kept.get(key) ?? null, setItem: (key: string, value: string) => void kept.set(key, value), removeItem: (key: string) => void kept.delete(key) } });

interface Sent {
  readonly ifMatch: string;
  readonly save: SaveRequest;
}
let sent: Sent[] = [];
/** What the server answers next; `away` is no answer at all. */
let answers: ('ok' | 'away' | number)[] = [];
let revision = 1;
globalThis.fetch = jest.fn(async (_url, init) => {
  const { headers, body } = init as { headers: Record<string, string>; body: string };
  sent.push({ ifMatch: headers['If-Match']!, save: JSON.parse(body) as SaveRequest });
  const answer = answers.shift() ?? 'ok';
  if (answer === 'away') throw new TypeError('no network');
  if (answer === 'ok') return new Response(JSON.stringify({ revision: (revision += 1) }));
  return new Response(JSON.stringify({ title: 'Refused', detail: `Answer ${answer}.`, status: answer, keptAs: answer === 409 ? 'copy' : undefined }), { status: answer });
}) as typeof fetch;

let end: () => void = () => undefined;
beforeEach(() => {
  jest.useFakeTimers();
  kept.clear();
  sent = [];
  answers = [];
  revision = 1;
  useOpenPiece.setState({ piece: emptyPiece('p', 'Piece'), revision: 1, entries: [], cursor: 0, savedEntries: 0, cutSince: Infinity, change: 0, saveState: { kind: 'saved' }, notice: null });
  end = startAutosave();
});
afterEach(() => end());

const rename = (name: string): boolean => useOpenPiece.getState().run(renamePiece, { name });
const state = (): ReturnType<typeof useOpenPiece.getState> => useOpenPiece.getState();

test('an edit is saved within a second, several in a row as one save, and then nothing is kept here', async () => {
  rename('One');
  rename('Two');
  expect(kept.has(KEPT)).toBe(true);
  await jest.advanceTimersByTimeAsync(1000);
  expect(sent.map(({ ifMatch, save }) => [ifMatch, save.piece.name, save.history.from, save.history.entries.length, save.history.cursor])).toEqual([['"1"', 'Two', 0, 2, 2]]);
  expect([state().saveState.kind, state().revision, kept.size]).toEqual(['saved', 2, 0]);
});

test('while the server is away the same save is sent again, and what came meanwhile after it', async () => {
  answers = ['away', 'away'];
  rename('One');
  await jest.advanceTimersByTimeAsync(500);
  expect(state().saveState).toMatchObject({ kind: 'away', message: expect.stringContaining('Your work is kept in this window') as string });
  useOpenPiece.getState().run(setTempo, { bpm: 77 });
  await jest.advanceTimersByTimeAsync(6000);
  expect(sent.map(({ ifMatch, save }) => [ifMatch, save.history.from, save.history.entries.length])).toEqual([['"1"', 0, 1], ['"1"', 0, 1], ['"1"', 0, 1], ['"2"', 1, 1]]);
  expect(new Set(sent.slice(0, 3).map(({ save }) => save.saveId)).size).toBe(1);
  expect([state().saveState.kind, state().revision, kept.size]).toEqual(['saved', 3, 0]);
});

test('undo and another edit replace the end of the history on the server', async () => {
  rename('One');
  rename('Two');
  await jest.advanceTimersByTimeAsync(1000);
  state().undo();
  rename('Three');
  await jest.advanceTimersByTimeAsync(1000);
  const { history, piece } = sent[1]!.save;
  expect([piece.name, history.from, history.entries.map(({ label }) => label), history.cursor]).toEqual(['Three', 1, ['Name the piece “Three”'], 2]);
});

test('a conflict stops saving until a version is chosen; a full disk is tried again', async () => {
  answers = [507, 409];
  rename('One');
  await jest.advanceTimersByTimeAsync(500);
  expect(state().saveState.kind).toBe('refused');
  await jest.advanceTimersByTimeAsync(2000);
  expect(state().saveState).toMatchObject({ kind: 'conflict', keptAs: 'copy' });
  await jest.advanceTimersByTimeAsync(60_000);
  expect(sent).toHaveLength(2);
});

describe('what an earlier window left', () => {
  const leave = async (): Promise<void> => {
    answers = ['away'];
    rename('Left');
    await jest.advanceTimersByTimeAsync(400);
    end();
    expect(kept.has(KEPT)).toBe(true);
  };

  test('is sent and forgotten', async () => {
    await leave();
    await sendKept();
    expect([sent[1]!.save.piece.name, kept.size]).toEqual(['Left', 0]);
  });

  test.each(['away', 507] as const)('stays when the server answers %s, and opening waits', async (answer) => {
    await leave();
    answers = [answer];
    await expect(sendKept()).rejects.toThrow();
    expect(kept.has(KEPT)).toBe(true);
  });

  test.each([404, 400])('is put aside, not lost, when the server answers %d', async (answer) => {
    await leave();
    answers = [answer];
    await sendKept();
    expect([...kept.keys()]).toEqual([`${KEPT}.refused`]);
    expect(state().notice).toContain(`Answer ${answer}.`);
  });

  test('is on the server when it was a conflict', async () => {
    await leave();
    answers = [409];
    await sendKept();
    expect([kept.size, state().notice]).toEqual([0, 'Work of an earlier window: Answer 409.']);
  });

  test('is put aside when it cannot be read', async () => {
    kept.set(KEPT, '{"half": ');
    await sendKept();
    expect([...kept.keys()]).toEqual([`${KEPT}.refused`]);
  });
});

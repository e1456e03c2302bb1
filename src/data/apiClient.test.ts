import { API } from '../core/api/contract';
import { emptyPiece } from '../core/piece/piece';
import { ApiProblem, call } from './apiClient';

const answering = (status: number, body: unknown): jest.SpyInstance =>
  jest.spyOn(globalThis, 'fetch').mockResolvedValue(new Response(JSON.stringify(body), { status }));

afterEach(() => jest.restoreAllMocks());

const piece = emptyPiece('p/1', 'Piece');
const save = { saveId: 's', piece, history: { from: 0, entries: [], cursor: 0 } };
const saving = (): Promise<unknown> => call(API.savePiece, { params: { id: piece.id }, revision: 3, body: save });

test('a save goes to its piece as JSON, and names the revision it is based on', async () => {
  const fetched = answering(200, { revision: 4 });
  await expect(saving()).resolves.toEqual({ revision: 4 });
  expect(fetched).toHaveBeenCalledWith('/api/pieces/p%2F1', {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json', 'If-Match': '"3"' },
    body: JSON.stringify(save),
  });
});

test('a file goes as it is, under the type of the contract', async () => {
  const fetched = answering(201, { id: 'p2' });
  const body = new Blob(['zip']);
  await call(API.readArchive, { body });
  expect(fetched).toHaveBeenCalledWith('/api/archives', {
    method: 'POST',
    headers: { 'Content-Type': 'application/zip' },
    body,
  });
});

test('what the server refuses is told in its own words, with the copy that was kept', async () => {
  answering(409, { title: 'Changed elsewhere', detail: 'Both are kept.', status: 409, keptAs: 'p9' });
  await expect(saving()).rejects.toMatchObject({
    status: 409,
    title: 'Changed elsewhere',
    detail: 'Both are kept.',
    keptAs: 'p9',
    lastGood: null,
  });
});

test.each<[string, () => void]>([
  ['no answer', () => jest.spyOn(globalThis, 'fetch').mockRejectedValue(new TypeError('failed'))],
  ['a gateway without a server', () => answering(502, 'Bad gateway')],
  ['a server that is stopping', () => answering(503, {})],
])('%s is a server that is away', async (_what, answer) => {
  answer();
  await expect(call(API.listPieces)).rejects.toMatchObject({ status: 0, title: 'The server is away' });
});

test('a refusal that is none of ours says its status', async () => {
  answering(418, 'teapot');
  const failed = call(API.listPieces);
  await expect(failed).rejects.toBeInstanceOf(ApiProblem);
  await expect(failed).rejects.toMatchObject({ status: 418, detail: 'It answered 418. Nothing was changed.' });
});

test('an answer that is none of the endpoint’s is refused', async () => {
  answering(200, [{ id: 'p1' }]);
  await expect(call(API.listPieces)).rejects.toThrow(/revision/);
});

test('an endpoint that answers with a file is not called', async () => {
  await expect(call(API.writeArchive, { params: { id: 'p1' } })).rejects.toThrow(/use its address/);
});

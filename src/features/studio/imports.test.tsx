import { scene } from '../../core/piece/testing';
import * as api from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import { useImports } from './imports';

jest.mock('../../data/api');
const upload = jest.mocked(api.uploadSound);

const fileOf = (name: string): File => ({ name, size: 100 }) as File;
const stored = { hash: 'a'.repeat(64), name: 'x', frames: 48_000, sampleRate: 48_000, channels: 1 as const };
const tracks = () =>
  useOpenPiece.getState().piece!.tracks.map(({ name, clips }) => [name, clips.map(({ start }) => start)]);
const finished = (): Promise<void> =>
  new Promise((resolve) => {
    if (useImports.getState().left === 0) return resolve();
    const stop = useImports.subscribe(({ left }) => {
      if (left > 0) return;
      stop();
      resolve();
    });
  });

beforeEach(() => {
  jest.resetAllMocks();
  const { piece } = scene([], [{ clips: [] }]);
  useOpenPiece.setState({
    piece,
    entries: [],
    cursor: 0,
    savedEntries: 0,
    cutSince: Infinity,
    change: 0,
    notice: null,
  });
  useImports.getState().dismiss();
});

test('files come in one after another, each on a track of its own or on the one they are for', async () => {
  upload.mockResolvedValue(stored);
  useImports.getState().add([fileOf('Oar.wav'), fileOf('Gull.flac')]);
  useImports.getState().add([fileOf('Bell.mp3')], { track: 't0', beat: 6 });
  expect(useImports.getState()).toMatchObject({ left: 3, total: 3 });
  await finished();
  expect(tracks()).toEqual([
    ['Track 0', [6]],
    ['Oar', [0]],
    ['Gull', [0]],
  ]);
  expect(useOpenPiece.getState().notice).toBe('3 sounds were added.');
});

test('one that cannot be used is named with the reason, and the others come in', async () => {
  const refused = Object.assign(new api.ApiProblem(422, '', ''), { detail: 'It is no sound.' });
  upload.mockRejectedValueOnce(refused).mockResolvedValueOnce(stored);
  useImports.getState().add([fileOf('letter.wav'), fileOf('Oar.wav')]);
  await finished();
  expect(useImports.getState().failed).toEqual([{ name: 'letter.wav', reason: 'It is no sound.' }]);
  expect(tracks().slice(1)).toEqual([['Oar', [0]]]);
});

test('what is on its way when another piece is opened is not added to that one', async () => {
  upload.mockImplementation(async () => {
    useOpenPiece.setState(({ piece }) => ({ piece: { ...piece!, id: 'another' } }));
    return stored;
  });
  useImports.getState().add([fileOf('Oar.wav')]);
  await finished();
  expect(tracks()).toEqual([['Track 0', []]]);
  expect(useImports.getState().failed).toEqual([{ name: 'Oar.wav', reason: 'Another piece was opened meanwhile.' }]);
});

test('stopped, the one on its way and those after it are left out, and what is added then comes in', async () => {
  upload.mockImplementationOnce(
    (_file, _name, _onStatus, signal) =>
      new Promise((_, reject) => signal!.addEventListener('abort', () => reject(new Error('ended')))),
  );
  upload.mockResolvedValue(stored);
  useImports.getState().add([fileOf('Oar.wav'), fileOf('Gull.wav')]);
  useImports.getState().cancel();
  useImports.getState().add([fileOf('Bell.wav')]);
  await finished();
  expect(tracks().slice(1)).toEqual([['Bell', [0]]]);
});

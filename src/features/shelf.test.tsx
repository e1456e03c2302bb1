import { hashOf, RATE } from '../core/piece/testing';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, render, screen, waitFor } from '@testing-library/react';
import type { ReactElement } from 'react';
import type { ExportOrder, ExportStatus } from '../core/files/order';
import { emptyPiece, type Print, type PrintOrder } from '../core/piece/piece';
import { tempoLane } from '../core/piece/tempoOf';
import * as api from '../data/api';
import { useOpenPiece } from '../data/openPiece';
import { ExportList } from './shared/files/ExportList';
import { ShelfPieces } from './shelf/ShelfPieces';
import { PrintList } from './shelf/PrintList';
import { TempoButton } from './shell/TempoButton';
// The button fetches it when it is pressed: loaded here, no test waits for it.
import './shell/TempoSettings';
import { cancelPrint, print, storeAgain, usePrinting } from './studio/printing';
import { now, openPiece, press, pressed, quietStudio, type, undo } from './testing';

jest.mock('./studio/StudioProvider', () => jest.requireActual<typeof import('./testing')>('./testing').quietProvider);
jest.mock('./studio/usePreview', () => ({ usePreview: () => ({ sounding: false, hear: jest.fn(), stop: jest.fn() }) }));
jest.mock('./studio/printing', () => {
  const { create } = jest.requireActual<typeof import('zustand')>('zustand');
  return {
    print: jest.fn(),
    cancelPrint: jest.fn(),
    storeAgain: jest.fn(),
    usePrinting: create(() => ({ works: [] })),
  };
});
jest.mock('@expo/vector-icons/Feather', () => () => null);
jest.mock('../data/api');

const served = jest.mocked(api);

beforeEach(() => {
  jest.resetAllMocks();
  served.soundFileUrl.mockReturnValue('#');
  served.exportFileUrl.mockReturnValue('#');
  served.listBin.mockResolvedValue([]);
  openPiece();
  usePrinting.setState({ works: [] });
});

const show = (what: ReactElement): void =>
  void render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      {what}
    </QueryClientProvider>,
  );

describe('pieces', () => {
  test('what is in the bin is brought back from there', async () => {
    served.listPieces.mockResolvedValue([]);
    served.listBin.mockResolvedValue([
      { id: 'gone', name: 'Ebb', revision: 1, updatedAt: '', copyOf: null, removedAt: '2026-11-20T10:00:00.000Z' },
    ]);
    show(<ShelfPieces />);
    await act(async () => (await screen.findByRole('button', { name: 'Show the bin, 1 in it' })).click());
    await act(async () => press('button', 'Bring Ebb back'));
    expect(served.restorePiece.mock.calls).toEqual([['gone']]);
    // Both lists are asked for again.
    await waitFor(() => expect(served.listBin).toHaveBeenCalledTimes(2));
  });

  const listed = [
    { id: 'scene', name: 'Low tide', revision: 1, updatedAt: '2026-11-01T10:00:00.000Z', copyOf: null },
    { id: 'other', name: 'Spring tide', revision: 3, updatedAt: '2026-11-02T10:00:00.000Z', copyOf: 'scene' },
  ];

  test('the open one is marked, another is opened by a tap', async () => {
    served.listPieces.mockResolvedValue(listed);
    served.fetchPiece.mockResolvedValue({
      piece: emptyPiece('other', 'Spring tide'),
      revision: 3,
      entries: [],
      cursor: 0,
      lastSave: '',
    });
    show(<ShelfPieces />);
    expect((await screen.findByRole('radio', { name: 'Low tide' })).getAttribute('aria-checked')).toBe('true');
    await act(async () => press('radio', 'Spring tide'));
    expect([now().id, localStorage.getItem('zephiro.open')]).toEqual(['other', 'other']);
  });

  test('a kept copy is named as one, removed, and brought back', async () => {
    served.listPieces.mockResolvedValueOnce(listed).mockResolvedValueOnce(listed.slice(0, 1)).mockResolvedValue(listed);
    show(<ShelfPieces />);
    expect((await screen.findByRole('radio', { name: 'Spring tide' })).textContent).toContain(
      'kept after a conflict with Low tide',
    );
    expect(screen.queryByRole('button', { name: 'Remove Low tide' })).toBeNull();
    await act(async () => press('button', 'Remove Spring tide'));
    await waitFor(() => expect(screen.queryByRole('radio', { name: 'Spring tide' })).toBeNull());
    expect(useOpenPiece.getState().notice).toBe('“Spring tide” is in the bin, for 30 days.');
    await act(async () => useOpenPiece.getState().noticeAction!.act());
    expect(await screen.findByRole('radio', { name: 'Spring tide' })).toBeTruthy();
    expect([served.removePiece.mock.calls, served.restorePiece.mock.calls]).toEqual([[['other']], [['other']]]);
  });

  test('one that cannot be read says why, and its last good state is opened instead', async () => {
    served.listPieces.mockResolvedValue(listed);
    const problem = Object.assign(new api.ApiProblem(422, '', ''), {
      status: 422,
      detail: 'It is damaged at tracks.',
      lastGood: '2026-11-01T10:00:00.000Z',
    });
    served.fetchPiece
      .mockRejectedValueOnce(problem)
      .mockResolvedValue({ piece: emptyPiece('good', 'Good'), revision: 1, entries: [], cursor: 0, lastSave: '' });
    served.recoverPiece.mockResolvedValue('good');
    show(<ShelfPieces />);
    await screen.findByRole('radio', { name: 'Spring tide' });
    await act(async () => press('radio', 'Spring tide'));
    expect((await screen.findByRole('alert')).textContent).toContain('It is damaged at tracks.');
    await act(async () => press('button', 'Open its last good state'));
    await waitFor(() => expect(now().name).toBe('Good'));
    expect(served.recoverPiece.mock.calls).toEqual([['other']]);
  });

  test('a server that is away is said, and asked again', async () => {
    served.listPieces.mockRejectedValueOnce(new Error('The server does not answer.')).mockResolvedValue(listed);
    show(<ShelfPieces />);
    expect((await screen.findByRole('alert')).textContent).toContain('does not answer');
    press('button', 'Look for pieces again');
    expect(await screen.findByRole('radio', { name: 'Low tide' })).toBeTruthy();
  });

  test('a new one is made, stored and opened; one that cannot be stored leaves the open one', async () => {
    served.listPieces.mockResolvedValue(listed);
    served.createPiece.mockResolvedValueOnce(undefined as never).mockRejectedValueOnce(new Error('The disk is full.'));
    served.fetchPiece.mockImplementation(async (id) => ({
      piece: emptyPiece(id, 'New piece 3'),
      revision: 1,
      entries: [],
      cursor: 0,
      lastSave: '',
    }));
    show(<ShelfPieces />);
    await screen.findByRole('radio', { name: 'Low tide' });
    const empty = screen.getByRole('button', { name: /^New piece: Empty/ });
    await act(async () => empty.click());
    await waitFor(() => expect(now().name).toBe('New piece 3'));
    const { id } = now();
    await act(async () => empty.click());
    await waitFor(() => expect(useOpenPiece.getState().notice).toBe('The disk is full.'));
    expect(now().id).toBe(id);
  });
});

describe('files', () => {
  const ORDER: ExportOrder = {
    piece: 'scene',
    what: 'mix',
    fromBeat: 0,
    toBeat: 32,
    tail: 'silent',
    format: 'wav24',
    lufs: -16,
    prints: [],
  };
  const status = (id: string, more: Partial<ExportStatus>): ExportStatus => ({
    id,
    piece: 'scene',
    madeAt: '',
    state: 'done',
    message: '',
    share: 1,
    ahead: 0,
    order: ORDER,
    files: [],
    ...more,
  });

  test('nothing yet, in words', async () => {
    served.listExports.mockResolvedValue([]);
    show(<ExportList />);
    expect(await screen.findByText(/Nothing written yet/)).toBeTruthy();
  });

  test('one on its way shows how far it is and is stopped; a finished one offers its files', async () => {
    served.listExports.mockResolvedValue([
      status('a', { state: 'running', share: 0.42 }),
      status('b', { files: [{ name: 'Low tide.wav', bytes: 12_345_678 }], message: 'Its peaks allow −17.2 LUFS.' }),
    ]);
    show(<ExportList />);
    expect(await screen.findByText('writing … 42 %')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Download Low tide.wav' }).textContent).toContain('12.3 MB');
    expect(screen.getByText(/peaks allow/)).toBeTruthy();
    await act(async () => press('button', 'Stop writing'));
    expect(served.removeExport.mock.calls[0]![0]).toBe('a');
  });

  test('one that failed says why, and is written again as it was asked for once all is saved', async () => {
    served.listExports.mockResolvedValue([
      status('a', { state: 'failed', message: 'The disk is full. Make room, then try again.' }),
    ]);
    const saved = jest.fn(async () => undefined);
    useOpenPiece.setState({ saved });
    show(<ExportList />);
    expect((await screen.findByRole('alert')).textContent).toContain('Make room');
    await act(async () => press('button', 'Write them again'));
    await waitFor(() => expect(served.startExport.mock.calls[0]![0]).toEqual(ORDER));
    expect(saved).toHaveBeenCalled();
  });
});

describe('prints', () => {
  const order: PrintOrder = { channel: 't0', clip: 'a', fromBeat: 4, toBeat: 6, part: 'wet', tailBars: null };
  const made: Print = {
    id: 'p',
    name: 'Hum · Echo wet',
    sound: hashOf(0),
    startSample: 96_000,
    sampleRate: RATE,
    madeAt: '',
    from: {
      channel: 't0',
      channelName: 'Track 0',
      clip: 'a',
      fromBeat: 4,
      toBeat: 6,
      part: 'wet',
      tail: 'until silent',
      bpm: 120,
      order,
    },
  };

  test('one is placed where it came from, made again, and removed', () => {
    openPiece((piece) => ({ ...piece, prints: [made] }));
    show(<PrintList />);
    press('button', 'Place Hum · Echo wet where it came from');
    press('button', 'Place Hum · Echo wet where it came from');
    const placed = now().tracks[2]!;
    expect([placed.name, placed.clips.map(({ start, print: of }) => [start, of])]).toEqual([
      'Prints of Track 0',
      [
        [4, 'p'],
        [4, 'p'],
      ],
    ]);
    press('button', 'Print Hum · Echo wet again');
    expect(jest.mocked(print).mock.calls[0]!.slice(1)).toEqual([order, made]);
    press('button', 'Remove Hum · Echo wet');
    expect([now().prints, now().tracks[2]!.clips.length]).toEqual([[], 2]);
    undo();
    expect(now().prints).toEqual([made]);
  });

  test('one on its way is stopped; one that could not be stored is kept and stored again', () => {
    usePrinting.setState({
      works: [
        { id: 'w', name: 'Crates', share: 0.25, state: 'printing', message: null },
        { id: 'u', name: 'Hum', share: 1, state: 'unsent', message: 'Printed, but not stored yet.' },
      ],
    });
    show(<PrintList />);
    expect(screen.getByText('printing … 25 %')).toBeTruthy();
    press('button', 'Stop printing Crates');
    press('button', 'Store the print again');
    expect([jest.mocked(cancelPrint).mock.calls, jest.mocked(storeAgain).mock.calls]).toEqual([[['w']], [['u']]]);
  });
});

describe('the tempo', () => {
  test('is typed; what is no tempo is refused in words and changes nothing', async () => {
    show(<TempoButton />);
    press('button', 'Tempo 120 BPM');
    await screen.findByRole('textbox', { name: 'Tempo in BPM' });
    type('Tempo in BPM', 'brisk');
    await pressed('button', 'Set tempo');
    expect(screen.getByRole('alert')).toBeTruthy();
    expect(now().tempo.bpm).toBe(120);
    type('Tempo in BPM', '92.5');
    await pressed('button', 'Set tempo');
    expect(now().tempo.bpm).toBe(92.5);
  });

  test('changes from the playhead on over some bars, and is made one again', async () => {
    quietStudio.studio.beat = 8;
    show(<TempoButton />);
    press('button', 'Tempo 120 BPM');
    await screen.findByRole('textbox', { name: 'BPM from here on' });
    type('BPM from here on', '60');
    press('radio', 'Change over 2 bars');
    await pressed('button', 'Change the tempo from here on');
    quietStudio.studio.beat = 0;
    expect(
      tempoLane(now())!
        .points.filter(({ beat }) => beat >= 8)
        .map(({ beat, value }) => [beat, value]),
    ).toEqual([
      [8, 120],
      [16, 60],
    ]);
    press('button', 'Tempo, which moves');
    press('button', 'One tempo for the whole piece');
    expect(tempoLane(now())).toBeUndefined();
  });
});

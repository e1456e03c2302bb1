import { act, render, screen, within } from '@testing-library/react';
import { TextDecoder } from 'node:util';
import { newSlot } from '../core/piece/edits/chain';
import { useClipboard } from '../data/clipboard';
import { useOpenPiece } from '../data/openPiece';
import { ExchangeSheet } from './moves/ExchangeSheet';
import { LinkList } from './shared/links/LinkList';
import { chooseFile, saveFile } from './studio/localFiles';
import { now, openPiece, press, undo } from './testing';

jest.mock('./studio/StudioProvider', () => jest.requireActual<typeof import('./testing')>('./testing').quietProvider);
jest.mock('./studio/localFiles', () => ({ chooseFile: jest.fn(), saveFile: jest.fn() }));
jest.mock('@expo/vector-icons/Feather', () => () => null);

const withChain = (...slots: ReturnType<typeof newSlot>[]): void =>
  openPiece((piece) => ({
    ...piece,
    tracks: piece.tracks.map((track, i) => (i === 0 ? { ...track, chain: slots } : track)),
  }));

describe('a rail that turns by itself', () => {
  const choices = (): string[] =>
    within(screen.getAllByRole('dialog').at(-1)!)
      .getAllByRole('button')
      .map((one) => one.getAttribute('aria-label') ?? '')
      .filter((label) => label !== 'Close');

  test('is linked to a new modulator, with a name that no other has', () => {
    withChain(newSlot('e', 'echo', 'neutral'));
    render(<LinkList channel="t0" effect="e" />);
    for (const rail of ['Link Echo Feedback', 'Link Echo Cutoff']) {
      press('button', 'Link a rail');
      press('button', rail);
      press('button', 'A new LFO');
    }
    expect(now().modulators.map(({ kind, name }) => [kind, name])).toEqual([
      ['lfo', 'LFO 1'],
      ['lfo', 'LFO 2'],
    ]);
    expect(now().links.map(({ target }) => target)).toMatchObject([{ param: 'feedback' }, { param: 'cutoff' }]);
    undo();
    expect([now().links.length, now().modulators.length]).toEqual([1, 1]);
  });

  test('shares a modulator of the piece with another, but not twice with itself', () => {
    withChain(newSlot('e', 'echo', 'neutral'));
    render(<LinkList channel="t0" effect="e" />);
    press('button', 'Link a rail');
    press('button', 'Link Echo Feedback');
    press('button', 'A drift');
    press('button', 'Link a rail');
    press('button', 'Link Echo Mix');
    press('button', 'Drift 1');
    expect(now().modulators).toHaveLength(1);
    expect(now().links.map(({ modulator }) => modulator)).toEqual([now().modulators[0]!.id, now().modulators[0]!.id]);
    press('button', 'Link a rail');
    press('button', 'Link Echo Mix');
    expect(choices()).not.toContain('Drift 1');
  });

  test('of a hold is offered a run first; of another effect none', () => {
    withChain(newSlot('s', 'stutter', 'neutral'), newSlot('e', 'echo', 'neutral'));
    const { rerender } = render(<LinkList channel="t0" effect="s" />);
    press('button', 'Link a rail');
    const [first] = choices();
    press('button', first!);
    expect(choices()[0]).toBe('A run');
    press('button', 'Close');
    rerender(<LinkList channel="t0" effect="e" />);
    press('button', 'Link a rail');
    press('button', 'Link Echo Mix');
    expect(choices()).not.toContain('A run');
  });

  test('is one whose values are in an order: switches are not offered, and each is offered once', () => {
    withChain(newSlot('t', 'taps', 'neutral'));
    render(<LinkList channel="t0" effect="t" />);
    press('button', 'Link a rail');
    const all = choices();
    expect(new Set(all).size).toBe(all.length);
    expect(all).toEqual(expect.arrayContaining(['Link Taps Tap 1, level', 'Link Taps Tap 2, level']));
    expect(all.some((label) => /backwards/i.test(label))).toBe(false);
  });
});

describe('moves to and from other programs', () => {
  const lane = {
    id: 'l',
    target: { kind: 'channel' as const, channel: 't0', param: 'pan' },
    unit: 'own' as const,
    on: true,
    points: [
      { beat: 0, value: -0.5, shape: 'line' as const, bend: 0 },
      { beat: 4, value: 0.5, shape: 'line' as const, bend: 0 },
    ],
  };
  const show = (): void => void render(<ExchangeSheet channel="t0" open onClose={() => undefined} />);
  const clipboard = { text: '', refuses: false };
  const said = (): string => screen.getByRole('status').textContent ?? '';
  const later = (act_: () => void): Promise<void> =>
    act(async () => {
      act_();
      await Promise.resolve();
    });

  beforeEach(() => {
    jest.mocked(saveFile).mockClear();
    // jsdom has none.
    Object.assign(globalThis, { TextDecoder });
    clipboard.refuses = false;
    Object.defineProperty(navigator, 'clipboard', {
      configurable: true,
      value: {
        writeText: async (text: string) => {
          if (clipboard.refuses) throw new Error('no');
          clipboard.text = text;
        },
        readText: async () => {
          if (clipboard.refuses) throw new Error('no');
          return clipboard.text;
        },
      },
    });
    openPiece((piece) => ({
      ...piece,
      lanes: [lane, { ...lane, id: 'm', target: { ...lane.target, channel: 't1' } }],
    }));
  });

  test('text is copied from one piece and pasted into another, where one undo takes it away', async () => {
    show();
    press('switch', 'Moves of every channel');
    await later(() => press('button', 'Copy as text'));
    expect(said()).toBe('2 lanes copied as text.');
    act(() => useOpenPiece.setState({ piece: { ...now(), lanes: [] }, entries: [], cursor: 0 }));
    await later(() => press('button', 'Paste moves from text'));
    expect(said()).toBe('2 lanes imported.');
    expect(now().lanes.map(({ target, points }) => [target, points])).toEqual([
      [lane.target, lane.points],
      [{ ...lane.target, channel: 't1' }, lane.points],
    ]);
    undo();
    expect(now().lanes).toEqual([]);
  });

  test('of the channel in view alone, unless all are asked for', () => {
    show();
    press('button', 'Save as a table (CSV)');
    const [name, text] = jest.mocked(saveFile).mock.calls[0]!;
    expect(name).toMatch(/moves of Track 0\.csv$/);
    expect(text).not.toContain('Track 1');
    press('switch', 'Moves of every channel');
    press('button', 'Save as a table (CSV)');
    expect(jest.mocked(saveFile).mock.calls[1]![1]).toContain('Track 1');
  });

  test('a browser that does not let text through says what to do instead', async () => {
    clipboard.refuses = true;
    show();
    await later(() => press('button', 'Copy as text'));
    expect(said()).toMatch(/Save the table instead/);
    await later(() => press('button', 'Paste moves from text'));
    expect(said()).toMatch(/Import the table as a file instead/);
    expect(now().lanes).toHaveLength(2);
  });

  test.each([
    ['moves.mid', 'This is no MIDI file that can be read. Nothing was changed.'],
    ['moves.csv', 'Nothing was changed.'],
  ])('a file %s that is something else changes nothing and says so', async (name, message) => {
    show();
    press('button', 'Import a MIDI file or a table');
    const [, taken] = jest.mocked(chooseFile).mock.calls.at(-1)!;
    const bytes = Uint8Array.from('neither', (letter) => letter.charCodeAt(0));
    await act(async () => taken({ name, arrayBuffer: async () => bytes.buffer } as unknown as File));
    expect(said()).toContain(message);
    expect(now().lanes).toEqual([lane, { ...lane, id: 'm', target: { ...lane.target, channel: 't1' } }]);
    expect(useClipboard.getState().clipboard).toEqual([]);
  });

  test('of many lines that an import says the first are shown, and how many more there are', async () => {
    clipboard.text = '';
    show();
    press('switch', 'Moves of every channel');
    await later(() => press('button', 'Copy as text'));
    const [head, ...rows] = clipboard.text.trim().split(/\r?\n/);
    clipboard.text = [head, ...Array.from({ length: 9 }, (_, i) => rows[0]!.replace('Track 0', `Nobody ${i}`))].join(
      '\n',
    );
    await later(() => press('button', 'Paste moves from text'));
    expect(within(screen.getByRole('status')).getByText(/^And \d+ more of the kind\.$/)).toBeTruthy();
  });
});

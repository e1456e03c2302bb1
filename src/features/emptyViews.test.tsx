import { render, screen } from '@testing-library/react';
import { useView } from '../data/view';
import { HeadTools } from './moves/HeadTools';
import { LanesElsewhere } from './moves/LanesElsewhere';
import { NoLanes } from './moves/NoLanes';
import { NoTracks } from './piece/NoTracks';
import { now, openPiece, press } from './testing';

let mockWide = true;
jest.mock('./studio/StudioProvider', () => jest.requireActual<typeof import('./testing')>('./testing').quietProvider);
jest.mock('../ui/theme', () => ({ ...jest.requireActual<object>('../ui/theme'), useWide: () => mockWide }));
jest.mock('@expo/vector-icons/Feather', () => () => null);

beforeEach(() => {
  mockWide = true;
  openPiece();
});

test('a piece without tracks offers the ways to begin', () => {
  openPiece((piece) => ({ ...piece, tracks: [] }));
  render(<NoTracks />);
  press('button', /^Another piece/);
  expect(useView.getState().sheet).toBe('piece');
  press('button', /^Empty track/);
  expect(now().tracks).toHaveLength(1);
});

test('Moves leads to the channels that have lanes, and says how many', () => {
  const lane = (id: string, param: 'gain' | 'pan') => ({
    id,
    target: { kind: 'channel', channel: 't1', param } as const,
    unit: 'own' as const,
    on: true,
    points: [{ beat: 0, value: 0.5, shape: 'line' as const, bend: 0 }],
  });
  openPiece((piece) => ({ ...piece, lanes: [lane('a', 'gain'), lane('b', 'pan')] }));
  const { rerender } = render(<LanesElsewhere channel="t0" />);
  press('button', 'Moves of Track 1: 2 lanes');
  expect(useView.getState().channel).toBe('t1');
  rerender(<LanesElsewhere channel="t1" />);
  expect(screen.queryByRole('group', { name: 'Lanes of other channels' })).toBeNull();
});

describe('Moves without lanes', () => {
  const offered = (): string[] =>
    screen.getAllByRole('button', { name: /^Begin a lane/ }).map((one) => one.getAttribute('aria-label')!);

  test('offers what leads the channel, at the values that it has; a tap begins a lane there', () => {
    const added = jest.fn();
    render(<NoLanes channel="t0" hidden={0} armed={false} onAdded={added} />);
    expect(offered()[0]).toMatch(/^Begin a lane for Level, now 0.0 dB/);
    expect(offered().length).toBeGreaterThan(1);
    expect(offered().length).toBeLessThanOrEqual(5);
    press('button', /^Begin a lane for Level/);
    const [lane] = now().lanes;
    expect(lane).toMatchObject({ target: { kind: 'channel', channel: 't0', param: 'gain' }, on: true });
    expect(lane!.points).toEqual([{ beat: 0, value: expect.closeTo(1, 9), shape: 'line', bend: 0 }]);
    expect(added.mock.calls).toEqual([[lane!.id]]);
  });

  test('offers none where lanes are there and hidden: they can be shown', () => {
    useView.setState({ lanesShown: 'chosen' });
    render(<NoLanes channel="t0" hidden={2} armed={false} onAdded={jest.fn()} />);
    expect(screen.queryAllByRole('button', { name: /^Begin a lane/ })).toHaveLength(0);
    press('button', 'Show all lanes with moves');
    expect(useView.getState().lanesShown).toBe('all');
  });
});

describe('the tools of Moves', () => {
  test('stand beside each other on a wide screen', () => {
    render(<HeadTools channel="t0" />);
    press('button', 'Show less time');
    expect(useView.getState().zoom).toBe(1);
    press('button', 'Import and export moves');
    expect(screen.getByText('There are no moves here to save.')).toBeTruthy();
  });

  test('are a menu on a phone, which stays open while time is zoomed', () => {
    mockWide = false;
    render(<HeadTools channel="t0" />);
    expect(screen.queryByRole('button', { name: 'Show less time' })).toBeNull();
    press('button', 'More for the moves');
    press('button', 'Show less time');
    press('button', 'Show less time');
    expect(useView.getState().zoom).toBe(2);
    press('button', 'Show more time');
    expect(useView.getState().zoom).toBe(1);
    press('button', 'Import and export moves');
    expect(screen.queryByRole('button', { name: 'Show less time' })).toBeNull();
    expect(screen.getByText('There are no moves here to save.')).toBeTruthy();
  });
});

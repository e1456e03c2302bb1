import { act, render, screen } from '@testing-library/react';
import { newSlot } from '../core/piece/edits/chain';
import { usePreferences } from '../data/preferences';
import { MovesRails } from './moves/MovesRails';
import { now, openPiece, press } from './testing';
import { PinButton, PinnedRails } from './chain/PinnedRails';

jest.mock('./studio/StudioProvider', () => jest.requireActual<typeof import('./testing')>('./testing').quietProvider);
jest.mock('@expo/vector-icons/Feather', () => () => null);

const reverb = newSlot('rv', 'reverb', 'neutral');

beforeEach(() => {
  usePreferences.setState({ pinned: {} });
  openPiece((piece) => ({
    ...piece,
    tracks: piece.tracks.map((track, i) =>
      i === 0 ? { ...track, chain: [reverb, newSlot('rv2', 'reverb', 'neutral')] } : track,
    ),
  }));
});

test('rails are pinned for a kind of effect, at most four, and taken off again', () => {
  render(<PinButton slot={reverb} />);
  press('button', 'Pin rails under the picture');
  const tap = (at: number): void => act(() => screen.getAllByRole('switch', { name: /^Pin / })[at]!.click());
  for (const at of [0, 1, 2, 3]) tap(at);
  expect(usePreferences.getState().pinned.reverb).toHaveLength(4);
  const fifth = screen.getAllByRole('switch', { name: /^Pin / })[4]!;
  expect(fifth.getAttribute('aria-disabled')).toBe('true');
  tap(0);
  expect(usePreferences.getState().pinned.reverb).toHaveLength(3);
});

test('pinned rails that do something now stand in the head, spoken as pinned', () => {
  usePreferences.setState({ pinned: { reverb: ['decay', 'trim', 'gone'] } });
  render(<PinnedRails channel="t0" slot={reverb} width={390} />);
  expect(screen.getAllByRole('slider').map((rail) => rail.getAttribute('aria-label'))).toEqual([
    'Pinned, decay',
    'Pinned, trim',
  ]);
});

test('beside the lanes each effect has its leading rails, or all of them, under names of their own', () => {
  render(<MovesRails channel="t0" />);
  const names = (): string[] => screen.getAllByRole('slider').map((rail) => rail.getAttribute('aria-label')!);
  expect(names()).toEqual(
    expect.arrayContaining(['Channel, level', 'Channel, pan', 'Reverb, decay', 'Reverb 2, decay']),
  );
  const few = names().length;
  press('button', 'All rails of Reverb 2');
  expect(names().length).toBeGreaterThan(few);
  expect(new Set(names()).size).toBe(names().length);
  expect(now().lanes).toEqual([]);
});

import { act, cleanup, render, screen } from '@testing-library/react';
import { compareAll } from '../audio/comparing';
import type { SoundFigures } from '../core/analysis/soundFigures';
import { setParams } from '../core/piece/edits/chain';
import { useAudition } from '../data/audition';
import { useOpenPiece } from '../data/openPiece';
import { useView } from '../data/view';
import { CompareSheet } from './chain/compare/CompareSheet';
import { now, openPiece, press, pressed, type, undo } from './testing';

jest.mock('../audio/comparing', () => ({ compareAll: jest.fn() }));
jest.mock('./studio/StudioProvider', () => jest.requireActual<typeof import('./testing')>('./testing').quietProvider);
jest.mock('@expo/vector-icons/Feather', () => () => null);

const chain = () => now().tracks[0]!.chain;
const kept = () => now().tracks[0]!.kept ?? [];
const heard = () => useAudition.getState().audition;
const ratio = (value: number): void =>
  act(() => void useOpenPiece.getState().run(setParams, { channel: 't0', slot: 'c', values: { ratio: value } }));
const figures = (lufs: number): SoundFigures => ({ lufs, width: 0.25, monoLossDb: -1.5 }) as SoundFigures;

/** Measures the alternatives as told, by their order in the list. */
function measured(levels: readonly (number | null)[]): void {
  jest.mocked(compareAll).mockImplementation((jobs, _, onFigures) => {
    [...jobs.keys()].forEach((id, i) => onFigures(id, levels[i] == null ? null : figures(levels[i])));
    return () => undefined;
  });
}

beforeEach(() => {
  openPiece();
  measured([]);
});

describe('settings of a channel', () => {
  const keepTwo = async (): Promise<void> => {
    render(<CompareSheet channel="t0" />);
    press('button', 'Compare settings of Track 0');
    await pressed('button', 'Keep this');
    ratio(7);
    type('Name of the setting', 'Squeezed');
    await pressed('button', 'Keep this');
  };

  test('are kept under the next letter or a name, and taken back', async () => {
    const before = chain()[0]!.values.ratio;
    await keepTwo();
    expect(kept().map(({ name, chain: [slot] }) => [name, slot!.values.ratio])).toEqual([
      ['A', before],
      ['Squeezed', 7],
    ]);
    press('button', 'Take A');
    expect(chain()[0]!.values.ratio).toBe(before);
    undo();
    expect(chain()[0]!.values.ratio).toBe(7);
  });

  test('one that is let go of is gone, and comes back by undoing', async () => {
    await keepTwo();
    press('button', 'Let go of A');
    expect(kept().map(({ name }) => name)).toEqual(['Squeezed']);
    undo();
    expect(kept().map(({ name }) => name)).toEqual(['A', 'Squeezed']);
  });

  test('are heard in place of the chain, as loud as the least loud of them, until the sheet is closed', async () => {
    measured([-20, -14, -26]);
    await keepTwo();
    press('radio', 'Hear A');
    expect(heard()).toMatchObject({ channel: 't0', gainDb: -12 });
    expect(heard()!.chain[0]!.values.ratio).toBe(kept()[0]!.chain[0]!.values.ratio);
    press('radio', 'Hear Squeezed');
    expect(heard()).toMatchObject({ gainDb: 0 });
    press('button', 'Close');
    expect(heard()).toBeNull();
    expect(chain()[0]!.values.ratio).toBe(7);
  });

  test('one that is silent says so and is not turned up', async () => {
    measured([null, -14, -14]);
    await keepTwo();
    press('radio', 'Hear As it is now');
    expect(heard()).toMatchObject({ gainDb: 0 });
  });

  test('are compared blind: neither names nor figures nor what would tell them are shown', async () => {
    measured([-20, -14, -26]);
    await keepTwo();
    press('switch', 'Compare blind');
    const names = screen.getAllByRole('radio').map((one) => one.getAttribute('aria-label'));
    expect(names).toEqual(['Hear Number 1', 'Hear Number 2', 'Hear Number 3']);
    expect(screen.queryByText(/LUFS|Squeezed|As it is now/)).toBeNull();
    expect(screen.queryByRole('button', { name: /^(Take|Let go of)/ })).toBeNull();
    const seen = names.map((name) => {
      press('radio', name!);
      return heard()!.gainDb;
    });
    expect(seen.sort((a, b) => a - b)).toEqual([-12, -6, 0]);
    press('switch', 'Compare blind');
    expect(screen.getByRole('radio', { name: 'Hear Squeezed' })).toBeTruthy();
  });

  test('are eight at most', async () => {
    openPiece((piece) => ({
      ...piece,
      tracks: piece.tracks.map((track, i) =>
        i === 0
          ? { ...track, kept: Array.from({ length: 8 }, (_, k) => ({ id: `k${k}`, name: `K${k}`, chain: [] })) }
          : track,
      ),
    }));
    render(<CompareSheet channel="t0" />);
    press('button', 'Compare settings of Track 0');
    expect(screen.queryByRole('button', { name: 'Keep this' })).toBeNull();
    press('button', 'Let go of K3');
    expect(screen.getByRole('button', { name: 'Keep this' })).toBeTruthy();
  });
});

describe('ways to make a channel wide', () => {
  test('are heard after the chain, and the one that is kept becomes its end', () => {
    measured([-20, -20, -20, -20, -20, -20, -20, -20]);
    render(<CompareSheet channel="t0" />);
    press('button', 'Ways to make Track 0 wide');
    const [, first] = screen.getAllByRole('radio');
    act(() => first!.click());
    const audition = heard()!.chain;
    expect(audition[0]).toEqual(chain()[0]);
    expect(audition.length).toBeGreaterThan(1);
    const name = first!.getAttribute('aria-label')!.slice('Hear '.length);
    press('button', `Keep ${name}`);
    expect(chain().map(({ effect }) => effect)).toEqual(audition.map(({ effect }) => effect));
    expect(useView.getState()).toMatchObject({ channel: 't0', slot: chain()[1]!.id });
    expect(heard()).toBeNull();
    undo();
    expect(chain()).toHaveLength(1);
  });

  test('each says its width and what is lost in mono, to ears and to a screen reader', () => {
    measured([-20, -18.25]);
    render(<CompareSheet channel="t0" />);
    press('button', 'Ways to make Track 0 wide');
    expect(screen.getAllByText(/^width 25 % · in mono −1\.5 dB · −18\.3 LUFS$/)).toHaveLength(1);
    expect(screen.getAllByText('measuring …').length).toBeGreaterThan(0);
    cleanup();
    expect(heard()).toBeNull();
  });
});

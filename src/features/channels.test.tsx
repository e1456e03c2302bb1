import { render, screen } from '@testing-library/react';
import type { Modulator } from '../core/automation/modulator';
import { newSlot } from '../core/piece/edits/chain';
import type { Piece } from '../core/piece/piece';
import { useView } from '../data/view';
import { CardMenu } from './chain/CardMenu';
import { ChannelMenu } from './shared/channels/ChannelMenu';
import { LinkCard } from './shared/links/LinkCard';
import { SendList } from './shared/sends/SendList';
import { SendMatrix } from './shared/sends/SendMatrix';
import { SnapshotList } from './shared/snapshots/SnapshotList';
import { now, openPiece, press, pressed, quietStudio, type, undo } from './testing';

jest.mock('./studio/StudioProvider', () => jest.requireActual<typeof import('./testing')>('./testing').quietProvider);
jest.mock('@expo/vector-icons/Feather', () => () => null);

beforeEach(() => openPiece());

describe('sends', () => {
  const sends = (track: number) => now().tracks[track]!.sends;

  test('one is opened, taken before the fader, and taken away', () => {
    const { rerender } = render(<SendList channel="t0" />);
    press('button', 'Send to Space');
    rerender(<SendList channel="t0" />);
    press('switch', 'Send to Space before the fader');
    expect(sends(0)).toEqual([{ to: 'space', level: 0.5, pre: true }]);
    press('button', 'Remove send to Space');
    expect(sends(0)).toEqual([]);
  });

  test('all tracks get the same ones in one step', () => {
    const { rerender } = render(<SendList channel="t0" />);
    press('button', 'Send to Space');
    rerender(<SendList channel="t0" />);
    press('button', 'Copy the sends of Track 0 to other channels');
    press('button', 'All tracks');
    press('button', 'Copy to 1 channels');
    expect(sends(1)).toEqual(sends(0));
    undo();
    expect([sends(0).length, sends(1)]).toEqual([1, []]);
  });

  test('the matrix offers every track every return, and a return nothing that would lead back to itself', () => {
    render(<SendMatrix />);
    press('button', 'Send Track 1 to Space');
    expect(sends(1)).toHaveLength(1);
    expect(screen.queryByRole('button', { name: 'Send Space to Space' })).toBeNull();
  });

  test('without a return it says what one is for', () => {
    openPiece((piece) => ({ ...piece, returns: [] }));
    render(<SendMatrix />);
    expect(screen.getByText(/add a return, then send to it/)).toBeTruthy();
  });
});

describe('what is done with an effect', () => {
  const chain = () => now().tracks[0]!.chain;
  const show = (index = 0): void => {
    openPiece((piece) => ({
      ...piece,
      tracks: piece.tracks.map((track, i) =>
        i === 0 ? { ...track, chain: [newSlot('x', 'echo', 'neutral'), newSlot('y', 'filter', 'neutral')] } : track,
      ),
    }));
    render(<CardMenu channel="t0" slot={chain()[index]!} index={index} count={2} />);
    press('button', /^More for/);
  };

  test('the first can only move down, and does', () => {
    show(0);
    expect(screen.queryByRole('button', { name: 'Move up: Echo' })).toBeNull();
    press('button', 'Move down: Echo');
    expect(chain().map(({ effect }) => effect)).toEqual(['filter', 'echo']);
  });

  test('it is duplicated beside itself, copied to another channel, and removed', () => {
    show(1);
    press('button', 'Duplicate: Filter');
    expect(chain().map(({ effect }) => effect)).toEqual(['echo', 'filter', 'filter']);
    press('button', /^More for/);
    press('button', 'Copy to channels: Filter');
    press('switch', 'Copy to Space');
    press('switch', /^Copy to [Mm]ain/);
    press('button', 'Copy to 2 channels');
    expect(now().returns[0]!.chain.map(({ effect }) => effect)).toEqual(['reverb', 'filter']);
    expect(now().main.chain.at(-1)!.effect).toBe('filter');
    press('button', /^More for/);
    press('button', 'Remove: Filter');
    expect(chain().map(({ effect }) => effect)).toEqual(['echo', 'filter']);
    for (let i = 0; i < 3; i += 1) undo();
    expect([chain().length, now().returns[0]!.chain.length]).toEqual([2, 1]);
  });
});

test('a track is named anew, and removed with all that is its own; one undo brings it back', async () => {
  const before = now();
  render(<ChannelMenu channel="t1" />);
  press('button', 'More for Track 1, track');
  type('Name of the track', 'Voice');
  await pressed('button', 'Rename');
  expect(now().tracks[1]!.name).toBe('Voice');
  press('button', 'More for Voice, track');
  press('button', 'Remove the track');
  expect(now().tracks.map(({ id }) => id)).toEqual(['t0']);
  undo();
  undo();
  expect(now()).toEqual(before);
});

describe('a link', () => {
  const lfo: Modulator = {
    id: 'm',
    name: 'Tide',
    kind: 'lfo',
    rate: 1,
    shape: 'sine',
    phase: 0,
    roll: 1,
  };
  const linked = (piece: Piece): Piece => ({
    ...piece,
    modulators: [lfo],
    links: [{ id: 'l', modulator: 'm', target: { kind: 'channel', channel: 't0', param: 'pan' }, depth: 0.5 }],
  });
  const show = () => {
    openPiece(linked);
    return render(<LinkCard link={now().links[0]!} />);
  };

  test('turns in another way: drawn, by steps, after another track', () => {
    const { rerender } = show();
    const again = (): void => rerender(<LinkCard link={now().links[0]!} />);
    press('radio', 'Tide: Steps');
    again();
    press('switch', 'Tide runs once');
    expect(now().modulators[0]).toMatchObject({ kind: 'steps', onceFrom: 0 });
    press('radio', 'Tide: Follower');
    again();
    press('radio', 'Tide follows Track 1');
    expect(now().modulators[0]).toMatchObject({ kind: 'follower', follows: 't1' });
  });

  test('is named, written down as moves where it rests then, and removed', async () => {
    const { rerender } = show();
    press('button', 'Rename Tide');
    type('Name of what turns', 'Ebb');
    await pressed('button', 'Rename');
    expect(now().modulators[0]!.name).toBe('Ebb');
    rerender(<LinkCard link={now().links[0]!} />);
    await pressed('button', 'Write the links of Pan as moves');
    expect(now().lanes).toMatchObject([{ target: { channel: 't0', param: 'pan' } }]);
    expect(now().lanes[0]!.points.length).toBeGreaterThan(4);
    undo();
    press('button', 'Remove Ebb from Pan');
    expect(now().links).toEqual([]);
  });

  test('written for a stretch alone it leaves the rest to the link', async () => {
    openPiece(linked);
    useView.setState({ range: { start: 4, end: 8 } });
    render(<LinkCard link={now().links[0]!} />);
    await pressed('button', 'Write the links of Pan as moves');
    const [lane] = now().lanes;
    expect(lane!.points.every(({ beat }) => beat >= 3.9 && beat <= 8.1)).toBe(true);
    expect(now().links).toHaveLength(1);
  });
});

test('a snapshot is taken under a name, gone to as chosen, and let go', async () => {
  const { rerender } = render(<SnapshotList channel="t0" />);
  type('Name of the snapshot', 'Low water');
  await pressed('button', 'Take');
  expect(now().snapshots).toMatchObject([{ name: 'Low water', channel: 't0' }]);
  rerender(<SnapshotList channel="t0" />);
  press('radio', 'Begins: next beat');
  press('radio', 'Takes: 2 bars');
  press('switch', 'Write as moves');
  press('button', 'Go to Low water');
  expect(quietStudio.studio.morph.start).toHaveBeenCalledWith({
    snapshot: now().snapshots[0],
    gridBeats: 1,
    overBeats: 8,
    asMoves: true,
  });
  press('button', 'Let go of Low water');
  expect(now().snapshots).toEqual([]);
});

import { act, cleanup, createEvent, fireEvent, render, screen } from '@testing-library/react';
import { newSlot } from '../core/piece/edits/chain';
import { laneOf } from '../core/piece/testing';
import { useOpenPiece } from '../data/openPiece';
import { useView } from '../data/view';
import { StretchTools } from './moves/StretchTools';
import { EmptyLane } from './piece/EmptyLane';
import { SelectionBar } from './piece/SelectionBar';
import {
  chooseChannel,
  chooseClip,
  chooseEffect,
  copySelection,
  cutSelection,
  duplicateSelection,
  moveSelection,
  nudgeClip,
  paste,
  removeSelection,
} from './shared/commands/selection';
import { now, openPiece, press, quietStudio, undo } from './testing';

jest.mock('./studio/StudioProvider', () => jest.requireActual<typeof import('./testing')>('./testing').quietProvider);
jest.mock('./shared/throws/useHits', () => ({ useHits: () => [], useClipHits: () => ({ own: [], others: [] }) }));
jest.mock('@expo/vector-icons/Feather', () => () => null);

const show = (view: 'piece' | 'chain' | 'moves'): void =>
  history.replaceState(null, '', view === 'piece' ? '/piece/p' : `/piece/p/${view}`);
const choose = (chosen: Partial<ReturnType<typeof useView.getState>>): void => {
  act(() => useView.setState(chosen));
};
const starts = (track: number): number[] => now().tracks[track]!.clips.map(({ start }) => start);
const effects = (): string[] => now().tracks[0]!.chain.map(({ effect }) => effect);
const said = (): string | null => useOpenPiece.getState().notice;

beforeEach(() => {
  show('piece');
  openPiece((piece) => ({
    ...piece,
    tracks: piece.tracks.map((track, i) =>
      i === 0 ? { ...track, chain: [...track.chain, newSlot('e', 'echo', 'neutral')] } : track,
    ),
  }));
});

describe('the chosen clip, by keys', () => {
  beforeEach(() => choose({ clip: 'a' }));

  test('is copied, pasted on the track in view, duplicated, moved and removed', () => {
    expect(copySelection()).toBe(true);
    expect(said()).toContain('“Hum” is copied');
    choose({ channel: 't1' });
    paste(8);
    expect(starts(1)).toEqual([8]);
    // The pasted one is chosen now; it is two beats long.
    duplicateSelection();
    expect(starts(1)).toEqual([8, 10]);
    nudgeClip(-20);
    expect(starts(1)).toEqual([8, 0]);
    removeSelection();
    expect(starts(1)).toEqual([8]);
    expect(useOpenPiece.getState().noticeAction?.label).toBe('Undo');
  });

  test('is cut, and can be pasted after it is gone', () => {
    cutSelection();
    expect(starts(0)).toEqual([]);
    paste(12);
    expect(starts(0)).toEqual([12]);
  });

  test('is chosen one after another, as far as there are', () => {
    duplicateSelection();
    const ids = now().tracks[0]!.clips.map(({ id }) => id);
    choose({ clip: null });
    for (const [way, at] of [
      [1, 0],
      [1, 1],
      [1, 1],
      [-1, 0],
    ] as const) {
      chooseClip(way);
      expect(useView.getState().clip).toBe(ids[at]);
    }
  });
});

describe('what keys are meant for', () => {
  test('in Chain it is the open effect, whatever clip was chosen elsewhere', () => {
    show('chain');
    choose({ clip: 'a', slot: 'c' });
    duplicateSelection();
    expect(effects()).toEqual(['compressor', 'compressor', 'echo']);
    removeSelection();
    expect(effects()).toEqual(['compressor', 'echo']);
    expect(starts(0)).toEqual([4]);
    choose({ slot: 'e' });
    expect(copySelection()).toBe(true);
    paste(0);
    expect(effects()).toEqual(['compressor', 'echo', 'echo']);
  });

  test('an effect is opened and moved within its chain by arrows, no further than its ends', () => {
    show('chain');
    chooseEffect(1);
    expect(useView.getState().slot).toBe('c');
    chooseEffect(1);
    chooseEffect(1);
    expect(useView.getState().slot).toBe('e');
    moveSelection(1);
    expect(effects()).toEqual(['compressor', 'echo']);
    moveSelection(-1);
    expect(effects()).toEqual(['echo', 'compressor']);
    choose({ slot: null });
    moveSelection(-1);
    expect(said()).toContain('No effect is open');
  });

  test('a track is moved among tracks; a return is not', () => {
    moveSelection(1);
    expect(now().tracks.map(({ id }) => id)).toEqual(['t1', 't0']);
    moveSelection(1);
    expect(now().tracks.map(({ id }) => id)).toEqual(['t1', 't0']);
    chooseChannel(1);
    expect(useView.getState().channel).toBe('space');
    moveSelection(-1);
    expect(said()).toContain('Only tracks have an order');
  });

  test('nothing is removed where nothing is chosen', () => {
    const before = now();
    removeSelection();
    expect(said()).toContain('Nothing is chosen');
    expect(copySelection()).toBe(false);
    expect(now()).toEqual(before);
  });
});

describe('a stretch beside a clip', () => {
  const range = { start: 4.5, end: 5.5 };

  test('is meant when it was chosen last; the clip is again by a tap, or when it is chosen', () => {
    choose({ clip: 'a' });
    choose({ range });
    removeSelection();
    expect(now().tracks[0]!.clips.map(({ start, lengthSeconds }) => [start, lengthSeconds])).toEqual([
      [4, 0.25],
      [5.5, 0.25],
    ]);
    undo();
    choose({ clip: null });
    choose({ clip: 'a' });
    removeSelection();
    expect(starts(0)).toEqual([]);
  });

  test('has tools of its own, behind a switch', () => {
    choose({ clip: 'a', range });
    render(<SelectionBar />);
    expect(screen.getByRole('button', { name: 'Loop this' })).toBeTruthy();
    press('radio', 'clip');
    expect(screen.queryByRole('button', { name: 'Loop this' })).toBeNull();
    expect(screen.getByRole('button', { name: 'Remove the clip' })).toBeTruthy();
    act(removeSelection);
    expect(starts(0)).toEqual([]);
  });

  test('is copied, pasted, repeated over and over, and says where nothing sounds', () => {
    choose({ range });
    copySelection();
    paste(20);
    expect(starts(0)).toEqual([4, 20]);
    duplicateSelection();
    duplicateSelection();
    expect(starts(0)).toEqual([4, 20, 5.5, 6.5]);
    // The copies are of the same half second, in the place of what sounded there.
    expect(
      new Set(
        now()
          .tracks[0]!.clips.slice(1)
          .map(({ offsetSeconds }) => offsetSeconds),
      ),
    ).toEqual(new Set([0.75]));
    expect(useView.getState().range).toEqual({ start: 6.5, end: 7.5 });
    choose({ range: { start: 28, end: 30 } });
    expect(copySelection()).toBe(false);
    expect(said()).toContain('No clip');
    removeSelection();
    choose({ channel: 'space' });
    expect(copySelection()).toBe(false);
  });

  test('of moves is left to the lanes in view, and says so where there are none', () => {
    show('moves');
    choose({ range });
    for (const use of [copySelection, removeSelection, duplicateSelection]) {
      use();
      expect(said()).toContain('no moves in view');
    }
  });
});

describe('a stretch of moves', () => {
  const levels = (): number[] => now().lanes[0]!.points.map(({ value }) => value);
  /** What the tools of a stretch show, for the lane as it is now. */
  const Tools = () => {
    const lanes = useOpenPiece((state) => state.piece!.lanes);
    const range = useView((view) => view.range)!;
    return <StretchTools lane={lanes[0]!} lanes={lanes} range={range} />;
  };
  beforeEach(() => {
    openPiece((piece) => ({
      ...piece,
      lanes: [
        laneOf('t0', null, 'pan', [
          [0, 0],
          [2, 1],
          [4, 0],
        ]),
      ],
    }));
    show('moves');
    choose({ range: { start: 0, end: 4 } });
    render(<Tools />);
  });

  test('that its button copied is what the key pastes, whatever clip was copied before', () => {
    show('piece');
    choose({ clip: 'a', rangeInFront: false });
    copySelection();
    show('moves');
    press('button', 'Copy moves');
    quietStudio.studio.beat = 8;
    act(() => paste(8));
    quietStudio.studio.beat = 0;
    expect(starts(0)).toEqual([4]);
    expect(
      Math.max(
        ...now()
          .lanes[0]!.points.filter(({ beat }) => beat > 8)
          .map(({ value }) => value),
      ),
    ).toBe(1);
    expect(said()).toBe('Pasted from bar 3 on');
  });

  test('is copied, repeated and cleared by keys, and goes on where it was repeated', () => {
    act(() => void copySelection());
    expect(said()).toContain('The moves are copied');
    act(duplicateSelection);
    expect(useView.getState().range).toEqual({ start: 4, end: 8 });
    act(duplicateSelection);
    expect(levels().filter((value) => value === 1)).toHaveLength(3);
    act(removeSelection);
    expect(levels().filter((value) => value === 1)).toHaveLength(2);
  });

  test('cannot be pasted where no stretch of a lane is chosen, which is said', () => {
    act(() => void copySelection());
    cleanup();
    paste(8);
    expect(said()).toContain('where a stretch of a lane is chosen');
  });
});

test.each([
  ['clip', { clip: 'a' }, '“Hum”', 6],
  ['stretch', { range: { start: 4.5, end: 5.5 } }, 'The copied stretch', 6],
] as const)(
  'an empty place of a track chooses it and offers to paste the copied %s there',
  (_kind, chosen, name, at) => {
    choose(chosen);
    copySelection();
    const { container } = render(<EmptyLane track={now().tracks[1]!} pxPerBeat={10} />);
    const lane = container.querySelector('[aria-hidden=true]')!;
    const tap = createEvent.click(lane);
    // The page that stands in for a browser has no page coordinates.
    Object.defineProperty(tap, 'pageX', { value: 62 });
    fireEvent(lane, tap);
    expect(useView.getState()).toMatchObject({ channel: 't1', clip: null });
    const { notice, noticeAction } = useOpenPiece.getState();
    expect(notice).toBe(`${name} can be pasted at 2.3 on ${now().tracks[1]!.name}.`);
    act(() => noticeAction!.act());
    expect(starts(1)).toEqual([at]);
  },
);

import { act, render, screen } from '@testing-library/react';
import type { Hit } from '../core/piece/moves/throws';
import type { Clip, Lane, Piece, PrintOrder } from '../core/piece/piece';
import { useClipboard } from '../data/clipboard';
import { useRecording } from '../data/recording';
import { useView } from '../data/view';
import { PointTools } from './moves/PointTools';
import { ModeButton } from './moves/ModeButton';
import { ShowButton } from './moves/ShowButton';
import { StretchTools } from './moves/StretchTools';
import { SelectionBar } from './piece/SelectionBar';
import { print } from './studio/printing';
import { key, now, openPiece, press, pressed, quietStudio, type, undo } from './testing';
import { ThrowSheet } from './shared/throws/ThrowSheet';

const mockHits: readonly Hit[] = [4, 4.5, 5, 7].map((beat) => ({ beat, strength: 0.5, centroidHz: 900 }));

jest.mock('./studio/StudioProvider', () => jest.requireActual<typeof import('./testing')>('./testing').quietProvider);
jest.mock('./shared/throws/useHits', () => ({ useHits: () => mockHits, useClipHits: () => ({ own: [], others: [] }) }));
jest.mock('./studio/printing', () => ({ print: jest.fn() }));
jest.mock('@expo/vector-icons/Feather', () => () => null);

beforeEach(() => {
  jest.mocked(print).mockClear();
  openPiece();
});

const clip = (): Clip => now().tracks[0]!.clips[0]!;

describe('the chosen clip', () => {
  beforeEach(() => {
    useView.setState({ clip: 'a' });
    render(<SelectionBar />);
  });

  test('is nudged from a bar down to a millisecond, and no further than the beginning', () => {
    press('button', 'A beat later');
    expect(clip().start).toBe(5);
    press('button', 'Nudges by a beat. Change');
    press('button', '1/16 earlier');
    expect(clip().start).toBe(4.75);
    press('button', 'Nudges by 1/16. Change');
    press('button', '10 ms later');
    expect(clip().start).toBeCloseTo(4.75 + 0.02, 9);
    for (const step of ['10 ms', '1 ms']) press('button', `Nudges by ${step}. Change`);
    press('button', 'A bar earlier');
    press('button', 'A bar earlier');
    expect(clip().start).toBe(0);
  });

  test('has its edges nudged as far as its sound reaches', () => {
    press('button', 'Nudges the clip. Change');
    press('button', 'A beat earlier, the start');
    // Half a second of sound lay before it: a beat at 120 a minute.
    expect(clip()).toMatchObject({ start: 3, offsetSeconds: 0, lengthSeconds: 1.5 });
    press('button', 'Nudges the start. Change');
    press('button', 'A beat later, the end');
    press('button', 'A beat later, the end');
    expect(clip()).toMatchObject({ start: 3, lengthSeconds: 2 });
  });

  test('is copied, repeated, muted, reversed, and removed; as many undos bring it back', () => {
    const before = now();
    press('button', 'Copy the clip after itself');
    expect(now().tracks[0]!.clips.map(({ start }) => start)).toEqual([4, 6]);
    act(() => useView.setState({ clip: 'a' }));
    press('switch', 'Reversed');
    press('switch', 'Mute the clip');
    expect(clip()).toMatchObject({ reversed: true, mute: true });
    press('button', 'Repeat the clip four times');
    expect(now().tracks[0]!.clips).toHaveLength(6);
    press('button', 'Remove the clip');
    expect(now().tracks[0]!.clips).toHaveLength(5);
    for (let i = 0; i < 5; i += 1) undo();
    expect(now()).toEqual(before);
  });

  test('is cut where the playhead stands, and says where that has to be', () => {
    press('button', 'Split at the playhead');
    expect(now().tracks[0]!.clips).toHaveLength(1);
    quietStudio.studio.beat = 5;
    press('button', 'Split at the playhead');
    quietStudio.studio.beat = 0;
    expect(now().tracks[0]!.clips.map(({ start, lengthSeconds }) => [start, lengthSeconds])).toEqual([
      [4, 0.5],
      [5, 0.5],
    ]);
  });

  test('is faded and made louder by rails', () => {
    press('switch', 'Level, fades and slip');
    key('slider', 'Clip level', 'ArrowRight');
    expect(clip().gain).toBeGreaterThan(1);
    key('slider', 'Fade in', 'End');
    expect(clip().fadeInSeconds).toBeCloseTo(1, 6);
    press('radio', 'Fade in: equal power');
    expect(clip().fadeInShape).toBe('power');
  });
});

describe('a print', () => {
  const asked = (): PrintOrder[] => jest.mocked(print).mock.calls.map(([, order]) => order);
  const show = async (view: Partial<ReturnType<typeof useView.getState>>): Promise<void> => {
    quietStudio.studio.clipPrint.mockReturnValue({ fromBeat: 4, toBeat: 6 });
    useView.setState(view);
    render(<SelectionBar />);
    press('button', 'Print');
    await screen.findByRole('button', { name: 'Start the print' });
  };

  test('of a clip: wet, until silent, to the Shelf, unless something else is chosen', async () => {
    await show({ clip: 'a' });
    await pressed('button', 'Start the print');
    expect(asked()).toEqual([{ channel: 't0', clip: 'a', fromBeat: 4, toBeat: 6, part: 'wet', tailBars: null }]);
  });

  test('both parts apart, for two bars, instead of the clip', async () => {
    await show({ clip: 'a' });
    for (const name of ['Both, each by itself', 'Rings: 2 bars', 'Goes there, instead of the clip'])
      press('radio', name);
    await pressed('button', 'Start the print');
    expect(asked()).toMatchObject([
      { part: 'wet', tailBars: 2, goes: 'instead' },
      { part: 'dry', tailBars: 2, goes: 'instead' },
    ]);
  });

  test('of picked hits goes from the first of them to where the last ends; there is no clip to stand in for', async () => {
    await show({ clip: 'a' });
    press('radio', 'Goes there, instead of the clip');
    press('radio', 'Print only picked hits');
    press('switch', /^Print the hit at bar 2, beat 1\.50/);
    press('switch', /^Print the hit at bar 2, beat 2\.00/);
    press('radio', 'Rings: to the next hit');
    await pressed('button', 'Start the print');
    expect(asked()).toMatchObject([
      {
        fromBeat: 4.5,
        toBeat: 6,
        untilBeat: 7,
        hits: [
          { from: 4.5, to: 5 },
          { from: 5, to: 6 },
        ],
        goes: 'track',
      },
    ]);
  });

  test('of a stretch may take everything, or a return; without effects it is the plain sound', async () => {
    await show({ range: { start: 8, end: 16 } });
    press('switch', 'Through Compressor');
    expect(screen.getByText(/the print will be the plain sound/)).toBeTruthy();
    press('radio', 'Print everything');
    await pressed('button', 'Start the print');
    expect(asked()).toMatchObject([{ channel: 'main', clip: null, fromBeat: 8, toBeat: 16 }]);
  });
});

describe('moves', () => {
  const lane = (id: string, param: string, points: readonly (readonly [number, number])[]): Lane => ({
    id,
    target: { kind: 'channel', channel: 't0', param },
    unit: 'own',
    on: true,
    points: points.map(([beat, value]) => ({ beat, value, shape: 'line', bend: 0 })),
  });
  const two = (piece: Piece): Piece => ({
    ...piece,
    lanes: [
      lane('p', 'pan', [
        [0, -1],
        [8, 1],
      ]),
      lane('g', 'gain', [
        [0, 1],
        [8, 0.5],
      ]),
    ],
  });
  const pan = () => now().lanes.find(({ id }) => id === 'p')!;
  beforeEach(() => openPiece(two));

  test('a point takes another shape after it, another value by typing, and is removed', () => {
    const { rerender } = render(<PointTools lane={pan()} chosen={0} onChoose={() => undefined} />);
    const again = (): void => rerender(<PointTools lane={pan()} chosen={0} onChoose={() => undefined} />);
    press('button', 'Shape after this point: line. Change');
    again();
    press('button', 'Shape after this point: hold. Change');
    expect(pan().points[0]).toMatchObject({ shape: 'curve', bend: 0.6 });
    press('switch', 'Follow these moves');
    again();
    press('switch', 'Travels with clips');
    expect(pan()).toMatchObject({ on: false, travels: true });
    again();
    press('button', 'All lanes with clips');
    expect(now().lanes.map(({ travels }) => travels)).toEqual([true, true]);
    press('button', 'Remove this point');
    expect(pan().points).toHaveLength(1);
    press('button', 'Remove these moves');
    expect(now().lanes.map(({ id }) => id)).toEqual(['g']);
  });

  test('a stretch of all lanes is copied, pasted at the playhead, flipped and cleared', () => {
    useView.setState({ range: { start: 0, end: 4 } });
    render(<StretchTools lane={pan()} lanes={now().lanes} range={{ start: 0, end: 4 }} />);
    press('switch', 'All lanes of this channel');
    press('button', 'Copy moves');
    expect(useClipboard.getState().clipboard).toHaveLength(2);
    quietStudio.studio.beat = 16;
    press('button', 'Paste moves at the playhead');
    quietStudio.studio.beat = 0;
    const pasted = pan().points.filter(({ beat }) => beat >= 16 && beat <= 20);
    expect([pasted[0], pasted[pasted.length - 1]]).toMatchObject([{ beat: 16, value: -1 }, { value: 0 }]);
    undo();
    press('button', 'Flip in value: moves in the stretch');
    // It went from -1 to 0.
    expect(pan().points[0]!.value).toBeCloseTo(0, 6);
    press('button', 'Clear moves in the stretch');
    expect(pan().points.filter(({ beat }) => beat > 0.1 && beat < 3.9)).toEqual([]);
  });

  test('a stretch is nudged with its own range, and made half as fast', () => {
    useView.setState({ range: { start: 0, end: 4 }, snap: { kind: 'grid', beats: 1 } });
    const { rerender } = render(<StretchTools lane={pan()} lanes={[pan()]} range={{ start: 0, end: 4 }} />);
    press('button', 'Later: moves in the stretch');
    expect(useView.getState().range).toEqual({ start: 1, end: 5 });
    rerender(<StretchTools lane={pan()} lanes={[pan()]} range={{ start: 1, end: 5 }} />);
    press('button', 'Half as fast: moves in the stretch');
    expect(useView.getState().range).toEqual({ start: 1, end: 9 });
  });

  test('lanes are chosen for view, folded, and cleared at once', () => {
    const { rerender } = render(<ShowButton channel="t0" lanes={now().lanes} shown={2} />);
    press('button', /^Lanes in view: all, 2 of 2/);
    press('radio', /^Chosen:/);
    press('switch', /Pan in view/);
    expect(useView.getState()).toMatchObject({ lanesShown: 'chosen', chosenLanes: ['g'] });
    press('button', 'Fold all lanes');
    expect(useView.getState().foldedLanes).toEqual(['p', 'g']);
    press('button', 'Clear all moves of Track 0');
    expect(now().lanes).toEqual([]);
    rerender(<ShowButton channel="t0" lanes={[]} shown={0} />);
    undo();
    expect(now().lanes).toHaveLength(2);
  });

  test('how they are recorded is chosen for one channel or for all, and within a stretch alone', () => {
    useView.setState({ range: { start: 4, end: 8 } });
    render(<ModeButton channel="t0" />);
    press('button', 'Recording of Track 0: touch. Change');
    press('radio', /^Latch/);
    expect(useRecording.getState()).toMatchObject({ mode: 'latch', modes: {} });
    press('switch', 'The same for every channel');
    press('radio', /^Write/);
    expect(useRecording.getState()).toMatchObject({ mode: 'latch', modes: { t0: 'write' } });
    press('switch', 'Record within the stretch alone');
    expect(useRecording.getState().punch).toEqual({ start: 4, end: 8 });
  });
});

describe('throws', () => {
  test('picked hits open the send, as long and as far as was asked', () => {
    const done = jest.fn();
    render(<ThrowSheet channel="t0" onClose={done} />);
    press('button', 'Pick before a gap');
    press('button', 'Throw 2 hits');
    expect(done).toHaveBeenCalled();
    const [lane] = now().lanes;
    expect(lane!.target).toEqual({ kind: 'send', channel: 't0', to: 'space' });
    const open = lane!.points.filter(({ value }) => value > 0.5).map(({ beat }) => beat);
    expect(open[0]).toBeCloseTo(5 - 1 / 16, 6);
    expect(open[open.length - 1]).toBeCloseTo(7.5, 6);
    undo();
    expect(now().lanes).toEqual([]);
  });

  test('without a return there is nowhere to throw, and it says so', () => {
    openPiece((piece) => ({ ...piece, returns: [] }));
    render(<ThrowSheet channel="t0" onClose={() => undefined} />);
    expect(screen.getByText(/needs a return to go to/)).toBeTruthy();
  });
});

test('a stretch becomes a section under its name', async () => {
  useView.setState({ range: { start: 8, end: 16 } });
  render(<SelectionBar />);
  press('button', 'Sections of the piece');
  type('Name of the section at bar 3', 'Ebb');
  await pressed('button', 'Put the section there');
  expect(now().sections).toMatchObject([{ name: 'Ebb', beat: 8 }]);
  press('button', 'Loop this');
  expect(now().loop).toEqual({ on: true, start: 8, end: 16 });
});

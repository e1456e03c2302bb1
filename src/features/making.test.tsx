import { act, render, screen } from '@testing-library/react';
import { echoParams } from '../core/effects/echo/params';
import type { Hit } from '../core/piece/moves/throws';
import { newSlot } from '../core/piece/edits/chain';
import { useView } from '../data/view';
import { useOpenPiece } from '../data/openPiece';
import { BraidStrands } from './chain/BraidStrands';
import { EffectPicker } from './shared/channels/EffectChoices';
import { TimeTools } from './chain/TimeTools';
import { GapButton } from './shared/recipes/GapButton';
import { RecipeSheet } from './shared/recipes/RecipeSheet';
import { SwellSheet } from './shared/recipes/SwellSheet';
import { hearSwell, makeSwells } from './shared/recipes/swells';
import { now, openPiece, press, pressed, quietHand, quietStudio, type, undo } from './testing';
import { treat } from './shared/treat/treatClips';
import { TreatSheet } from './shared/treat/TreatSheet';

const mockHits: readonly Hit[] = [2, 4, 5, 8].map((beat) => ({ beat, strength: 0.6, centroidHz: 900 }));

jest.mock('./studio/StudioProvider', () => jest.requireActual<typeof import('./testing')>('./testing').quietProvider);
jest.mock('./shared/throws/useHits', () => ({ useHits: () => mockHits }));
jest.mock('./studio/usePreview', () => ({ usePreview: () => ({ sounding: false, hear: jest.fn(), stop: jest.fn() }) }));
jest.mock('./shared/recipes/swells', () => ({ hearSwell: jest.fn(), makeSwells: jest.fn() }));
jest.mock('./shared/treat/treatClips', () => ({ treat: jest.fn(), renderSteps: jest.fn() }));
jest.mock('../audio/loads', () => ({ measureLoads: () => () => undefined }));
jest.mock('@expo/vector-icons/Feather', () => () => null);

beforeEach(() => {
  jest.clearAllMocks();
  openPiece();
});

describe('treating a clip', () => {
  const clip = () => now().tracks[0]!.clips[0]!;
  const show = (): void =>
    void render(<TreatSheet clip={clip()} track={now().tracks[0]!} visible onClose={() => undefined} />);
  const asked = () => jest.mocked(treat).mock.calls[0]!;

  test('by steps in their order, for it alone; the whole of its sound on request', async () => {
    jest.mocked(treat).mockResolvedValue(true);
    show();
    expect(screen.queryByRole('switch', { name: 'Treat the whole sound' })).toBeNull();
    press('button', 'Add pitch and length');
    press('button', 'Add the effects of this track');
    press('button', 'Step 2 earlier');
    press('switch', 'Treat the whole sound');
    await act(async () => press('button', 'Treat this clip'));
    const [, , clips, steps, whole] = asked();
    expect([clips.map(({ id }) => id), steps.map(({ kind }) => kind), whole]).toEqual([
      ['a'],
      ['chain', 'stretch'],
      true,
    ]);
    expect(useOpenPiece.getState().notice).toMatch(/^Hum treated\. The source is untouched/);
  });

  test('or for every clip of its sound; what fails says so and changes nothing', async () => {
    openPiece((piece) => ({
      ...piece,
      tracks: piece.tracks.map((track, i) =>
        i === 1 ? { ...track, clips: [{ ...piece.tracks[0]!.clips[0]!, id: 'b', start: 8 }] } : track,
      ),
    }));
    jest.mocked(treat).mockRejectedValue(new Error('The sound of that clip has not come yet.'));
    show();
    press('button', 'Add pitch and length');
    await act(async () => press('button', 'Treat every clip of this sound, 2'));
    expect(asked()[2].map(({ id }) => id)).toEqual(['a', 'b']);
    expect(screen.getByRole('alert').textContent).toBe('The sound of that clip has not come yet. Nothing was changed.');
  });

  test('that makes it ring on for longer says by how much, and ends it where it ended before, faded', async () => {
    jest.mocked(treat).mockImplementation(async (_studio, piece) => {
      const tracks = piece.tracks.map((track) => ({
        ...track,
        clips: track.clips.map((one) => ({ ...one, lengthSeconds: one.lengthSeconds + 2 })),
      }));
      useOpenPiece.setState({ piece: { ...piece, tracks } });
      return true;
    });
    const { lengthSeconds } = clip();
    show();
    press('button', 'Add pitch and length');
    await act(async () => press('button', 'Treat this clip'));
    const { notice, noticeAction } = useOpenPiece.getState();
    expect(notice).toMatch(/^Hum treated\. It rings on for up to 2\.0 s longer than before\./);
    expect(noticeAction?.label).toBe('Fade at the old end');
    noticeAction!.act();
    expect(clip()).toMatchObject({ lengthSeconds, fadeOutSeconds: Math.min(0.5, lengthSeconds / 2) });
  });

  test('an effect is found by its purpose', () => {
    show();
    press('button', 'Add an effect');
    type('Search effects and purposes', 'red iron');
    press('button', 'Treat with Drive: Red iron');
    expect(screen.getByRole('button', { name: 'Fold step 1' })).toBeTruthy();
  });
});

describe('swells', () => {
  const show = (): void => void render(<SwellSheet track={now().tracks[0]!} visible onClose={() => undefined} />);

  test('grow into picked hits, with what was chosen', async () => {
    jest.mocked(makeSwells).mockResolvedValue(1);
    show();
    press('switch', /^Swell into the hit at bar 2, beat 1\.00/);
    press('radio', '2 bars');
    press('radio', 'plate');
    press('switch', 'Clear of every hit');
    await act(async () => press('button', 'Make 1 swell'));
    const [, , , sources, settings] = jest.mocked(makeSwells).mock.calls[0]!;
    expect([sources.map(({ beat }) => beat), settings]).toEqual([
      [4],
      { length: { bars: 2 }, space: 'plate', highCutHz: 9000, level: 0.7 },
    ]);
    expect(useOpenPiece.getState().notice).toBe('1 swell made, on a track of its own.');
  });

  test('without room for any it says so, heard or made', async () => {
    jest.mocked(makeSwells).mockResolvedValue(0);
    jest.mocked(hearSwell).mockResolvedValue(null);
    show();
    press('button', 'Pick those after a gap');
    await act(async () => press('button', 'Hear the first swell'));
    expect(screen.getByRole('alert').textContent).toMatch(/leaves no room/);
    await act(async () => press('button', /^Make \d swells?/));
    expect(screen.getByRole('alert').textContent).toMatch(/Nothing was changed/);
  });

  test('are surprised, and what was liked comes back', () => {
    show();
    const cut = (): string | null => screen.getByRole('slider', { name: 'High cut' }).getAttribute('aria-valuetext');
    press('button', 'Surprise me');
    const liked = cut();
    press('button', 'Keep this variation');
    press('button', 'As it was at first');
    press('button', 'Kept variation 1');
    expect(cut()).toBe(liked);
  });
});

test('a recipe opens at once where one is asked for, and lists the others from there', () => {
  render(
    <RecipeSheet
      track={now().tracks[0]!}
      range={{ start: 8, end: 12 }}
      where="3.1 to 4.1"
      first="bed"
      visible
      onClose={() => undefined}
    />,
  );
  expect(screen.getByRole('dialog', { name: 'Frozen bed, 3.1 to 4.1' })).toBeTruthy();
  press('button', 'Back to all recipes');
  press('button', 'Riser …');
  press('radio', 'the track');
  expect(screen.getByRole('button', { name: 'Make Riser' }).getAttribute('aria-disabled')).not.toBe('true');
});

test('gaps are listed by who rests, chosen as a stretch, and heard from a little before', () => {
  render(<GapButton />);
  press('button', 'Gaps of the piece');
  press('button', 'Hear the gap 2.3 to 9.1, Nothing sounds');
  expect(quietStudio.studio.locate).toHaveBeenCalledWith(4);
  press('button', /^Choose the gap 2\.3 to 9\.1, Track 0/);
  expect(useView.getState()).toMatchObject({ range: { start: 6, end: 32 }, channel: 't0' });
});

describe('effects', () => {
  test('are found by family and words; nothing found is said', () => {
    const onPick = jest.fn();
    render(<EffectPicker verb="Add" onPick={onPick} />);
    press('radio', 'Family: reverb');
    expect(screen.queryByRole('button', { name: /^(Fold|Unfold) Echo/ })).toBeNull();
    type('Search effects and purposes', 'xyzzy');
    expect(screen.getByText(/Nothing is called or made for that/)).toBeTruthy();
    press('radio', 'Family: all');
    type('Search effects and purposes', 'across the water');
    press('button', 'Add Echo: Call across the water');
    expect(onPick).toHaveBeenCalledWith('echo', 'callAcross');
  });

  test('a time is halved, doubled, and taken dotted from the nearest note', () => {
    const target = { kind: 'effect' as const, channel: 't0', effect: 'e', param: 'timeL' };
    render(<TimeTools spoken="Time" param={echoParams.timeL} value={500} target={target} />);
    expect(screen.getByText(/500/)).toBeTruthy();
    press('button', 'Time: half');
    press('button', 'Time: double');
    press('radio', 'Time: dotted');
    expect(quietHand.release.mock.calls.map(([value]) => value)).toEqual([250, 1000, '1/4d']);
  });

  test('a braid gets another strand, renames one, and keeps the last', async () => {
    openPiece((piece) => ({
      ...piece,
      tracks: piece.tracks.map((track, i) =>
        i === 0 ? { ...track, chain: [newSlot('b', 'braid', 'neutral')] } : track,
      ),
    }));
    const braid = () => now().tracks[0]!.chain[0]!;
    const show = () => <BraidStrands channel="t0" slot={braid()} renderChain={() => null} />;
    const { rerender } = render(show());
    const strands = braid().strands!.length;
    press('button', 'Lay another strand');
    rerender(show());
    press('button', `More for strand Strand ${strands + 1}`);
    type('Name of the strand', 'Deep');
    await pressed('button', 'Rename');
    expect(braid().strands!.map(({ name }) => name)).toContain('Deep');
    rerender(show());
    while (braid().strands!.length > 1) {
      press('button', `More for strand ${braid().strands![0]!.name}`);
      press('button', /^Take out strand/);
      rerender(show());
    }
    press('button', /^More for strand/);
    expect(screen.getByText('A braid keeps one strand at least.')).toBeTruthy();
    undo();
    expect(braid().strands).toHaveLength(2);
  });
});

import { echoSlot, hashOf, RATE } from '../core/piece/testing';
import { act, fireEvent, render, screen } from '@testing-library/react';
import { addEffect } from '../core/piece/edits/chain';
import { renameTrack, setChannelParam } from '../core/piece/edits/channels';
import type { TreatStep } from '../core/piece/piece';
import type { ExportOrder } from '../core/files/order';
import { useOpenPiece } from '../data/openPiece';
import { useView } from '../data/view';
import { SideTrack } from './chain/SideTrack';
import { HistoryButton } from './piece/HistoryButton';
import { SectionButton } from './piece/SectionButton';
import { RecipeSheet } from './shared/recipes/RecipeSheet';
import { ExportForm } from './shared/files/ExportForm';
import { now, openPiece, press, pressed, type } from './testing';
import { StepCard } from './shared/treat/StepCard';

jest.mock('./studio/StudioProvider', () => jest.requireActual<typeof import('./testing')>('./testing').quietProvider);
jest.mock('@expo/vector-icons/Feather', () => () => null);
jest.mock('./shared/throws/useHits', () => ({ useHits: () => [] }));

const CONTEXT = { tempo: { bpm: 120, beatsPerBar: 4 }, sampleRate: RATE };
beforeEach(() => openPiece());

describe('what is written to files', () => {
  const ask = async (choose: () => void): Promise<ExportOrder> => {
    const onStart = jest.fn<void, [ExportOrder]>();
    render(<ExportForm onStart={onStart} />);
    choose();
    await pressed('button', 'Start writing');
    return onStart.mock.calls[0]![0];
  };

  test('the whole piece as it stands, unless something else is chosen', async () => {
    expect(await ask(() => undefined)).toEqual({
      piece: 'scene',
      what: 'mix',
      fromBeat: 0,
      toBeat: 32,
      tail: 'silent',
      format: 'wav24',
      lufs: null,
      prints: [],
    });
  });

  test('a chosen stretch as FLAC at a loudness, cut at its end', async () => {
    useView.setState({ range: { start: 4, end: 12 } });
    const order = await ask(() => {
      for (const name of ['Write the chosen stretch', 'Cut at the end', 'As 24-bit FLAC', /Loudness .16 LUFS/])
        press('radio', name);
    });
    expect(order).toMatchObject({ what: 'mix', fromBeat: 4, toBeat: 12, tail: 'none', format: 'flac24', lufs: -16 });
  });

  test('prints, without those that were left out; what there is not cannot be chosen', async () => {
    const print = (id: string) => ({
      id,
      name: `Print ${id}`,
      sound: hashOf(0),
      startSample: 0,
      sampleRate: RATE,
      madeAt: '',
      from: {
        channel: 't0',
        channelName: 'Track 0',
        clip: null,
        fromBeat: 0,
        toBeat: 1,
        part: 'wet' as const,
        tail: '',
        bpm: 120,
      },
    });
    openPiece((piece) => ({ ...piece, prints: [print('p'), print('q')] }));
    expect(
      await ask(() => {
        press('radio', 'Write prints');
        press('switch', 'Write Print p');
      }),
    ).toMatchObject({ what: 'prints', prints: ['q'] });
  });
});

describe('a step of a treated clip', () => {
  const STRETCH: TreatStep = {
    kind: 'stretch',
    id: 's',
    on: true,
    times: 1,
    semitones: 0,
    keepPitch: true,
    formants: 'keep',
    formantSemitones: 0,
  };
  const show = (step: TreatStep, place = 0, last = true) => {
    const told = { change: jest.fn<void, [TreatStep]>(), move: jest.fn(), remove: jest.fn() };
    render(
      <StepCard
        step={step}
        place={place}
        last={last}
        context={CONTEXT}
        partSeconds={1.5}
        barSeconds={2}
        onChange={told.change}
        onMove={told.move}
        onRemove={told.remove}
      />,
    );
    return told;
  };

  test('is switched off, made as long as bars, pitched by whole semitones, and set to go along as on tape', () => {
    const { change } = show(STRETCH);
    press('switch', 'Step 1 on');
    press('radio', 'As long as 2 bars');
    fireEvent.keyDown(screen.getByRole('slider', { name: 'Pitch' }), { key: 'ArrowLeft' });
    press('switch', 'Pitch goes with the length');
    expect(change.mock.calls.map(([step]) => step)).toEqual([
      { ...STRETCH, on: false },
      { ...STRETCH, times: 4 / 1.5 },
      { ...STRETCH, semitones: -1 },
      { ...STRETCH, keepPitch: false },
    ]);
  });

  test('goes earlier or is taken off, and shows the rails of its effects', () => {
    const told = show(
      { kind: 'chain', id: 'c', on: true, name: 'Echo', rings: true, chain: [echoSlot('e', {})] },
      1,
      true,
    );
    press('button', 'Step 2 earlier');
    press('button', 'Take step 2 off');
    press('button', 'Unfold step 2');
    expect([told.move.mock.calls, told.remove.mock.calls.length]).toEqual([[[-1]], 1]);
    press('button', 'All rails of Echo');
    fireEvent.keyDown(screen.getByRole('slider', { name: 'Feedback' }), { key: 'ArrowRight' });
    expect(told.change.mock.calls[0]![0]).toMatchObject({
      kind: 'chain',
      chain: [{ id: 'e', values: { feedback: expect.any(Number) } }],
    });
    press('switch', 'Keep what rings on');
    expect(told.change.mock.calls[1]![0]).toMatchObject({ rings: false });
  });
});

describe('recipes', () => {
  const show = (): void =>
    void render(
      <RecipeSheet
        track={now().tracks[0]!}
        range={{ start: 8, end: 12 }}
        where="3.1 to 4.1"
        visible
        onClose={() => undefined}
      />,
    );

  test('say what they lack, and are not offered to be made then', () => {
    show();
    press('button', 'Stutter …');
    expect(screen.getByText('No clip of this track lies in the stretch.')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Make Stutter' }).getAttribute('aria-disabled')).toBe('true');
  });

  test('one without a sound of its own is laid at once, as one edit that is undone as one', async () => {
    show();
    press('button', 'Filter sweep …');
    await act(async () => press('button', 'Make Filter sweep'));
    expect(now().tracks[0]!.chain.map(({ effect }) => effect)).toEqual(['compressor', 'filter']);
    expect(now().lanes).toHaveLength(1);
    act(() => useOpenPiece.getState().undo());
    expect(now().tracks[0]!.chain).toHaveLength(1);
    expect(now().lanes).toEqual([]);
  });

  test('a variation that is liked is kept, and comes back when the recipe is opened again', () => {
    show();
    press('button', 'Filter sweep …');
    press('button', 'Surprise me');
    const farthest = (): string | null =>
      screen.getByRole('slider', { name: 'Farthest' }).getAttribute('aria-valuetext');
    const liked = farthest();
    press('button', 'Keep this variation');
    press('button', 'As it was at first');
    press('button', 'Back to all recipes');
    press('button', 'Filter sweep …');
    press('button', 'Kept variation 1');
    expect(farthest()).toBe(liked);
  });
});

test('an edit is taken out of the middle by its name; the last word is left to undo', () => {
  const { run } = useOpenPiece.getState();
  act(() => {
    run(addEffect, { channel: 't1', slot: echoSlot('e', {}), at: 0 });
    run(renameTrack, { track: 't0', name: 'Voice' });
    run(setChannelParam, { channel: 't1', param: 'gain', value: 0.5 });
  });
  render(<HistoryButton />);
  press('button', 'History');
  expect(screen.queryByRole('button', { name: /^Take out .*Track 1.*0\.5|^Take out .*level/i })).toBeNull();
  press('button', 'Take out Add Echo to Track 1 alone');
  expect(now().tracks.map(({ name, chain, gain }) => [name, chain.length, gain])).toEqual([
    ['Voice', 1, 1],
    ['Track 1', 0, 0.5],
  ]);
  expect(screen.getByRole('radio', { name: 'Take out: Add Echo to Track 1, now' })).toBeTruthy();
});

test('a section is named, named anew, and removed', async () => {
  render(<SectionButton beat={8} />);
  press('button', 'Sections of the piece');
  type('Name of the section at bar 3', 'Ebb');
  await pressed('button', 'Put the section there');
  press('button', 'Sections of the piece');
  type('Name of the section at bar 3', 'Flood');
  await pressed('button', 'Put the section there');
  expect(now().sections).toMatchObject([{ name: 'Flood', beat: 8 }]);
  press('button', 'Sections of the piece');
  press('button', 'Remove the section Flood');
  expect(now().sections).toEqual([]);
});

test('an effect that listens aside is pointed at another track, never at its own', () => {
  render(<SideTrack channel="t0" slot={now().tracks[0]!.chain[0]!} />);
  expect(screen.getByText(/Until a track is chosen/)).toBeTruthy();
  press('button', 'Sidechain: no track yet. Choose');
  expect(screen.queryByRole('radio', { name: 'Listen to Track 0' })).toBeNull();
  press('radio', 'Listen to Track 1');
  expect(now().tracks[0]!.chain[0]!.side).toBe('t1');
});

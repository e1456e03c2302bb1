import { act, render, screen, within } from '@testing-library/react';
import { EFFECTS, effectOf } from '../core/effects/catalogue';
import { isVisible } from '../core/effects/visibleWhen';
import { newSlot, presetValues, setParams } from '../core/piece/edits/chain';
import type { Slot } from '../core/piece/piece';
import { useOpenPiece } from '../data/openPiece';
import { EffectRails } from './chain/EffectRails';
import { makeLiveValues, setLiveValue } from './chain/liveValues';
import { now, openPiece, press } from './testing';

jest.mock('./studio/StudioProvider', () => jest.requireActual<typeof import('./testing')>('./testing').quietProvider);
jest.mock('@expo/vector-icons/Feather', () => () => null);

const slotNow = (): Slot => now().tracks[0]!.chain[0]!;
const live = makeLiveValues();

function Editor({ roomy }: { readonly roomy: boolean }) {
  const slot = useOpenPiece((state) => state.piece!.tracks[0]!.chain[0]!);
  return (
    <EffectRails
      channel="t0"
      slot={slot}
      live={live}
      initial={presetValues(slot.effect, slot.preset ?? 'neutral')}
      roomy={roomy}
    />
  );
}

/** Opens the editor of an effect; all sections at once where it is roomy. */
function show(effect: string, preset: string, roomy = true): void {
  live.setState({}, true);
  openPiece((piece) => ({
    ...piece,
    tracks: piece.tracks.map((track, i) => (i === 0 ? { ...track, chain: [newSlot('e', effect, preset)] } : track)),
  }));
  render(<Editor roomy={roomy} />);
}
const set = (values: Readonly<Record<string, number | string | boolean>>): void =>
  act(() => void useOpenPiece.getState().run(setParams, { channel: 't0', slot: 'e', values }));
/** Elements of a role: finding them by `getAllByRole` takes seconds where hundreds are shown. */
const all = (role: string): HTMLElement[] => [...document.querySelectorAll<HTMLElement>(`[role=${role}]`)];
const railIds = (): string[] => screen.getAllByTestId(/^rail /).map((one) => one.dataset.testid!.slice('rail '.length));

describe.each(EFFECTS.map((effect) => [effect.name, effect] as const))('%s', (_, effect) => {
  const replaced = effect.editorParts?.flatMap(({ replaces }) => replaces ?? []) ?? [];
  const wanted = (): string[] =>
    effect.paramIds.filter((id) => !replaced.includes(effect.params[id]!.group) && isVisible(effect, id, slotNow()));

  test('shows each rail that has an effect once, under a name of its own, with a value that can be spoken', () => {
    show(effect.id, 'neutral');
    expect(railIds().sort()).toEqual([...wanted()].sort());
    const sliders = all('slider');
    const names = sliders.map((slider) => slider.getAttribute('aria-label')!);
    expect(names.filter((name, i) => names.indexOf(name) !== i)).toEqual([]);
    for (const slider of sliders) expect(slider.getAttribute('aria-valuetext') ?? '').not.toMatch(/^$|NaN|undefined/);
  });

  test('has the same rails on a phone, a section at a time, with what is used most in the first', () => {
    show(effect.id, 'neutral', false);
    const whole = wanted();
    const tabs = all('tab');
    expect(tabs.at(-1)!.getAttribute('aria-label')).toBe('Links');
    const first = railIds();
    const seen = new Set<string>();
    for (const tab of tabs) {
      act(() => tab.click());
      for (const id of screen.queryAllByTestId(/^rail /)) seen.add(id.dataset.testid!.slice('rail '.length));
    }
    expect([...seen].sort()).toEqual([...whole].sort());
    if (whole.includes('mix')) expect(first).toContain('mix');
  });
});

test('rails that do nothing with a choice go away with it, and come back with their values', () => {
  show('echo', 'neutral');
  set({ routing: 'pingpong', firstSide: 'right' });
  expect(railIds()).toContain('firstSide');
  set({ routing: 'stereo' });
  expect(railIds()).not.toContain('firstSide');
  set({ routing: 'pingpong' });
  const sides = within(screen.getByTestId('rail firstSide')).getAllByRole('radio', { checked: true });
  expect(sides.map(({ textContent }) => textContent)).toEqual(['right']);
});

test('a value that is dragged decides which rails show before it is let go', () => {
  show('echo', 'neutral');
  set({ routing: 'stereo' });
  expect(railIds()).not.toContain('firstSide');
  act(() => setLiveValue(live, 'routing', 'pingpong'));
  expect(railIds()).toContain('firstSide');
  act(() => setLiveValue(live, 'routing', null));
  expect(railIds()).not.toContain('firstSide');
});

test('what each rail does is said on request', () => {
  show('reverb', 'neutral');
  const { hint } = effectOf('reverb').params.decay!;
  const says = (): boolean => within(screen.getByTestId('rail decay')).queryByText(hint) !== null;
  const before = says();
  press('switch', 'Say what each rail does');
  expect(says()).toBe(!before);
  press('switch', 'Say what each rail does');
  expect(says()).toBe(before);
});

test('a section whose rails have moves says so', () => {
  show('echo', 'neutral', false);
  const { group } = effectOf('echo').params.feedback!;
  const tab = (): string =>
    screen
      .getAllByRole('tab')
      .find((one) => one.getAttribute('aria-label')!.startsWith(group))!
      .getAttribute('aria-label')!;
  expect(tab()).toBe(group);
  act(() =>
    useOpenPiece.setState({
      piece: {
        ...now(),
        lanes: [
          {
            id: 'l',
            target: { kind: 'effect', channel: 't0', effect: 'e', param: 'feedback' },
            unit: 'own',
            on: true,
            points: [{ beat: 0, value: 0.5, shape: 'line', bend: 0 }],
          },
        ],
      },
    }),
  );
  expect(tab()).toBe(`${group}, has moves`);
});

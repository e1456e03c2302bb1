import { fireEvent, render, screen, within } from '@testing-library/react';
import { useView } from '../data/view';
import { CommandSheet } from './shared/commands/CommandSheet';
import { COMMANDS } from './shared/commands/commands';
import { useCommandKeys } from './shared/commands/keys';
import { now, openPiece, press, type } from './testing';

const mockPush = jest.fn();
jest.mock('expo-router', () => ({ useRouter: () => ({ push: mockPush }) }));
jest.mock('./studio/StudioProvider', () => jest.requireActual<typeof import('./testing')>('./testing').quietProvider);
jest.mock('./shared/blocks/ownPresets', () => ({ useBlocks: () => [] }));
jest.mock('@expo/vector-icons/Feather', () => () => null);

const SEARCH = 'Search commands, effects and recipes';
const found = (): string[] => screen.getAllByRole('button').map((one) => one.getAttribute('aria-label') ?? '');
/** A key of the whole page, as it arrives before any element has it. */
const pageKey = (key: string, held: KeyboardEventInit = {}): void =>
  void fireEvent.keyDown(document.body, { key, code: `Key${key.toUpperCase()}`, ...held });

beforeEach(() => {
  openPiece();
  mockPush.mockClear();
  useCommandKeys.getState().reset();
  useView.setState({ sheet: 'commands' });
  render(<CommandSheet />);
});

test('every command is there in its group, with its key', () => {
  const groups = screen.getAllByRole('group');
  for (const { group, name } of COMMANDS) {
    const own = groups.find((one) => one.getAttribute('aria-label') === group)!;
    const labels = within(own)
      .getAllByRole('button')
      .map((one) => one.getAttribute('aria-label')!);
    expect(labels.filter((label) => label === name || label.startsWith(`${name}, key `))).toHaveLength(1);
  }
});

test('words find commands, effects and recipes; what is not there is said', () => {
  type(SEARCH, 'slapback');
  expect(found().some((label) => label.includes('Hull slap'))).toBe(true);
  type(SEARCH, 'xyzzy');
  expect(screen.getByText(/Nothing is called or made for that/)).toBeTruthy();
});

test('Enter runs the first that is found, and the sheet closes', () => {
  type(SEARCH, 'mute');
  const field = screen.getByRole('searchbox', { name: SEARCH });
  fireEvent.keyDown(field, { key: 'Enter' });
  expect(useView.getState().sheet).toBeNull();
});

test('a view is gone to by its command', () => {
  type(SEARCH, 'Moves');
  const go = screen
    .getAllByRole('button')
    .find((one) => /^(Go to|Show|Open)? ?Moves/.test(one.getAttribute('aria-label') ?? ''));
  fireEvent.click(go!);
  expect(mockPush.mock.calls.flat().join()).toContain('moves');
  expect(now().id).toBe('scene');
});

describe('keys', () => {
  const buttonOf = (name: string): HTMLElement => screen.getByRole('button', { name: new RegExp(`^${name}: `) });

  beforeEach(() => press('switch', 'Change keys'));

  test('a command gets the key that is pressed next; the command that had it gets the other', () => {
    const [one, other] = COMMANDS.filter(({ key, name }) => key?.length === 1 && /^\w[\w ]*$/.test(name));
    fireEvent.click(buttonOf(one!.name));
    expect(buttonOf(one!.name).textContent).toBe('press a key');
    pageKey(other!.key!);
    const { changed } = useCommandKeys.getState();
    expect([changed[one!.id], changed[other!.id]]).toEqual([other!.key, one!.key]);
    expect(buttonOf(one!.name).textContent).not.toBe('press a key');
  });

  test('Escape leaves the key as it was', () => {
    const [one] = COMMANDS.filter(({ key, name }) => key && /^\w[\w ]*$/.test(name));
    fireEvent.click(buttonOf(one!.name));
    fireEvent.keyDown(document.body, { key: 'Escape' });
    expect(useCommandKeys.getState().changed).toEqual({});
    expect(buttonOf(one!.name).textContent).not.toBe('press a key');
  });

  test('all are put back at once', () => {
    const [one] = COMMANDS.filter(({ key, name }) => key && /^\w[\w ]*$/.test(name));
    fireEvent.click(buttonOf(one!.name));
    pageKey('j', { altKey: true });
    expect(Object.keys(useCommandKeys.getState().changed)).toContain(one!.id);
    press('button', 'Back to the keys at the start');
    expect(useCommandKeys.getState().changed).toEqual({});
  });
});

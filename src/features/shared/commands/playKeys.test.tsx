import { act, renderHook } from '@testing-library/react';
import { FIRST_PAD, noteMessages } from '../controller/controllerStore';
import {
  isFreeCode,
  keyName,
  START_KEYS,
  usePlayControl,
  usePlayKeyboard,
  usePlayKeys,
  usePlayNotes,
} from './playKeys';

let told: string[] = [];
const hands = (name: string) => ({
  begin: (velocity?: number) => told.push(`${name} begins${velocity === undefined ? '' : ` ${velocity}`}`),
  end: () => told.push(`${name} ends`),
  aftertouch: (pressure: number) => told.push(`${name} pressed ${pressure}`),
});
const note = (kind: 'on' | 'off' | 'pressure', number: number | null, value = 0.5): void =>
  noteMessages.tell({ kind, note: number, midiChannel: 0, value });

beforeEach(() => {
  told = [];
  usePlayKeys.getState().reset();
});

test('every control has a key of its own at the start, none of which the page needs itself', () => {
  const codes = Object.values(START_KEYS);
  expect(new Set(codes).size).toBe(codes.length);
  for (const code of codes) expect(isFreeCode(code)).toBe(true);
  for (const code of ['Space', 'Tab', 'Home', 'KeyM', 'ShiftLeft', 'F5', '']) expect(isFreeCode(code)).toBe(false);
  expect([keyName('KeyQ'), keyName('Digit3'), keyName('Comma'), keyName('Escape')]).toEqual(['Q', '3', ',', 'Esc']);
});

test('a control that takes the key of another gives it its own, and both are kept', () => {
  usePlayKeys.getState().assign('stone0', 'KeyA');
  expect(usePlayKeys.getState().codes).toMatchObject({ stone0: 'KeyA', pad0: 'Digit1' });
  usePlayKeys.getState().assignNote('pad0', FIRST_PAD);
  expect(usePlayKeys.getState().notes).toMatchObject({ pad0: FIRST_PAD, stone0: FIRST_PAD + 8 });
  expect(JSON.parse(localStorage.getItem('zephiro.playKeys')!)).toMatchObject({ stone0: 'KeyA' });
});

test('a note plays its control with its velocity, takes aftertouch while it is held, and is let go once', async () => {
  await renderHook(() => {
    usePlayNotes();
    usePlayControl('stone0', hands('stone'));
    usePlayControl('pad1', hands('pad'));
  });
  await act(async () => {
    note('on', FIRST_PAD, 0.7);
    note('on', FIRST_PAD, 0.9);
    note('on', FIRST_PAD + 9, 0.2);
    note('on', 5, 1);
    note('pressure', FIRST_PAD, 0.4);
    note('pressure', null, 0.1);
    note('off', FIRST_PAD);
    note('off', FIRST_PAD);
  });
  expect(told).toEqual([
    'stone begins 0.7',
    'pad begins 0.2',
    'stone pressed 0.4',
    'stone pressed 0.1',
    'pad pressed 0.1',
    'stone ends',
  ]);
});

test('a control that is gone is not played, and what is held when the notes are left is let go', async () => {
  const { unmount } = await renderHook(() => {
    usePlayNotes();
    usePlayKeyboard();
    usePlayControl('stone0', hands('stone'));
  });
  await act(async () => note('on', FIRST_PAD));
  await unmount();
  expect(told).toEqual(['stone begins 0.5', 'stone ends']);
  note('on', FIRST_PAD);
  expect(told).toHaveLength(2);
});

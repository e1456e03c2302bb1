import { render, screen } from '@testing-library/react';
import type { FieldAxis } from '../../core/piece/playField';
import { useControllers } from '../shared/controller/controllerStore';
import { key, openPiece, press } from '../testing';
import { AxisChoice } from './AxisChoice';

jest.mock(
  '../studio/StudioProvider',
  () => jest.requireActual<typeof import('../testing')>('../testing').quietProvider,
);
jest.mock('@expo/vector-icons/Feather', () => () => null);

const axis: FieldAxis = {
  target: { kind: 'effect', channel: 'space', effect: 'r', param: 'decay' },
  from: 0.2,
  to: 0.8,
};
const changed = jest.fn();

beforeEach(() => {
  openPiece();
  useControllers.setState(useControllers.getInitialState());
  changed.mockClear();
  render(<AxisChoice name="Across" axis={axis} onChange={changed} />);
});

test('a direction of a field says what it moves, and is given to a control of a controller', () => {
  expect(screen.getByText('Across: Decay')).toBeTruthy();
  expect(screen.getByText('Reverb on Space')).toBeTruthy();
  press('button', 'Across: let a control move Decay');
  expect(useControllers.getState().learning).toEqual(axis.target);
  expect(screen.getByRole('heading', { name: 'Controller' })).toBeTruthy();
});

test('its ends are set by rails, each by itself', () => {
  key('slider', 'Left edge', 'End');
  key('slider', 'Right edge', 'Home');
  expect(changed.mock.calls.map(([{ from, to }]) => [from, to])).toEqual([
    [expect.closeTo(1, 6), 0.8],
    [0.2, expect.closeTo(0, 6)],
  ]);
});

test('it can move another parameter of any channel', () => {
  press('button', 'Across: choose another parameter');
  press('button', /^Mix/);
  expect(changed.mock.calls[0]![0].target).toMatchObject({ channel: 'space', effect: 'r', param: 'mix' });
});

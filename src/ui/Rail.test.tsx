import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { echoParams } from '../core/effects/echo/params';
import type { ParamValue } from '../core/params/param';
import { ChoiceRail, Rail, SwitchRail } from './Rail';

const context = { tempo: { bpm: 92, beatsPerBar: 4 }, sampleRate: 48_000 };

function show(
  value: ParamValue,
  param: keyof typeof echoParams = 'timeL',
): { set: jest.Mock; touch: jest.Mock; slider: HTMLElement } {
  const set = jest.fn();
  const touch = jest.fn();
  render(<Rail param={echoParams[param]} value={value} context={context} onTouch={touch} onSet={set} />);
  return { set, touch, slider: screen.getByRole('slider') };
}

test('a rail says its name and its value with units', () => {
  const { slider } = show('1/8d');
  expect(slider.getAttribute('aria-label')).toBe('Time');
  expect(slider.getAttribute('aria-valuetext')).toBe('dotted eighth · 489 ms');
});

test.each([
  ['{ArrowRight}', '1/4'],
  ['{ArrowLeft}', '1/4t'],
  ['{PageUp}', '1/4d'],
  ['{Home}', 0.1],
  ['{End}', 8000],
  ['{Delete}', '1/8d'],
])('key %s sets %s', async (key, expected) => {
  const { set, slider } = show('1/8d');
  slider.focus();
  await userEvent.keyboard(key);
  expect(set).toHaveBeenCalledWith(expected);
});

test('Shift makes arrow keys fine', async () => {
  const { set, slider } = show(0.5, 'feedback');
  slider.focus();
  await userEvent.keyboard('{Shift>}{ArrowRight}{/Shift}');
  expect(set).toHaveBeenCalledWith(0.5012);
});

test('a typed value is understood; what is not stays in the field with the reason', async () => {
  const { set } = show('1/8d');
  await userEvent.click(screen.getByRole('button', { name: /Type a value/ }));
  const field = screen.getByRole('textbox', { name: 'Time as text' });
  await userEvent.clear(field);
  await userEvent.type(field, 'soon{Enter}');
  expect(screen.getByRole('alert').textContent).toMatch(/Try 1\/8d/);
  expect(set).not.toHaveBeenCalled();
  await userEvent.clear(field);
  await userEvent.type(field, '250 ms{Enter}');
  expect(set).toHaveBeenCalledWith(250);
});

describe('by hand', () => {
  const pointer = (slider: HTMLElement, type: string, clientX: number, clientY = 22, timeStamp = 0): void => {
    const event = new MouseEvent(type, { bubbles: true, clientX, clientY, button: 0 });
    Object.defineProperties(event, { pointerId: { value: 1 }, timeStamp: { value: timeStamp } });
    fireEvent(slider, event);
  };
  const laid = (slider: HTMLElement): HTMLElement => {
    slider.getBoundingClientRect = () => ({ left: 0, top: 0, width: 300, height: 44 }) as DOMRect;
    slider.setPointerCapture = () => undefined;
    return slider;
  };

  test('a drag is heard on its way and kept at its end; away from the rail it is fine', () => {
    const { set, touch, slider } = show(0.6, 'feedback');
    laid(slider);
    pointer(slider, 'pointerdown', 150);
    pointer(slider, 'pointermove', 180);
    expect(touch).toHaveBeenLastCalledWith(expect.closeTo(0.72, 2));
    pointer(slider, 'pointermove', 180, 222);
    pointer(slider, 'pointermove', 240, 222);
    pointer(slider, 'pointerup', 240, 222);
    expect(set.mock.calls.at(-1)[0]).toBeCloseTo(0.732, 2);
  });

  test('a scroll that takes the touch over leaves the value as it was', () => {
    const { set, slider } = show(0.6, 'feedback');
    laid(slider);
    pointer(slider, 'pointerdown', 150);
    pointer(slider, 'pointermove', 180);
    pointer(slider, 'pointercancel', 180);
    expect(set).toHaveBeenLastCalledWith(0.6);
  });

  test('two quick taps go back to the default', () => {
    const { set, slider } = show(0.6, 'feedback');
    laid(slider);
    for (const time of [100, 250]) {
      pointer(slider, 'pointerdown', 150, 22, time);
      pointer(slider, 'pointerup', 150, 22, time + 20);
    }
    expect(set.mock.calls).toEqual([[0.45]]);
  });
});

test('switches and choices', async () => {
  const set = jest.fn();
  render(
    <>
      <SwitchRail param={echoParams.hold} value={false} onSet={set} />
      <ChoiceRail param={echoParams.routing} value="stereo" onSet={set} />
    </>,
  );
  await userEvent.click(screen.getByRole('switch', { name: 'Hold' }));
  await userEvent.click(screen.getByRole('radio', { name: 'ping-pong' }));
  expect(set.mock.calls).toEqual([[true], ['pingpong']]);
  expect(screen.getByRole('radio', { name: 'stereo' }).getAttribute('aria-checked')).toBe('true');
});

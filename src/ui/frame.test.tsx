import { act, render } from '@testing-library/react';
import { requestFrames, useFrame, type Draw } from './frame';

const FRAME_MS = 16;

beforeEach(() => {
  jest.useFakeTimers();
});
afterEach(() => {
  jest.useRealTimers();
});

function Drawn({ draw }: { readonly draw: Draw }) {
  useFrame(draw);
  return null;
}

const frames = (count: number): void => act(() => void jest.advanceTimersByTime(count * FRAME_MS));
const drawnIn = (draw: jest.Mock, count: number): number => {
  draw.mockClear();
  frames(count);
  return draw.mock.calls.length;
};
const fire = (type: string, init: Record<string, unknown> = {}): void => {
  const event = type.startsWith('key') ? new KeyboardEvent(type, init) : Object.assign(new Event(type), init);
  window.dispatchEvent(event);
};

/** A component for which the loop has stopped. */
function stopped(draw: jest.Mock): jest.Mock {
  render(<Drawn draw={draw} />);
  frames(60);
  expect(drawnIn(draw, 60)).toBe(0);
  return draw;
}

test('a page on which nothing moves draws a few frames and then none', () => {
  const draw = jest.fn();
  render(<Drawn draw={draw} />);
  frames(5);
  expect(draw.mock.calls.length).toBeGreaterThan(2);
  frames(60);
  expect(drawnIn(draw, 600)).toBe(0);
});

test.each(['pointermove', 'wheel', 'scroll', 'resize', 'input'])('%s has it drawn for a moment', (type) => {
  const draw = stopped(jest.fn());
  fire(type);
  expect(drawnIn(draw, 10)).toBeGreaterThan(5);
  frames(60);
  expect(drawnIn(draw, 60)).toBe(0);
});

test('it draws for as long as a finger is down, however still it is', () => {
  const draw = stopped(jest.fn());
  fire('pointerdown', { pointerId: 1 });
  fire('pointerdown', { pointerId: 2 });
  fire('pointerup', { pointerId: 1 });
  expect(drawnIn(draw, 300)).toBeGreaterThan(290);
  fire('pointercancel', { pointerId: 2 });
  frames(60);
  expect(drawnIn(draw, 60)).toBe(0);
});

test('keys whose release a browser does not tell while Meta is down are released with Meta', () => {
  const draw = stopped(jest.fn());
  fire('keydown', { code: 'MetaLeft', key: 'Meta' });
  fire('keydown', { code: 'KeyC', key: 'c' });
  expect(drawnIn(draw, 60)).toBeGreaterThan(50);
  fire('keyup', { code: 'MetaLeft', key: 'Meta' });
  frames(60);
  expect(drawnIn(draw, 60)).toBe(0);
});

test('it draws for as long as a key is down, which ends at the latest when the window is left', () => {
  const draw = stopped(jest.fn());
  fire('keydown', { code: 'Enter' });
  expect(drawnIn(draw, 300)).toBeGreaterThan(290);
  fire('blur');
  frames(60);
  expect(drawnIn(draw, 60)).toBe(0);
});

test('it draws on while any component says that it moves', () => {
  let moving = false;
  const draw = stopped(jest.fn());
  render(<Drawn draw={() => moving} />);
  frames(60);
  moving = true;
  act(requestFrames);
  expect(drawnIn(draw, 300)).toBeGreaterThan(290);
  moving = false;
  frames(60);
  expect(drawnIn(draw, 60)).toBe(0);
});

test('one that fails is told, and the others are drawn', () => {
  const told = jest.fn();
  globalThis.reportError = told;
  const failure = new Error('no');
  render(
    <Drawn
      draw={() => {
        throw failure;
      }}
    />,
  );
  const draw = jest.fn();
  render(<Drawn draw={draw} />);
  frames(5);
  expect(told).toHaveBeenCalledWith(failure);
  expect(draw).toHaveBeenCalled();
});

test('what has left the page is not drawn any more', () => {
  const draw = jest.fn();
  const { unmount } = render(<Drawn draw={draw} />);
  unmount();
  act(requestFrames);
  expect(drawnIn(draw, 10)).toBe(0);
});

import { fireEvent, render, screen } from '@testing-library/react';
import { useRef } from 'react';
import { View } from 'react-native';
import { useDrag, useHold, useKeys, type Drag, type DragHandlers, type HoldHandlers } from './pointer';

const LEFT = 100;
const TOP = 50;

function Field({ handlers, scrolls }: { readonly handlers: DragHandlers; readonly scrolls?: 'none' }) {
  const view = useRef<View>(null);
  useDrag(view, handlers, scrolls);
  return <View ref={view} testID="field" />;
}

function HoldField({ handlers }: { readonly handlers: HoldHandlers }) {
  const view = useRef<View>(null);
  useHold(view, handlers);
  return <View ref={view} testID="field" tabIndex={0} />;
}

function KeyField({ onKey }: { readonly onKey: (event: KeyboardEvent) => boolean }) {
  const view = useRef<View>(null);
  useKeys(view, onKey);
  return (
    <View ref={view} testID="field" tabIndex={0}>
      <input aria-label="Inside" />
    </View>
  );
}

const field = (): HTMLElement => screen.getByTestId('field');

/** The page that stands in for a browser has mouse events only: a pointer's number is put on one. */
function pointer(type: string, x = 0, y = 0, { id = 1, button = 0, timeStamp = 0 } = {}): void {
  const event = new MouseEvent(`pointer${type}`, { bubbles: true, clientX: LEFT + x, clientY: TOP + y, button });
  Object.defineProperties(event, { pointerId: { value: id }, timeStamp: { value: timeStamp } });
  fireEvent(field(), event);
}

beforeEach(() => {
  Object.assign(HTMLElement.prototype, {
    setPointerCapture: jest.fn(),
    getBoundingClientRect: () => ({ left: LEFT, top: TOP, width: 200, height: 80 }),
  });
});

describe('a drag', () => {
  const handlers = { begin: jest.fn(), move: jest.fn(), end: jest.fn(), tap: jest.fn() };
  const moves = (): Drag[] => handlers.move.mock.calls.map(([drag]) => drag);
  beforeEach(() => {
    for (const one of Object.values(handlers)) one.mockReset();
    render(<Field handlers={handlers} />);
  });

  test('begins after four pixels, is told in the element’s own, and ends where it is let go', () => {
    pointer('down', 20, 10);
    pointer('move', 22, 12);
    expect(handlers.begin).not.toHaveBeenCalled();
    pointer('move', 30, 10);
    pointer('move', 50, 0);
    pointer('up', 60, 0);
    expect(handlers.begin).toHaveBeenCalledTimes(1);
    expect(moves()).toEqual([
      { startX: 20, startY: 10, x: 30, y: 10, dx: 10, dy: 0, width: 200, height: 80 },
      { startX: 20, startY: 10, x: 50, y: 0, dx: 20, dy: -10, width: 200, height: 80 },
    ]);
    expect(handlers.end.mock.calls).toEqual([[expect.objectContaining({ x: 60, dx: 10 }), false]]);
    expect(handlers.tap).not.toHaveBeenCalled();
  });

  test('that the view refuses is left alone', () => {
    handlers.begin.mockReturnValue(false);
    pointer('down');
    for (const x of [10, 20]) pointer('move', x);
    pointer('up', 20);
    expect([handlers.move, handlers.end, handlers.tap].map(({ mock }) => mock.calls.length)).toEqual([0, 0, 0]);
    // The next one is heard again.
    handlers.begin.mockReturnValue(true);
    pointer('down');
    pointer('move', 10);
    expect(handlers.move).toHaveBeenCalledTimes(1);
  });

  test('belongs to one finger: others neither move nor end it, nor does the second button of a mouse', () => {
    pointer('down', 0, 0, { button: 2 });
    pointer('move', 20);
    expect(handlers.begin).not.toHaveBeenCalled();
    pointer('down', 0, 0, { id: 3 });
    pointer('down', 0, 0, { id: 4 });
    pointer('move', 30, 0, { id: 4 });
    pointer('up', 30, 0, { id: 4 });
    expect([handlers.begin, handlers.end, handlers.tap].map(({ mock }) => mock.calls.length)).toEqual([0, 0, 0]);
    pointer('move', 30, 0, { id: 3 });
    pointer('up', 30, 0, { id: 3 });
    expect(handlers.end).toHaveBeenCalledTimes(1);
  });

  test('that the browser takes for scrolling ends as cancelled, and is no tap', () => {
    pointer('down');
    pointer('move', 10);
    pointer('cancel', 10);
    expect(handlers.end.mock.calls).toEqual([[expect.anything(), true]]);
    pointer('down');
    pointer('cancel');
    expect(handlers.tap).not.toHaveBeenCalled();
  });

  test('that moves nowhere is a tap; a second one soon after is told from one that is not', () => {
    for (const timeStamp of [1000, 1200, 2000]) {
      pointer('down', 5, 5);
      pointer('up', 6, 6, { timeStamp });
    }
    expect(handlers.tap.mock.calls.map(([{ x }, again]) => [x, again])).toEqual([
      [6, false],
      [6, true],
      [6, false],
    ]);
  });

  test('selects no text and never starts the browser’s own drag', () => {
    const { style } = field();
    expect([style.touchAction, style.userSelect]).toEqual(['pan-y', 'none']);
    // False: its default was prevented.
    expect(fireEvent.dragStart(field())).toBe(false);
  });
});

test('a finger that the view takes does not scroll the page; others do', () => {
  const handlers = { begin: jest.fn(), move: jest.fn(), end: jest.fn(), takes: (x: number) => x > 100 };
  render(<Field handlers={handlers} scrolls="none" />);
  const touches = (...xs: readonly number[]): boolean =>
    fireEvent.touchStart(field(), { bubbles: false, touches: xs.map((x) => ({ clientX: LEFT + x, clientY: TOP })) });
  expect([touches(150), touches(50), touches(150, 160)]).toEqual([false, true, true]);
  expect(field().style.touchAction).toBe('none');
});

test('what is no longer there hears nothing more', () => {
  const handlers = { begin: jest.fn(), move: jest.fn(), end: jest.fn() };
  const { unmount } = render(<Field handlers={handlers} />);
  const gone = field();
  unmount();
  fireEvent(gone, new MouseEvent('pointerdown', { button: 0 }));
  fireEvent(gone, new MouseEvent('pointermove', { clientX: 500 }));
  expect(handlers.begin).not.toHaveBeenCalled();
});

describe('a hold', () => {
  const handlers = { begin: jest.fn(), end: jest.fn() };
  const counts = (): number[] => [handlers.begin.mock.calls.length, handlers.end.mock.calls.length];
  const key = (type: 'keyDown' | 'keyUp', name: string, more = {}): boolean =>
    fireEvent[type](field(), { key: name, ...more });
  let unmount: () => void;
  beforeEach(() => {
    handlers.begin.mockReset();
    handlers.end.mockReset();
    ({ unmount } = render(<HoldField handlers={handlers} />));
  });

  test.each(['up', 'cancel'])('by a finger lasts until it is let go of (%s)', (type) => {
    pointer('down', 0, 0, { id: 7 });
    pointer('down', 0, 0, { id: 8 });
    pointer('up', 0, 0, { id: 8 });
    expect(counts()).toEqual([1, 0]);
    pointer(type, 0, 0, { id: 7 });
    expect(counts()).toEqual([1, 1]);
  });

  test.each([' ', 'Enter'])('by the key “%s” lasts until it is up, however often the key repeats', (name) => {
    expect(key('keyDown', name)).toBe(false);
    key('keyDown', name, { repeat: true });
    expect(counts()).toEqual([1, 0]);
    key('keyUp', 'x');
    expect(counts()).toEqual([1, 0]);
    key('keyUp', name);
    expect(counts()).toEqual([1, 1]);
  });

  test('is begun by no other key, and not twice', () => {
    expect(key('keyDown', 'x')).toBe(true);
    expect(counts()).toEqual([0, 0]);
    key('keyDown', ' ');
    pointer('down');
    pointer('up');
    expect(counts()).toEqual([1, 0]);
  });

  test('ends when another window or another control takes the focus, or it is gone', () => {
    pointer('down');
    fireEvent.blur(window);
    expect(counts()).toEqual([1, 1]);
    key('keyDown', ' ');
    fireEvent.blur(field());
    expect(counts()).toEqual([2, 2]);
    pointer('down');
    unmount();
    expect(counts()).toEqual([3, 3]);
  });
});

test('keys are heard by what has the focus, not by what lies in it; what is used goes no further', () => {
  const used: string[] = [];
  const outside = jest.fn();
  window.addEventListener('keydown', outside);
  render(<KeyField onKey={({ key }) => key === 'a' && used.push(key) > 0} />);
  expect(fireEvent.keyDown(field(), { key: 'a' })).toBe(false);
  expect(outside).not.toHaveBeenCalled();
  expect(fireEvent.keyDown(field(), { key: 'b' })).toBe(true);
  expect(fireEvent.keyDown(screen.getByRole('textbox'), { key: 'a' })).toBe(true);
  expect(outside).toHaveBeenCalledTimes(2);
  expect(used).toEqual(['a']);
  window.removeEventListener('keydown', outside);
});

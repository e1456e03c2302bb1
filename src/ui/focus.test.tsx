import { act, fireEvent, render, screen } from '@testing-library/react';
import { useRef } from 'react';
import { View } from 'react-native';
import { restoreFocus } from './restoreFocus';
import { useRovingFocus } from './rovingFocus';
import { Tooltip } from './Tooltip';
import { showTooltip, useTooltip } from './tooltipState';

/** Two rows of buttons, `a1 a2 a3` and `b1 b2`; those that are named are disabled. */
function Group({ disabled = [], onMove }: { readonly disabled?: readonly string[]; readonly onMove?: jest.Mock }) {
  const view = useRef<View>(null);
  useRovingFocus(view, { rows: '[data-testid^="row"]', first: '[aria-selected=true]', ...(onMove && { onMove }) });
  return (
    <View ref={view}>
      {[
        ['a1', 'a2', 'a3'],
        ['b1', 'b2'],
      ].map((names, row) => (
        <div key={row} data-testid={`row ${row}`}>
          {names.map((name) => (
            <button
              key={name}
              type="button"
              aria-label={name}
              aria-selected={name === 'a2'}
              aria-disabled={disabled.includes(name)}
            />
          ))}
        </div>
      ))}
    </View>
  );
}

const item = (name: string): HTMLElement => screen.getByRole('button', { name });
const stops = (): string[] =>
  screen
    .getAllByRole('button')
    .filter((one) => one.getAttribute('tabindex') === '0')
    .map((one) => one.getAttribute('aria-label')!);
const focused = (): string | null => document.activeElement?.getAttribute('aria-label') ?? null;
const press = (key: string, held: object = {}): boolean => fireEvent.keyDown(document.activeElement!, { key, ...held });

describe('a group that is one stop of the Tab key', () => {
  test('is stopped at where it is chosen, and afterwards where it was left', () => {
    render(<Group />);
    expect(stops()).toEqual(['a2']);
    act(() => item('b1').focus());
    expect(stops()).toEqual(['b1']);
  });

  test.each([
    ['a1', ['ArrowRight'], 'a2'],
    ['a1', ['ArrowDown'], 'b1'],
    ['a3', ['ArrowDown'], 'b2'],
    ['a3', ['ArrowRight'], 'b1'],
    ['b2', ['ArrowUp'], 'a2'],
    ['b1', ['ArrowLeft'], 'a3'],
    ['b2', ['Home'], 'a1'],
    ['a1', ['End'], 'b2'],
    ['b2', ['ArrowDown'], 'b2'],
    ['a1', ['ArrowLeft', 'x', 'Tab'], 'a1'],
  ])('from %s the keys %j lead to %s', (from, keys, to) => {
    render(<Group />);
    act(() => item(from).focus());
    for (const key of keys) press(key);
    expect(focused()).toBe(to);
    expect(stops()).toEqual([to]);
  });

  test('leaves out what is disabled, and keys that are held with others', () => {
    render(<Group disabled={['a2']} />);
    expect(stops()).toEqual(['a1']);
    act(() => item('a1').focus());
    press('ArrowRight');
    expect(focused()).toBe('a3');
    for (const held of [{ altKey: true }, { ctrlKey: true }, { metaKey: true }, { shiftKey: true }]) {
      // True: the browser does with it what it would.
      expect(press('ArrowLeft', held)).toBe(true);
      expect(focused()).toBe('a3');
    }
  });

  test('tells what an arrow went to, but not what was focused otherwise', () => {
    const onMove = jest.fn();
    render(<Group onMove={onMove} />);
    act(() => item('a1').focus());
    expect(onMove).not.toHaveBeenCalled();
    press('ArrowDown');
    expect(onMove.mock.calls).toEqual([[item('b1')]]);
  });
});

describe('the focus, when what had it is gone', () => {
  const visible = (element: HTMLElement): void => void (element.getClientRects = () => [{}] as unknown as DOMRectList);
  const add = (name: string): HTMLElement => {
    const made = document.createElement('button');
    made.setAttribute('aria-label', name);
    visible(made);
    document.body.append(made);
    return made;
  };
  afterEach(() => document.body.replaceChildren());

  test('goes back to what had it last and is there still', () => {
    const [first, second, third] = ['first', 'second', 'third'].map(add) as [HTMLElement, HTMLElement, HTMLElement];
    for (const one of [first, second, third]) one.focus();
    third.remove();
    second.getClientRects = () => [] as unknown as DOMRectList;
    restoreFocus();
    expect(focused()).toBe('first');
  });

  test('is left where something has it', () => {
    const [first, second] = [add('first'), add('second')];
    first.focus();
    second.focus();
    restoreFocus();
    expect(focused()).toBe('second');
  });
});

describe('the name of an icon that a finger rests on', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());
  const rest = (label: string): void => act(() => showTooltip(label, screen.getByRole('button', { name: label })));
  test('is shown for a moment; that of the next takes its place', () => {
    render(
      <>
        <button type="button" aria-label="Add a track" />
        <button type="button" aria-label="Remove it" />
        <Tooltip />
      </>,
    );
    expect(screen.queryByText('Add a track')).toBeNull();
    rest('Add a track');
    expect(screen.getByText('Add a track')).toBeTruthy();
    rest('Remove it');
    expect(screen.queryByText('Add a track')).toBeNull();
    act(() => void jest.advanceTimersByTime(1100));
    // The first one's time is over, which does not take the second away.
    expect(screen.getByText('Remove it')).toBeTruthy();
    act(() => void jest.advanceTimersByTime(600));
    expect(useTooltip.getState().tooltip).toBeNull();
  });
});

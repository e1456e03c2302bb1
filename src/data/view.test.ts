import { keepHints, useView } from './view';

const stored = new Map<string, string>();
Object.assign(globalThis, {
  localStorage: {
    getItem: (key: string) => stored.get(key) ?? null,
    setItem: (key: string, value: string) => void stored.set(key, value),
  },
});

const front = (): boolean => useView.getState().rangeInFront;
beforeEach(() => useView.setState(useView.getInitialState(), true));

test('of a chosen stretch and a chosen clip the one that was chosen last is meant', () => {
  useView.setState({ range: { start: 0, end: 4 } });
  expect(front()).toBe(true);
  useView.setState({ clip: 'a' });
  expect(front()).toBe(false);
  useView.setState({ range: { start: 4, end: 8 } });
  expect(front()).toBe(true);
  useView.setState({ range: null });
  expect(front()).toBe(false);
});

test('a clip that is left brings no stretch forward, and what else changes leaves it', () => {
  useView.setState({ range: { start: 0, end: 4 }, clip: 'a' });
  const before = front();
  useView.setState({ clip: null });
  expect(front()).toBe(before);
  useView.setState({ zoom: 3 });
  expect(front()).toBe(before);
});

test.each([true, false])('hints that are switched to %s stay so in this browser', (hints) => {
  keepHints(hints);
  expect(useView.getState().hints).toBe(hints);
  jest.isolateModules(() => {
    const again = jest.requireActual<typeof import('./view')>('./view');
    expect(again.useView.getState().hints).toBe(hints);
  });
});

/** A browser's storage, with something in it before the module reads it. */
function load(stored: string | null): typeof import('./preferences') {
  const kept = new Map<string, string>(stored === null ? [] : [['zephiro.preferences', stored]]);
  Object.assign(globalThis, {
    localStorage: {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => void kept.set(key, value),
    },
  });
  let loaded: typeof import('./preferences');
  jest.isolateModules(() => {
    loaded = jest.requireActual<typeof import('./preferences')>('./preferences');
  });
  return loaded!;
}

const START = {
  output: { id: '', name: '' },
  latency: 'interactive',
  click: false,
  countInBars: 0,
  newPieceRate: 48_000,
  pinned: {},
  firstStep: 0,
};

test.each([null, '', 'null', '[1,2]', '{"latency":7}'])('begins as it should where %j is kept', (stored) => {
  expect(load(stored).usePreferences.getState()).toEqual(START);
});

test('what is damaged goes back to its start, and the rest stays', () => {
  const stored = JSON.stringify({ ...START, latency: 'playback', newPieceRate: 12, countInBars: 2, firstStep: null });
  expect(load(stored).usePreferences.getState()).toEqual({
    ...START,
    latency: 'playback',
    countInBars: 2,
    firstStep: null,
  });
});

test('a change is kept at once, beside what was kept before', () => {
  const { keepPreferences, usePreferences } = load(null);
  keepPreferences({ click: true });
  keepPreferences({ countInBars: 1 });
  expect(usePreferences.getState()).toEqual({ ...START, click: true, countInBars: 1 });
  expect(JSON.parse(localStorage.getItem('zephiro.preferences')!)).toEqual({ ...START, click: true, countInBars: 1 });
});

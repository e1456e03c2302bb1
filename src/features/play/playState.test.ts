const KEPT = 'zephiro.play';
const stored = new Map<string, string>();

/** Play's settings as they are read at the start of a page. */
function settings(text: string | null): Record<string, unknown> {
  stored.clear();
  if (text !== null) stored.set(KEPT, text);
  let read: Record<string, unknown> = {};
  jest.isolateModules(() => {
    const { usePlayState } = jest.requireActual<typeof import('./playState')>('./playState');
    const { pads, grid, latched, expressions } = usePlayState.getState();
    read = { pads, grid, latched, expressions };
  });
  return read;
}

beforeAll(() => {
  Object.assign(globalThis, {
    localStorage: { getItem: (key: string) => stored.get(key) ?? null, setItem: stored.set.bind(stored) },
  });
});

const START = { pads: 'throws', grid: 'free', latched: ['freezes', 'mutes'], expressions: {} };

test.each([
  ['nothing', null],
  ['no JSON', '{'],
  ['something else', '7'],
])('%s is stored: Play begins as it is made', (_what, text) => {
  expect(settings(text)).toEqual(START);
});

test('what was set comes back', () => {
  const set = {
    pads: 'mutes',
    grid: '1/8',
    latched: [],
    expressions: { e: { velocity: 'slice', aftertouch: null } },
  };
  expect(settings(JSON.stringify(set))).toEqual(set);
});

test('a part that cannot be read begins anew, and the others stay', () => {
  const part = { pads: 'mutes', grid: '1/7', latched: ['throws'], expressions: { e: { velocity: 3 } }, old: 1 };
  expect(settings(JSON.stringify(part))).toEqual({ ...START, pads: 'mutes', latched: ['throws'] });
});

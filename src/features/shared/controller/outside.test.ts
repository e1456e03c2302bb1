import { controlMessages, noteMessages, transportMessages, useControllers } from './controllerStore';
import { findControllers } from './outside';

interface FakeInput {
  readonly name: string | null;
  onmidimessage: ((event: { data: Uint8Array | null; timeStamp: number }) => void) | null;
}
const input = (name: string | null): FakeInput => ({ name, onmidimessage: null });

function browserGives(ask: (() => Promise<unknown>) | undefined): void {
  Object.defineProperty(globalThis, 'navigator', { configurable: true, value: ask ? { requestMIDIAccess: ask } : {} });
}
const outside = () => useControllers.getState().outside;

test('a browser without controllers says so', async () => {
  browserGives(undefined);
  await findControllers();
  expect(outside()).toContain('does not give controllers');
});

test('a browser that refuses is told how it can be asked again', async () => {
  browserGives(() => Promise.reject(new Error('denied')));
  await findControllers();
  expect(outside()).toContain('Allow it in the settings');
});

test('controllers are named and heard; one that is plugged in later, too', async () => {
  const inputs = new Map<string, FakeInput>();
  const access = { inputs, onstatechange: null as (() => void) | null };
  browserGives(() => Promise.resolve(access));
  await findControllers();
  expect(outside()).toContain('None is plugged in');

  const [keys, nameless] = [input('Keys'), input(null)];
  inputs.set('1', keys).set('2', nameless);
  access.onstatechange!();
  expect(outside()).toEqual(['Keys', 'a controller without a name']);

  const [controls, notes, transport] = [jest.fn(), jest.fn(), jest.fn()];
  const stop = [controlMessages.on(controls), noteMessages.on(notes), transportMessages.on(transport)];
  const says = (from: FakeInput, ...data: readonly number[]): void =>
    from.onmidimessage!({ data: new Uint8Array(data), timeStamp: 5 });
  says(keys, 0xb2, 20, 127);
  says(nameless, 0x90, 36, 127);
  says(keys, 0xf8);
  says(keys, 0xfa);
  keys.onmidimessage!({ data: null, timeStamp: 6 });
  expect(controls.mock.calls).toEqual([[{ number: 20, midiChannel: 2, position: 1 }]]);
  expect(notes.mock.calls).toEqual([[{ kind: 'on', note: 36, midiChannel: 0, value: 1 }]]);
  expect(transport.mock.calls).toEqual([['start']]);
  stop.forEach((end) => end());
  says(keys, 0xb2, 20, 0);
  expect(controls).toHaveBeenCalledTimes(1);
});

import { act, renderHook } from '@testing-library/react';
import { fillScreen, useWakeLock } from './stage';

const release = jest.fn(() => Promise.resolve());
const request = jest.fn(() => Promise.resolve({ release }));
let visible = 'visible';

beforeEach(() => {
  release.mockClear();
  request.mockClear();
  visible = 'visible';
  Object.defineProperty(navigator, 'wakeLock', { configurable: true, value: { request } });
  Object.defineProperty(document, 'visibilityState', { configurable: true, get: () => visible });
});
const show = (state: string): void => {
  visible = state;
  act(() => void document.dispatchEvent(new Event('visibilitychange')));
};

test('the screen is kept awake while it is shown, and asked for anew when the page is seen again', async () => {
  const { unmount } = await act(async () => renderHook(() => useWakeLock()));
  expect(request.mock.calls).toEqual([['screen']]);
  show('hidden');
  expect(request).toHaveBeenCalledTimes(1);
  await act(async () => show('visible'));
  expect(request).toHaveBeenCalledTimes(2);
  unmount();
  expect(release).toHaveBeenCalledTimes(1);
  show('visible');
  expect(request).toHaveBeenCalledTimes(2);
});

test('a lock that comes after one has left is given back at once', async () => {
  let give: (lock: { release: typeof release }) => void = () => undefined;
  request.mockImplementationOnce(() => new Promise((resolve) => (give = resolve)));
  const { unmount } = renderHook(() => useWakeLock());
  unmount();
  await act(async () => give({ release }));
  expect(release).toHaveBeenCalledTimes(1);
});

test('a device that says no is left as it is', async () => {
  request.mockImplementationOnce(() => Promise.reject(new Error('low on power')));
  const { unmount } = await act(async () => renderHook(() => useWakeLock()));
  unmount();
  expect(release).not.toHaveBeenCalled();
});

test('full screen and back', () => {
  const [fill, leave] = [jest.fn(() => Promise.resolve()), jest.fn(() => Promise.resolve())];
  Object.assign(document.documentElement, { requestFullscreen: fill });
  Object.assign(document, { exitFullscreen: leave });
  fillScreen();
  expect([fill.mock.calls.length, leave.mock.calls.length]).toEqual([1, 0]);
  Object.defineProperty(document, 'fullscreenElement', { configurable: true, value: document.body });
  fillScreen();
  expect([fill.mock.calls.length, leave.mock.calls.length]).toEqual([1, 1]);
});

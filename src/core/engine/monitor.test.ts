import { MONITOR_GAINS, MONITORS, type Monitor } from './monitor';

const heard = (monitor: Monitor, left: number, right: number): [number, number] => {
  const [ll, lr, rl, rr] = MONITOR_GAINS[monitor];
  return [ll * left + rl * right, lr * left + rr * right];
};

test('each way of listening is what it says, and none is louder than the louder side', () => {
  expect(heard('stereo', 0.3, -0.7)).toEqual([0.3, -0.7]);
  expect(heard('swapped', 0.3, -0.7)).toEqual([-0.7, 0.3]);
  expect(heard('left', 0.3, -0.7)).toEqual([0.3, 0.3]);
  expect(heard('right', 0.3, -0.7)).toEqual([-0.7, -0.7]);
  expect(heard('mono', 0.5, -0.5)).toEqual([0, 0]);
  expect(heard('mono', 0.5, 0.5)).toEqual([0.5, 0.5]);
  for (const monitor of MONITORS)
    for (const [left, right] of [
      [1, 1],
      [1, -1],
      [0.2, 1],
    ] as const)
      expect(Math.max(...heard(monitor, left, right).map(Math.abs))).toBeLessThanOrEqual(1);
});

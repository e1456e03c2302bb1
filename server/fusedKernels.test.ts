import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { DRIVE_KINDS } from '../src/core/dsp/saturate';

// In a process of its own: what one process takes once stays with it, and other tests compare to the bit with processes
// that were not told.
const done = spawnSync(
  process.execPath,
  ['--experimental-wasm-relaxed-simd', '--import', 'tsx', join(__dirname, '../scripts/checks/fusedKernels.ts')],
  { encoding: 'utf8' },
);
const { taken, apart } = JSON.parse(done.stdout) as {
  taken: number;
  apart: Record<string, { away: number; peak: number }>;
};

test('the engine takes the fused builds of all kernels that have one', () => {
  expect(taken).toBe(6);
});

test.each(Object.entries(apart))('fused, %s agrees with its TypeScript reference within 1e-5', (_, { away, peak }) => {
  expect(peak).toBeGreaterThan(0.02);
  expect(away).toBeLessThan(1e-5);
});

test('every effect that has a fused kernel was compared, and every curve', () => {
  expect(Object.keys(apart).sort()).toEqual(
    ['convolver', 'echo', 'eq', 'placer', 'reverb', ...DRIVE_KINDS.map((kind) => `shaping, ${kind}`)].sort(),
  );
});

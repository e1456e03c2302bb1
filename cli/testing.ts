import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readWav } from '../src/core/formats/readWav';
import { writeWav } from '../src/core/formats/writeWav';
import { main } from './main';

/** A folder of this test file, removed at its end. */
const folder = mkdtempSync(join(tmpdir(), 'zephiro-cli-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
export const at = (name: string): string => join(folder, name);
export const json = (name: string, value: unknown): string => {
  writeFileSync(at(name), JSON.stringify(value));
  return at(name);
};
export const sound = (name: string, sampleRate: number, seconds: number, wave: (i: number) => number): string => {
  writeFileSync(
    at(name),
    writeWav({ sampleRate, channels: [Float32Array.from({ length: seconds * sampleRate }, (_, i) => wave(i))] }, '32f'),
  );
  return at(name);
};
/** Runs a command in this process. */
export async function cli(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  const said = { stdout: '', stderr: '' };
  const streams = (['stdout', 'stderr'] as const).map((stream) =>
    jest.spyOn(process[stream], 'write').mockImplementation((text) => {
      said[stream] += String(text);
      return true;
    }),
  );
  try {
    return { code: await main(args), out: said.stdout, err: said.stderr };
  } finally {
    for (const stream of streams) stream.mockRestore();
  }
}
export const left = (name: string): Float32Array => readWav(readFileSync(at(name))).channels[0]!;

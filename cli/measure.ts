import { gainToDb } from '../src/core/params/format';
import { peakOf, rmsOf } from '../src/core/analysis/levels';
import { loudness } from '../src/core/analysis/loudness';
import { tapList } from '../src/core/analysis/tapList';
import { readArguments, UsageError, wordAt } from './arguments';
import { readSound } from './files';

const finiteOrNull = (value: number): number | null => (Number.isFinite(value) ? value : null);

/** measure FILE.wav --json: levels, loudness and arrivals of a sound. */
export function measureCommand(given: readonly string[]): void {
  const args = readArguments(given, [], ['json']);
  const path = wordAt(args, 0, 'FILE.wav');
  if (!args.flags.has('json')) throw new UsageError('measure prints JSON: add --json.');
  const { channels, sampleRate } = readSound(path);
  const left = channels[0] ?? new Float32Array(0);
  const right = channels[1] ?? left;
  const loud = loudness(channels.slice(0, 2), sampleRate);
  const found = {
    sampleRate,
    channels: channels.length,
    frames: left.length,
    seconds: left.length / sampleRate,
    peakDb: channels.map((channel) => gainToDb(peakOf(channel))),
    rmsDb: channels.map((channel) => gainToDb(rmsOf(channel))),
    loudness: { integratedLufs: finiteOrNull(loud.integrated), momentaryMaxLufs: finiteOrNull(loud.momentaryMax), shortTermMaxLufs: finiteOrNull(loud.shortTermMax) },
    taps: tapList(left, right, sampleRate, 0.001).slice(0, 200),
  };
  process.stdout.write(`${JSON.stringify(found, null, 2)}\n`);
}

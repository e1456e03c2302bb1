import type { Command } from 'commander';
import type { Audio } from '../../src/core/formats/audio';
import { gainToDb } from '../../src/core/params/format';
import { correlationOf, peakOf, rmsOf, truePeakOf } from '../../src/core/analysis/levels';
import { decaySeconds, octaveBand } from '../../src/core/analysis/decay';
import { loudness } from '../../src/core/analysis/loudness';
import { soundFigures } from '../../src/core/analysis/soundFigures';
import { tapList } from '../../src/core/analysis/tapList';
import { UsageError, withExample } from '../arguments';
import { readSound } from '../files';

const finiteOrNull = (value: number): number | null => (Number.isFinite(value) ? value : null);

const OCTAVES_HZ = [125, 250, 500, 1000, 2000, 4000, 8000];

function decays(
  channels: readonly Float32Array[],
  sampleRate: number,
): { whole: number | null; octaves: { hz: number; seconds: number | null }[] } {
  const found = (bands: readonly Float64Array[]): number | null =>
    finiteOrNull(decaySeconds(bands, sampleRate, -5, -25));
  const octaves = OCTAVES_HZ.filter((hz) => hz * Math.SQRT2 < sampleRate / 2);
  return {
    whole: found(channels.map((channel) => Float64Array.from(channel))),
    octaves: octaves.map((hz) => ({
      hz,
      seconds: found(channels.map((channel) => octaveBand(channel, hz, sampleRate))),
    })),
  };
}

/** Levels, true peak, loudness, decay, stereo image and arrivals of a sound. */
function figuresOf({ channels, sampleRate }: Audio): unknown {
  const left = channels[0] ?? new Float32Array(0);
  const right = channels[1] ?? left;
  const loud = loudness(channels.slice(0, 2), sampleRate);
  const { lufs: _lufs, ...image } = soundFigures(left, right, sampleRate);
  return {
    sampleRate,
    channels: channels.length,
    frames: left.length,
    seconds: left.length / sampleRate,
    peakDb: channels.map((channel) => gainToDb(peakOf(channel))),
    truePeakDb: channels.map((channel) => finiteOrNull(gainToDb(truePeakOf(channel)))),
    rmsDb: channels.map((channel) => gainToDb(rmsOf(channel))),
    loudness: {
      integratedLufs: finiteOrNull(loud.integrated),
      momentaryMaxLufs: finiteOrNull(loud.momentaryMax),
      shortTermMaxLufs: finiteOrNull(loud.shortTermMax),
    },
    /** Seconds for 60 dB by T20 (ISO 3382), broadband and in octaves; null where the level does not fall that far. */
    decaySeconds: decays([left, right], sampleRate),
    /** 1 both sides alike, 0 unlike, -1 turned over; null for silence. */
    correlation: finiteOrNull(correlationOf(left, right)),
    width: image.width,
    monoLossDb: image.monoLossDb,
    taps: tapList(left, right, sampleRate, 0.001).slice(0, 200),
  };
}

export function addMeasure(program: Command): void {
  const command = program
    .command('measure')
    .description('Measures a sound: levels, true peak, loudness, decay, stereo image and arrivals.')
    .argument('<FILE.wav>', 'The sound; of more than two channels the first two are used.')
    .option('--json', 'Prints JSON; it has to be given.')
    .action((path: string, { json }: { json?: true }) => {
      if (!json) throw new UsageError('measure prints JSON: add --json.');
      process.stdout.write(`${JSON.stringify(figuresOf(readSound(path)), null, 2)}\n`);
    });
  withExample(command, 'npm run -s cli -- measure voice.wav --json');
}

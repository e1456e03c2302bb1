import { InvalidArgumentError, type Command } from 'commander';
import { resample } from '../../src/core/dsp/resample';
import type { Tail } from '../../src/core/engine/render';
import type { Hear } from '../../src/core/engine/slot';
import { treat } from '../../src/core/engine/treat';
import { TREATED_CHANNEL } from '../../src/core/engine/treatment';
import { BadData, readChain, readLanes } from '../../src/core/exchange/chainFile';
import type { WavDepth } from '../../src/core/formats/writeWav';
import { bitsOption, choiceOption, numberIn, withExample } from '../arguments';
import { readJson, readSound, writeSound } from '../files';
import { lanesOfEvents } from './events';

const LONGEST_TAIL_SECONDS = 3600;

interface Options {
  readonly chain: string;
  readonly bpm: number;
  readonly rate?: number;
  readonly tail: Tail;
  readonly bits: WavDepth;
  readonly moves?: string;
  readonly events?: string;
  readonly hear: Hear;
}

function readTail(text: string): Tail {
  if (text === 'auto') return { kind: 'silent' };
  const seconds = Number(text);
  if (text.trim() === '' || !(seconds >= 0 && seconds <= LONGEST_TAIL_SECONDS))
    throw new InvalidArgumentError(`It takes auto or 0 to ${LONGEST_TAIL_SECONDS} seconds.`);
  return { kind: 'seconds', seconds };
}

function processSound(from: string, to: string, options: Options): void {
  const { bpm, bits, hear, tail, moves, events } = options;
  const audio = readSound(from);
  const sampleRate = options.rate ?? audio.sampleRate;
  if (sampleRate < 44_100 || sampleRate > 96_000)
    throw new BadData(`${from} has ${sampleRate} Hz; give --rate between 44100 and 96000.`);
  const sound = audio.channels.slice(0, 2).map((channel) => resample(channel, audio.sampleRate, sampleRate));
  const context = { tempo: { bpm, beatsPerBar: 4 }, sampleRate };
  const chain = readChain(readJson(options.chain), context);
  const lanes = [
    ...(moves ? readLanes(readJson(moves), chain, TREATED_CHANNEL) : []),
    ...(events ? lanesOfEvents(readJson(events), chain, TREATED_CHANNEL, context) : []),
  ];
  if ((sound[0]?.length ?? 0) === 0) {
    writeSound(to, { sampleRate, channels: [new Float32Array(0), new Float32Array(0)] }, bits);
    return;
  }
  const rendered = treat({ sound, sampleRate, bpm, chain, lanes, tail, hear });
  writeSound(to, { sampleRate, channels: [rendered.left, rendered.right] }, bits);
  if (rendered.cutShort) process.stderr.write('The tail had not died away after 120 s and was cut there.\n');
}

export function addProcess(program: Command): void {
  const command = program
    .command('process')
    .description('Sends a sound through a chain of effects.')
    .argument('<IN.wav>', 'The sound.')
    .argument('<OUT.wav>', 'The file to write, in stereo.')
    .requiredOption('--chain <CHAIN.json>', 'The chain: {"chain":[{"effect":"echo","params":{"timeL":"1/8d"}}]}.')
    .option('--bpm <number>', 'Tempo that note values follow.', numberIn(20, 300), 120)
    .option('--rate <hz>', 'Sample rate to work at; that of the sound when left out.', numberIn(44_100, 96_000))
    .option('--tail <auto|seconds>', 'How long what rings is kept; auto until it is silent.', readTail, {
      kind: 'silent',
    } satisfies Tail)
    .addOption(bitsOption())
    .option('--moves <MOVES.json>', 'Lanes that move parameters of the chain, in beats.')
    .option('--events <EVENTS.json>', 'Values that parameters take at times, in seconds.')
    .addOption(
      choiceOption('--hear <what>', 'What of the chain is written.', ['mix', 'wet', 'dry', 'difference'], 'mix'),
    )
    .action(processSound);
  withExample(command, 'npm run -s cli -- process dry.wav wet.wav --chain chain.json --bpm 92');
}

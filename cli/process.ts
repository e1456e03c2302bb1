import { BadData, readChain, readLanes } from '../src/core/exchange/chainFile';
import { resample } from '../src/core/dsp/resample';
import { treat } from '../src/core/engine/treat';
import { TREATED_CHANNEL } from '../src/core/engine/treatment';
import type { Tail } from '../src/core/engine/render';
import { choiceOption, numberOption, readArguments, UsageError, wordAt } from './arguments';
import { readJson, readSound, writeSound } from './files';
import { lanesOfEvents } from './events';

const LONGEST_TAIL_SECONDS = 3600;

/** process IN.wav OUT.wav --chain CHAIN.json: a sound through a chain. */
export function processCommand(given: readonly string[]): void {
  const args = readArguments(given, ['chain', 'bpm', 'rate', 'tail', 'bits', 'moves', 'events', 'hear'], [], 2);
  const from = wordAt(args, 0, 'IN.wav');
  const to = wordAt(args, 1, 'OUT.wav');
  const chainPath = args.options.get('chain');
  if (!chainPath) throw new UsageError('--chain CHAIN.json is missing.');
  const bpm = numberOption(args, 'bpm', 20, 300) ?? 120;
  const rate = numberOption(args, 'rate', 44_100, 96_000);
  const depth = choiceOption(args, 'bits', ['16', '24', '32f'] as const, '32f');
  const hear = choiceOption(args, 'hear', ['mix', 'wet', 'dry', 'difference'] as const, 'mix');
  const tail = tailOption(args.options.get('tail'));

  const audio = readSound(from);
  const sampleRate = rate ?? audio.sampleRate;
  if (sampleRate < 44_100 || sampleRate > 96_000)
    throw new BadData(`${from} has ${sampleRate} Hz; give --rate between 44100 and 96000.`);
  const sound = audio.channels.slice(0, 2).map((channel) => resample(channel, audio.sampleRate, sampleRate));
  const context = { tempo: { bpm, beatsPerBar: 4 }, sampleRate };
  const chain = readChain(readJson(chainPath), context);
  const moves = args.options.get('moves');
  const events = args.options.get('events');
  const lanes = [
    ...(moves ? readLanes(readJson(moves), chain, TREATED_CHANNEL) : []),
    ...(events ? lanesOfEvents(readJson(events), chain, TREATED_CHANNEL, context) : []),
  ];
  if ((sound[0]?.length ?? 0) === 0) {
    writeSound(to, { sampleRate, channels: [new Float32Array(0), new Float32Array(0)] }, depth);
    return;
  }
  const rendered = treat({ sound, sampleRate, bpm, chain, lanes, tail, hear });
  writeSound(to, { sampleRate, channels: [rendered.left, rendered.right] }, depth);
  if (rendered.cutShort) process.stderr.write('The tail had not died away after 120 s and was cut there.\n');
}

function tailOption(text: string | undefined): Tail {
  if (text === undefined || text === 'auto') return { kind: 'silent' };
  const seconds = Number(text);
  if (text.trim() === '' || !(seconds >= 0 && seconds <= LONGEST_TAIL_SECONDS))
    throw new UsageError(`--tail takes auto or 0-${LONGEST_TAIL_SECONDS} seconds; not "${text}".`);
  return { kind: 'seconds', seconds };
}

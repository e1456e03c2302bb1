import type { Command } from 'commander';
import { randomUUID } from 'node:crypto';
import { InvalidArgumentError } from 'commander';
import { planPrint } from '../../src/core/engine/print';
import { printName, printRecord } from '../../src/core/engine/printRecord';
import { render } from '../../src/core/engine/render';
import { BadData } from '../../src/core/exchange/chainFile';
import { fileName } from '../../src/core/files/names';
import { soundsPlayed } from '../../src/core/files/parts';
import { clipEnd } from '../../src/core/piece/clipEdges';
import { addPrint as addPrintEdit } from '../../src/core/piece/edits/prints';
import type { Piece, PrintOrder } from '../../src/core/piece/piece';
import type { SoundData } from '../../src/core/dsp/soundData';
import type { WavDepth } from '../../src/core/formats/writeWav';
import {
  bitsOption,
  choiceOption,
  PIECE_HELP,
  withBars,
  withExample,
  withFolders,
  type Bars,
  type Folders,
} from '../arguments';
import { writeSound } from '../files';
import { beatsOfBars, channelNamed, loadSounds, type OpenedPiece } from '../pieces/openedPiece';
import { withPiece } from '../pieces/readPieceFrom';
import { edited, keepPiece, madeSound } from '../pieces/writePiece';

interface Options extends Folders, Bars {
  readonly channel: string;
  readonly clip?: string;
  readonly part: PrintOrder['part'];
  readonly tail: number | null;
  readonly bits: WavDepth;
  readonly keep?: string | true;
  readonly goes: 'shelf' | 'track' | 'instead';
}

const MAX_TAIL_BARS = 64;

function readTail(text: string): number | null {
  if (text === 'silent') return null;
  const bars = Number(text);
  if (text.trim() === '' || !(bars >= 0 && bars <= MAX_TAIL_BARS))
    throw new InvalidArgumentError(`It takes silent or 0 to ${MAX_TAIL_BARS} bars.`);
  return bars;
}

function orderOf(piece: Piece, options: Options): PrintOrder {
  const channel = channelNamed(piece, options.channel);
  const { part, goes } = options;
  const common = { channel, part, tailBars: options.tail, ...(goes === 'shelf' ? {} : { goes }) };
  if (options.clip === undefined) {
    const { start, end } = beatsOfBars(piece, options);
    return { ...common, clip: null, fromBeat: start, toBeat: end };
  }
  const clips = piece.tracks.find(({ id }) => id === channel)?.clips ?? [];
  const wanted = options.clip.toLowerCase();
  const clip = clips.find(({ id, name }) => id === options.clip || name.toLowerCase() === wanted);
  if (!clip)
    throw new BadData(
      `There is no clip "${options.clip}" there. There are: ${clips.map(({ name }) => name).join(', ')}.`,
    );
  return { ...common, clip: clip.id, fromBeat: clip.start, toBeat: clipEnd(piece, clip) };
}

function renderPrint(opened: OpenedPiece, order: PrintOrder): SoundData {
  const job = planPrint(opened.piece, order);
  const rendered = render({ ...job, sounds: loadSounds(opened, soundsPlayed(opened.piece)) })!;
  if (rendered.cutShort) process.stderr.write('The tail had not died away after 120 s and was cut there.\n');
  return [rendered.left, rendered.right];
}

/** Puts a print on the Shelf of the piece, and on a track where that was asked for. */
async function keep(opened: OpenedPiece, order: PrintOrder, channels: SoundData, options: Options): Promise<void> {
  const { piece } = opened;
  const sound = madeSound(channels, piece.sampleRate);
  const name = printName(piece, order);
  const changed = edited(
    opened,
    addPrintEdit,
    {
      print: printRecord(piece, order, { id: randomUUID(), name, sound: sound.hash, madeAt: new Date().toISOString() }),
      sound: { name, frames: channels[0]!.length, sampleRate: piece.sampleRate, channels: 2 },
      ...(order.goes ? { place: { clip: randomUUID(), track: randomUUID(), instead: order.goes === 'instead' } } : {}),
    },
    [sound],
  );
  await keepPiece(changed, typeof options.keep === 'string' ? options.keep : null, options);
}

async function printTo(opened: OpenedPiece, out: string | undefined, options: Options): Promise<void> {
  const order = orderOf(opened.piece, options);
  const channels = renderPrint(opened, order);
  const path = out ?? `${fileName(printName(opened.piece, order))}.wav`;
  writeSound(path, { sampleRate: opened.piece.sampleRate, channels: [...channels] }, options.bits);
  process.stdout.write(`${path}\n`);
  if (options.keep) await keep(opened, order, channels, options);
}

export function addPrint(program: Command): void {
  const command = program
    .command('print')
    .description('Prints a clip, a stretch of a channel or the main output with its effects and moves.')
    .argument('<PIECE>', PIECE_HELP)
    .argument('[OUT.wav]', 'The file to write; named after what is printed when left out.')
    .requiredOption('--channel <name>', 'Track, return, or main.')
    .option('--clip <name>', 'A clip of the track, instead of a stretch.')
    .addOption(
      choiceOption(
        '--part <what>',
        'mix keeps the dry sound, wet leaves it out, dry is nothing else.',
        ['mix', 'wet', 'dry'],
        'mix',
      ),
    )
    .option('--tail <silent|bars>', 'How long it rings after its end.', readTail, null)
    .addOption(bitsOption())
    .option(
      '--keep [PIECE]',
      'Puts the print on the Shelf of the piece too: in the data folder, or in this .json or .zip.',
    )
    .addOption(
      choiceOption(
        '--goes <where>',
        'With --keep: to the Shelf alone, where it came from on a track for prints, or instead of its clip.',
        ['shelf', 'track', 'instead'],
        'shelf',
      ),
    )
    .action(async (word: string, out: string | undefined, options: Options) =>
      withPiece(word, options, (opened) => printTo(opened, out, options)),
    );
  withBars(command, 'The whole piece when left out.');
  withFolders(command);
  withExample(
    command,
    'npm run -s cli -- print salt-pier wet.wav --channel "Humming voice" --from 5 --to 9 --part wet',
  );
}

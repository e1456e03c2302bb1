import { InvalidArgumentError, type Command } from 'commander';
import { randomUUID } from 'node:crypto';
import { effectOf } from '../../src/core/effects/catalogue';
import { barsUpTo } from '../../src/core/music/grid';
import { metreName, metreSpans } from '../../src/core/music/metre';
import { nameSchema } from '../../src/core/piece/fields';
import type { Piece, Slot } from '../../src/core/piece/piece';
import { tempoOf } from '../../src/core/piece/tempoOf';
import { TEMPLATES } from '../../src/core/piece/templates';
import { choiceOption, numberIn, PIECE_HELP, withExample, withFolders, type Folders } from '../arguments';
import { DataFolder } from '../pieces/dataFolder';
import { withPiece } from '../pieces/readPieceFrom';
import { keepPiece } from '../pieces/writePiece';

interface Json {
  readonly json?: true;
}

const print = (line: string): void => void process.stdout.write(`${line}\n`);
const effects = (chain: readonly Slot[]): string =>
  chain.map(({ effect }) => effectOf(effect).name).join(', ') || 'none';
const counted = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;

function summary(piece: Piece): string[] {
  const { tempo, lengthBeats, tracks, returns, main, lanes, prints, sounds } = piece;
  const metres = metreSpans(tempoOf(piece));
  const bars = barsUpTo(lengthBeats, tempoOf(piece));
  return [
    `${piece.name} (${piece.id})`,
    [`${tempo.bpm} BPM`, ...metres.map(metreName), counted(bars, 'bar'), `${piece.sampleRate} Hz`].join(', '),
    ...tracks.map(
      ({ name, clips, chain }) => `Track ${name}: ${counted(clips.length, 'clip')}; effects: ${effects(chain)}`,
    ),
    ...returns.map(({ name, chain }) => `Return ${name}: effects: ${effects(chain)}`),
    `Main output: effects: ${effects(main.chain)}`,
    [counted(lanes.length, 'lane'), counted(prints.length, 'print'), counted(Object.keys(sounds).length, 'sound')].join(
      ', ',
    ),
  ];
}

function addListCommand(piece: Command): void {
  const list = piece
    .command('list')
    .description('Lists the pieces of the data folder, last changed first.')
    .option('--data <folder>', 'Data folder of the server.', 'data')
    .option('--json', 'Prints JSON.')
    .action(({ data, json }: Folders & Json) => {
      const pieces = DataFolder.use(data, (folder) => folder.pieces.list());
      if (json) print(JSON.stringify({ pieces }, null, 2));
      else for (const { id, name, updatedAt } of pieces) print(`${id}\t${name}\t${updatedAt}`);
    });
  withExample(list, 'npm run -s cli -- piece list');
}

function addShowCommand(piece: Command): void {
  const show = piece
    .command('show')
    .description('Says what is in a piece.')
    .argument('<PIECE>', PIECE_HELP)
    .option('--json', 'Prints the whole piece as JSON.')
    .action(async (word: string, options: Folders & Json) =>
      withPiece(word, options, ({ piece: shown }) => {
        if (options.json) print(JSON.stringify(shown, null, 2));
        else summary(shown).forEach(print);
      }),
    );
  withFolders(show);
  withExample(show, 'npm run -s cli -- piece show salt-pier');
}

interface New extends Folders {
  readonly template: string;
  readonly bpm?: number;
  readonly rate?: number;
}

/** The name of a piece, without spaces around it. @throws InvalidArgumentError */
function pieceName(text: string): string {
  const name = nameSchema.safeParse(text);
  if (!name.success) throw new InvalidArgumentError('A name has 1 to 120 characters.');
  return name.data;
}

async function makePiece(name: string, out: string | undefined, options: New): Promise<void> {
  const { bpm, rate } = options;
  const made = TEMPLATES.find(({ id }) => id === options.template)!.make(randomUUID(), randomUUID);
  const piece: Piece = {
    ...made,
    name,
    sampleRate: rate ?? made.sampleRate,
    tempo: { ...made.tempo, bpm: bpm ?? made.tempo.bpm },
  };
  if (out !== undefined)
    await keepPiece({ piece, history: { entries: [], cursor: 0 }, wavOf: () => undefined }, out, options);
  else DataFolder.use(options.data, ({ pieces }) => pieces.create(piece), true);
  print(piece.id);
}

function addNewCommand(piece: Command): void {
  const made = piece
    .command('new')
    .description('Makes a piece and prints its id.')
    .argument('<NAME>', 'Its name.', pieceName)
    .argument('[OUT]', 'A file (.json) or an archive (.zip); the data folder when left out.')
    .addOption(
      choiceOption(
        '--template <id>',
        'What it begins with.',
        TEMPLATES.map(({ id }) => id),
        'empty',
      ),
    )
    .option('--bpm <number>', 'Its tempo.', numberIn(20, 300))
    .option('--rate <hz>', 'Its sample rate.', numberIn(44_100, 96_000))
    .action(makePiece);
  withFolders(made);
  withExample(made, 'npm run -s cli -- piece new "Slack water" --template live --bpm 104');
}

export function addPiece(program: Command): void {
  const piece = program.command('piece').description('Lists, shows and makes pieces.');
  addListCommand(piece);
  addShowCommand(piece);
  addNewCommand(piece);
}

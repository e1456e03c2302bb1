import type { Command } from 'commander';
import { randomUUID } from 'node:crypto';
import { extname } from 'node:path';
import { BadData } from '../../src/core/exchange/chainFile';
import { readMovesCsv, writeMovesCsv, type ReadMoves } from '../../src/core/exchange/movesCsv';
import { readMovesMidi, writeMovesMidi } from '../../src/core/exchange/movesMidi';
import { layMoves } from '../../src/core/piece/edits/lanes';
import { channelOfTarget } from '../../src/core/piece/find';
import type { Piece } from '../../src/core/piece/piece';
import { choiceOption, OUT_HELP, PIECE_HELP, UsageError, withExample, withFolders, type Folders } from '../arguments';
import { readBytes, writeWhole } from '../files';
import { channelNamed } from '../pieces/openedPiece';
import { withPiece } from '../pieces/readPieceFrom';
import { edited, keepPiece } from '../pieces/writePiece';

const KINDS = 'A table (.csv) or a MIDI file (.mid).';

/** What kind of file a path names. @throws UsageError */
function kindOf(path: string): 'csv' | 'mid' {
  const kind = extname(path).toLowerCase();
  if (kind === '.csv') return 'csv';
  if (kind === '.mid' || kind === '.midi') return 'mid';
  throw new UsageError(`${path} has to end with .csv or .mid.`);
}

function writeMoves(piece: Piece, path: string, { channel, bits }: { channel?: string; bits: '7' | '14' }): void {
  const kind = kindOf(path);
  const wanted = channel === undefined ? null : channelNamed(piece, channel);
  const lanes = piece.lanes.filter(({ target }) => wanted === null || channelOfTarget(target) === wanted);
  if (lanes.length === 0) throw new BadData('There are no moves to write there.');
  if (kind === 'mid') writeWhole(path, writeMovesMidi(piece, lanes, bits === '7' ? 7 : 14));
  else writeWhole(path, Buffer.from(writeMovesCsv(piece, lanes)));
  process.stdout.write(`${lanes.length} ${lanes.length === 1 ? 'lane' : 'lanes'} written.\n`);
}

function readMoves(piece: Piece, path: string): ReadMoves {
  const kind = kindOf(path);
  const bytes = readBytes(path);
  if (kind === 'csv') return readMovesCsv(piece, Buffer.from(bytes).toString('utf8'), randomUUID);
  const { lanes, missed, loose } = readMovesMidi(piece, bytes, randomUUID);
  const nameless =
    loose.length === 0 ? [] : [`${loose.length} controllers have no name of this piece and were left out.`];
  return { lanes, missed: [...missed, ...nameless] };
}

export function addMoves(program: Command): void {
  const moves = program.command('moves').description('Moves of a piece to and from MIDI files and tables.');
  const write = moves
    .command('write')
    .description('Writes lanes to a file.')
    .argument('<PIECE>', PIECE_HELP)
    .argument('<OUT>', KINDS)
    .option('--channel <name>', 'Only the moves of this track, return or main.')
    .addOption(choiceOption('--bits <depth>', 'Of controllers in a MIDI file.', ['7', '14'], '14'))
    .action(async (word: string, path: string, options: Folders & { channel?: string; bits: '7' | '14' }) =>
      withPiece(word, options, ({ piece }) => writeMoves(piece, path, options)),
    );
  withFolders(write);
  withExample(write, 'npm run -s cli -- moves write night-ferry ferry.csv');
  const read = moves
    .command('read')
    .description('Reads lanes from a file into a piece; those that are there already are replaced.')
    .argument('<PIECE>', PIECE_HELP)
    .argument('<FILE>', KINDS)
    .argument('[OUT]', OUT_HELP)
    .action(async (word: string, path: string, out: string | undefined, options: Folders) =>
      withPiece(word, options, async (opened) => {
        const { lanes, missed } = readMoves(opened.piece, path);
        if (lanes.length === 0)
          throw new BadData(`No lane of ${path} fits this piece; nothing was changed. ${missed.join(' ')}`.trim());
        for (const line of missed) process.stderr.write(`${line}\n`);
        await keepPiece(edited(opened, layMoves, { lanes: [...lanes], what: 'Import moves' }), out ?? null, options);
        process.stdout.write(`${lanes.length} ${lanes.length === 1 ? 'lane' : 'lanes'} imported.\n`);
      }),
    );
  withFolders(read);
  withExample(read, 'npm run -s cli -- moves read salt-pier moves.mid moved.zip');
}

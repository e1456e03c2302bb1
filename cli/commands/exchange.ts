import type { Command } from 'commander';
import { BadData } from '../../src/core/exchange/chainFile';
import { PIECE_HELP, UsageError, withExample, withFolders, type Folders } from '../arguments';
import { DataFolder } from '../pieces/dataFolder';
import type { OpenedPiece } from '../pieces/openedPiece';
import { withPiece } from '../pieces/readPieceFrom';
import { keepPiece } from '../pieces/writePiece';

/** Takes a piece with all its sounds into a data folder. @returns its id there */
function bringIn({ piece, history, wavOf }: OpenedPiece, folder: string): string {
  const missing = Object.entries(piece.sounds).find(([hash]) => wavOf(hash) === undefined);
  if (missing) throw new BadData(`The sound "${missing[1].name}" of the piece is missing. Nothing was changed.`);
  return DataFolder.use(
    folder,
    (data) => {
      for (const [hash, info] of Object.entries(piece.sounds)) data.addSound(hash, info, wavOf(hash)!);
      return data.pieces.bringIn(piece, history);
    },
    true,
  );
}

/** Commands that bring pieces into the data folder and out of it. */
export function addDataCommands(program: Command): void {
  const bring = program
    .command('import')
    .description('Brings a piece file or an archive into the data folder and prints its id there.')
    .argument('<FILE>', 'An archive (.zip) or a piece file (.json) with its sounds in "sounds" beside it.')
    .action(async (path: string, options: Folders) => {
      if (!/\.(zip|json)$/.test(path)) throw new UsageError(`${path} has to end with .json or .zip.`);
      const id = await withPiece(path, options, (opened) => bringIn(opened, options.data));
      process.stdout.write(`${id}\n`);
    });
  withFolders(bring);
  withExample(bring, 'npm run -s cli -- import ferry.zip');
  const take = program
    .command('export')
    .description('Writes a piece with its history and its sounds to an archive, or as a piece file.')
    .argument('<PIECE>', PIECE_HELP)
    .argument('<OUT>', 'An archive (.zip), or a piece file (.json) with its sounds in "sounds" beside it.')
    .action(async (word: string, path: string, options: Folders) =>
      withPiece(word, options, (opened) => keepPiece(opened, path, options)),
    );
  withFolders(take);
  withExample(take, 'npm run -s cli -- export salt-pier pier.zip');
}

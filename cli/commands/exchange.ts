import type { Command } from 'commander';
import { createHash } from 'node:crypto';
import { BadData } from '../../src/core/exchange/chainFile';
import type { SoundInfo } from '../../src/core/piece/soundInfo';
import { PIECE_HELP, UsageError, withExample, withFolders, type Folders } from '../arguments';
import { soundOfBytes } from '../files';
import { DataFolder } from '../pieces/dataFolder';
import { wavBytes, type OpenedPiece } from '../pieces/openedPiece';
import { withPiece } from '../pieces/readPieceFrom';
import { keepPiece } from '../pieces/writePiece';

/** The WAV of a sound, checked against the figures in the piece. @throws BadData where it is missing or differs */
function checkedSound({ wavOf }: OpenedPiece, hash: string, info: SoundInfo): Uint8Array {
  const named = `The sound "${info.name}" of the piece`;
  const wav = wavOf(hash);
  if (wav === undefined) throw new BadData(`${named} is missing. Nothing was stored.`);
  const bytes = wavBytes(wav);
  if (createHash('sha256').update(bytes).digest('hex') !== hash)
    throw new BadData(`${named} does not match: ${hash}.wav was changed after it was saved. Nothing was stored.`);
  const { channels, sampleRate } = soundOfBytes(bytes, info.name);
  const found = { frames: channels[0]?.length, sampleRate, channels: channels.length };
  const wrong = (['frames', 'sampleRate', 'channels'] as const).find((figure) => found[figure] !== info[figure]);
  if (wrong)
    throw new BadData(`${named}: its ${wrong} is ${found[wrong]}, not ${info[wrong]} as said. Nothing was stored.`);
  return bytes;
}

/** Takes a piece with all its sounds into a data folder. @returns its id there @throws BadData, storing nothing */
function bringIn(opened: OpenedPiece, folder: string): string {
  const { piece, history } = opened;
  const sounds = Object.entries(piece.sounds);
  // All of them are looked at before the first is stored; none is kept, as there may be many long ones.
  for (const [hash, info] of sounds) checkedSound(opened, hash, info);
  return DataFolder.use(
    folder,
    (data) => {
      for (const [hash, info] of sounds) data.addSound(hash, info, checkedSound(opened, hash, info));
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

import type { Command } from 'commander';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import type { SoundData } from '../../src/core/dsp/soundData';
import { compilePlan } from '../../src/core/engine/compilePlan';
import { render } from '../../src/core/engine/render';
import { fileName } from '../../src/core/files/names';
import { soundsPlayed, stemOf } from '../../src/core/files/parts';
import type { WavDepth } from '../../src/core/formats/writeWav';
import { beatsToSamples } from '../../src/core/music/tempo';
import type { Piece } from '../../src/core/piece/piece';
import { tempoOf } from '../../src/core/piece/tempoOf';
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
import { beatsOfBars, loadSounds } from '../pieces/openedPiece';
import { withPiece } from '../pieces/readPieceFrom';

interface Options extends Folders, Bars {
  readonly stems?: string;
  readonly tail: 'auto' | 'none';
  readonly bits: WavDepth;
}

/** Renders a stretch of a piece to a file. */
function renderTo(path: string, piece: Piece, sounds: ReadonlyMap<string, SoundData>, options: Options): void {
  const { start, end } = beatsOfBars(piece, options);
  const at = (beat: number): number => beatsToSamples(beat, tempoOf(piece), piece.sampleRate);
  const rendered = render({
    plan: compilePlan({ ...piece, loop: { ...piece.loop, on: false } }),
    sounds,
    fromSample: at(start),
    toSample: at(end),
    tail: options.tail === 'auto' ? { kind: 'silent' } : { kind: 'seconds', seconds: 0 },
  });
  if (rendered)
    writeSound(path, { sampleRate: piece.sampleRate, channels: [rendered.left, rendered.right] }, options.bits);
}

export function addRender(program: Command): void {
  const command = program
    .command('render')
    .description('Renders a piece to audio, whole or in part, and its tracks as stems.')
    .argument('<PIECE>', PIECE_HELP)
    .argument('<OUT.wav>', 'The file to write, in stereo.')
    .option('--stems <folder>', 'Writes each track alone, with what it sends, into this folder besides.')
    .addOption(
      choiceOption('--tail <how>', 'Lets it ring until silent, or cuts it at the end.', ['auto', 'none'], 'auto'),
    )
    .addOption(bitsOption())
    .action(async (word: string, out: string, options: Options) =>
      withPiece(word, options, (opened) => {
        const { piece } = opened;
        const sounds = loadSounds(opened, soundsPlayed(piece));
        const folder = options.stems;
        // Before the first file is rendered: a folder that cannot be made leaves everything as it was.
        if (folder) mkdirSync(folder, { recursive: true });
        renderTo(out, piece, sounds, options);
        if (!folder) return;
        piece.tracks.forEach((track, i) => {
          const name = `${String(i + 1).padStart(2, '0')} ${fileName(track.name)}.wav`;
          renderTo(join(folder, name), stemOf(piece, track), sounds, options);
        });
      }),
    );
  withBars(command, 'The whole piece when left out.');
  withFolders(command);
  withExample(command, 'npm run -s cli -- render salt-pier pier.wav --from 3 --to 5 --stems stems');
}

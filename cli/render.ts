import type { SoundData } from '../src/core/dsp/soundData';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { resample } from '../src/core/dsp/resample';
import { compilePlan } from '../src/core/engine/compilePlan';
import { render } from '../src/core/engine/render';
import { BadData } from '../src/core/exchange/chainFile';
import { beatsToSamples } from '../src/core/music/tempo';
import { tempoOf } from '../src/core/piece/tempoOf';
import { barStart } from '../src/core/music/grid';
import { soundsPlayed, stemOf } from '../src/core/files/parts';
import type { Piece } from '../src/core/piece/piece';
import { readPiece, UnreadablePiece } from '../src/core/piece/versions/readPiece';
import { makeSaltPier, SALT_PIER_ID } from '../src/core/sounds/saltPier';
import { choiceOption, numberOption, readArguments, UsageError, wordAt } from './arguments';
import { readJson, readSound, writeSound } from './files';

type Sounds = ReadonlyMap<string, SoundData>;

/** render PIECE OUT.wav: a piece file (or `salt-pier`, made afresh) to audio, whole, in part or as stems. */
export function renderCommand(given: readonly string[]): void {
  const args = readArguments(given, ['stems', 'from', 'to', 'bits', 'sounds', 'tail'], [], 2);
  const name = wordAt(args, 0, 'PIECE');
  const out = wordAt(args, 1, 'OUT.wav');
  const depth = choiceOption(args, 'bits', ['16', '24', '32f'] as const, '32f');
  const tail = choiceOption(args, 'tail', ['auto', 'none'] as const, 'auto');
  const { piece, sounds } =
    name === SALT_PIER_ID ? freshDemo() : storedPiece(name, args.options.get('sounds') ?? join('data', 'sounds'));
  const from = numberOption(args, 'from', 1, 100_000) ?? 1;
  const to = numberOption(args, 'to', 1, 100_000) ?? piece.lengthBeats / piece.tempo.beatsPerBar + 1;
  if (to <= from) throw new UsageError('--to must lie after --from.');
  const one = (part: Piece, path: string): void => {
    const at = (bar: number): number => beatsToSamples(barStart(bar, part.tempo), tempoOf(part), part.sampleRate);
    const plan = compilePlan({ ...part, loop: { ...part.loop, on: false } });
    const rendered = render({
      plan,
      sounds,
      fromSample: at(from),
      toSample: at(to),
      tail: tail === 'auto' ? { kind: 'silent' } : { kind: 'seconds', seconds: 0 },
    });
    if (rendered) writeSound(path, { sampleRate: part.sampleRate, channels: [rendered.left, rendered.right] }, depth);
  };
  one(piece, out);
  const stems = args.options.get('stems');
  if (!stems) return;
  mkdirSync(stems, { recursive: true });
  piece.tracks.forEach((track, i) =>
    one(
      stemOf(piece, track),
      join(stems, `${String(i + 1).padStart(2, '0')} ${track.name.replace(/[^\p{L}\p{N} -]/gu, '')}.wav`),
    ),
  );
}

function freshDemo(): { piece: Piece; sounds: Sounds } {
  const demo = makeSaltPier((bytes) => createHash('sha256').update(bytes).digest('hex'));
  return { piece: demo.piece, sounds: new Map(demo.sounds.map((sound) => [sound.hash, sound.channels])) };
}

function storedPiece(path: string, folder: string): { piece: Piece; sounds: Sounds } {
  let piece: Piece;
  try {
    piece = readPiece(readJson(path));
  } catch (error) {
    if (error instanceof UnreadablePiece) throw new BadData(`${path}: ${error.message}`);
    throw error;
  }
  const sounds = new Map<string, SoundData>();
  for (const hash of soundsPlayed(piece)) {
    const file = join(folder, `${hash}.wav`);
    if (!existsSync(file))
      throw new BadData(
        `The sound "${piece.sounds[hash]?.name ?? hash}" is not in ${folder}. Give its folder with --sounds.`,
      );
    const audio = readSound(file);
    sounds.set(
      hash,
      audio.channels.map((channel) => resample(channel, audio.sampleRate, piece.sampleRate)),
    );
  }
  return { piece, sounds };
}

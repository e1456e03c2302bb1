import { readFileSync } from 'node:fs';
import { resample } from '../../src/core/dsp/resample';
import type { SoundData } from '../../src/core/dsp/soundData';
import type { History } from '../../src/core/api/schemas';
import { BadData } from '../../src/core/exchange/chainFile';
import type { Audio } from '../../src/core/formats/audio';
import { barStart } from '../../src/core/music/grid';
import { channelIds, channelName } from '../../src/core/piece/find';
import type { Piece, Track } from '../../src/core/piece/piece';
import { tempoOf } from '../../src/core/piece/tempoOf';
import { reasonOf } from '../../src/core/reasonOf';
import { soundOfBytes } from '../files';

/** A sound as it is stored: a path, or bytes of a WAV. */
export type StoredWav = string | Uint8Array;

/** A piece that a command works with: from a file, an archive or a data folder. */
export interface OpenedPiece {
  readonly piece: Piece;
  readonly history: History;
  /** Where the sound of this hash is; undefined where it is missing. */
  readonly wavOf: (hash: string) => StoredWav | undefined;
  /** Its revision, for one of the data folder. */
  readonly revision?: number;
}

export function wavBytes(wav: StoredWav): Uint8Array {
  if (typeof wav !== 'string') return wav;
  try {
    return readFileSync(wav);
  } catch (error) {
    throw new BadData(`${wav} cannot be read: ${reasonOf(error)}.`);
  }
}

function soundOf({ piece, wavOf }: OpenedPiece, hash: string): Audio {
  const name = piece.sounds[hash]?.name ?? hash;
  const wav = wavOf(hash);
  if (wav === undefined)
    throw new BadData(`The sound "${name}" of the piece is missing. Give the folder of its sounds with --sounds.`);
  return soundOfBytes(wavBytes(wav), typeof wav === 'string' ? wav : name);
}

/**
 * Samples of sounds at the piece's rate.
 * @throws BadData where one is missing
 */
export function loadSounds(opened: OpenedPiece, hashes: Iterable<string>): Map<string, SoundData> {
  const sounds = new Map<string, SoundData>();
  for (const hash of hashes) {
    const { channels, sampleRate } = soundOf(opened, hash);
    sounds.set(
      hash,
      channels.map((channel) => resample(channel, sampleRate, opened.piece.sampleRate)),
    );
  }
  return sounds;
}

/**
 * The channel of this name (whatever the case of its letters) or id.
 * @throws BadData listing those that there are
 */
export function channelNamed(piece: Piece, wanted: string): string {
  const ids = channelIds(piece);
  const alike = ids.filter((id) => channelName(piece, id).toLowerCase() === wanted.toLowerCase());
  const found = ids.find((id) => id === wanted) ?? alike[0];
  if (found === undefined)
    throw new BadData(
      `There is no channel "${wanted}". There are: ${ids.map((id) => channelName(piece, id)).join(', ')}.`,
    );
  if (alike.length > 1 && !ids.includes(wanted))
    throw new BadData(`${alike.length} channels are called "${wanted}": give one of the ids ${alike.join(', ')}.`);
  return found;
}

/** The track of this name or id. @throws BadData */
export function trackNamed(piece: Piece, wanted: string): Track {
  const id = channelNamed(piece, wanted);
  const track = piece.tracks.find((one) => one.id === id);
  if (!track) throw new BadData(`"${wanted}" is no track: it has no clips.`);
  return track;
}

/** A range in bars as one in beats; the whole piece by default. @throws BadData when it is empty */
export function beatsOfBars(
  piece: Piece,
  { from, to }: { readonly from?: number; readonly to?: number },
): { start: number; end: number } {
  const tempo = tempoOf(piece);
  const start = from === undefined ? 0 : barStart(from, tempo);
  const end = to === undefined ? piece.lengthBeats : barStart(to, tempo);
  if (end <= start) throw new BadData('The stretch is empty: --to has to be a later bar than --from.');
  return { start, end };
}

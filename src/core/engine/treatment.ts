import type { SoundData } from '../dsp/soundData';
import { emptyPiece, type Lane, type Piece, type Slot } from '../piece/piece';
import { plainClip, plainTrack } from '../piece/plain';
import type { Tail } from './render';
import type { Hear } from './slot';

/** Id of the one sound of a treatment in its plan. */
export const TREATED_SOUND = '0'.repeat(64);
/** Id of the channel that lanes of a treatment must target. */
export const TREATED_CHANNEL = 'treated';

export interface Treatment {
  readonly sound: SoundData;
  /** Sounds that its effects use. */
  readonly others?: ReadonlyMap<string, SoundData>;
  readonly sampleRate: number;
  readonly bpm: number;
  readonly chain: readonly Slot[];
  readonly lanes?: readonly Lane[];
  readonly tail: Tail;
  readonly hear: Hear;
}

/** A piece of one clip at its beginning, through one chain. */
export function treatmentPiece(treatment: Treatment): Piece {
  const frames = treatment.sound[0]?.length ?? 0;
  const lengthSeconds = frames / treatment.sampleRate;
  return {
    ...emptyPiece('treatment', 'Treatment'),
    sampleRate: treatment.sampleRate,
    tempo: { bpm: treatment.bpm, beatsPerBar: 4 },
    lengthBeats: Math.max(1, (lengthSeconds * treatment.bpm) / 60),
    sounds: {
      [TREATED_SOUND]: {
        name: 'input',
        frames,
        sampleRate: treatment.sampleRate,
        channels: treatment.sound.length > 1 ? 2 : 1,
      },
    },
    tracks: [
      plainTrack(
        TREATED_CHANNEL,
        'Input',
        [plainClip('clip', 'input', TREATED_SOUND, 0, lengthSeconds)],
        treatment.chain,
      ),
    ],
    lanes: [...(treatment.lanes ?? [])],
  };
}

import { writeWav } from '../formats/writeWav';
import type { Clip, Piece, Track } from '../piece/piece';
import { SOUND_RATE } from './tools';

/** A sound of a demo as it is kept on disk. */
export interface DemoSound {
  readonly hash: string;
  readonly bytes: Uint8Array;
  readonly channels: Float32Array[];
}

export interface Demo {
  readonly piece: Piece;
  readonly sounds: readonly DemoSound[];
}

/** A synthesised sound, and the bars at which it is heard, from 1. */
export interface Part {
  readonly name: string;
  readonly bar: number | readonly number[];
  readonly channels: Float32Array[];
}

/** Assembles a demo piece from synthesised sounds. */
export class DemoBuilder {
  private readonly sounds: DemoSound[] = [];
  private clips = 0;

  /** @param hashOf SHA-256 of a file's bytes, as hexadecimal text */
  constructor(
    readonly piece: Piece,
    private readonly hashOf: (bytes: Uint8Array) => string,
  ) {}

  /** A track whose clips are its parts, each stored once however often it is heard. */
  track(named: Pick<Track, 'id' | 'name' | 'gain' | 'pan'>, parts: readonly Part[]): Track {
    return {
      ...named,
      mute: false,
      solo: false,
      clips: parts.flatMap((part) => this.store(part)),
      chain: [],
      sends: [],
    };
  }

  demo(more: Partial<Piece>): Demo {
    return { piece: { ...this.piece, ...more }, sounds: this.sounds };
  }

  private store({ name, bar, channels }: Part): Clip[] {
    const bytes = writeWav({ sampleRate: SOUND_RATE, channels }, '32f');
    const hash = this.hashOf(bytes);
    const frames = channels[0]!.length;
    this.sounds.push({ hash, bytes, channels });
    this.piece.sounds[hash] = { name, frames, sampleRate: SOUND_RATE, channels: channels.length === 2 ? 2 : 1 };
    return [bar].flat().map((at): Clip => ({
      id: `clip-${(this.clips += 1)}`,
      name,
      sound: hash,
      start: (at - 1) * this.piece.tempo.beatsPerBar,
      offsetSeconds: 0,
      lengthSeconds: frames / SOUND_RATE,
      gain: 1,
      fadeInSeconds: 0,
      fadeOutSeconds: 0,
      print: null,
    }));
  }
}

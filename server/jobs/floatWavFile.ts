import { createHash } from 'node:crypto';
import { FLOAT_WAV_HEAD_BYTES } from '../../src/core/formats/floatWav';
import { wavHead } from '../../src/core/formats/wavHead';
import { GrowingFile } from '../exports/growingFile';

export interface WrittenSound {
  /** SHA-256 of the whole file. */
  readonly hash: string;
  readonly frames: number;
  readonly sampleRate: number;
  readonly channels: number;
  /** Largest magnitude of any sample. */
  readonly peak: number;
}

/** Read back at once for the hash. */
const HASHED_BYTES = 1 << 20;

/** A sound in the form that the server keeps (32-bit float WAV at its own rate), written block by block. */
export class FloatWavFile {
  private readonly file: GrowingFile;
  private interleaved = new Float32Array(0);
  private peak = 0;
  frames = 0;

  constructor(
    path: string,
    readonly sampleRate: number,
    readonly channels: number,
  ) {
    this.file = new GrowingFile(path);
    this.file.append(new Uint8Array(FLOAT_WAV_HEAD_BYTES));
  }

  /**
   * Appends the first `frames` of each channel. Samples that are not finite, which some float files hold, become
   * silence.
   */
  write(channels: readonly Float32Array[], frames: number): void {
    const count = this.channels;
    if (this.interleaved.length < frames * count) this.interleaved = new Float32Array(frames * count);
    const out = this.interleaved;
    for (let c = 0; c < count; c += 1) {
      const channel = channels[c]!;
      for (let i = 0, at = c; i < frames; i += 1, at += count) {
        const sample = channel[i]!;
        const finite = Number.isFinite(sample) ? sample : 0;
        this.peak = Math.max(this.peak, Math.abs(finite));
        out[at] = finite;
      }
    }
    this.frames += frames;
    this.file.append(new Uint8Array(out.buffer, 0, 4 * frames * count));
  }

  /** Writes the header, makes sure that all of it is on the disk, and closes the file. */
  finish(): WrittenSound {
    const { frames, sampleRate, channels, peak } = this;
    this.file.overwrite(wavHead({ channels, sampleRate, depth: '32f', frames }), 0);
    const hash = createHash('sha256');
    const bytes = new Uint8Array(HASHED_BYTES);
    for (let at = 0; at < this.file.length; at += HASHED_BYTES)
      hash.update(bytes.subarray(0, this.file.read(bytes, at)));
    this.file.finish();
    return { hash: hash.digest('hex'), frames, sampleRate, channels, peak };
  }

  /** Closes a file that will be thrown away. */
  discard(): void {
    this.file.discard();
  }
}

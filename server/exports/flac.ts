import { createRequire } from 'node:module';

/** Samples that are handed over at a time. */
const BLOCK = 4096;
const LEVEL = 5;

interface FlacLibrary {
  isReady(): boolean;
  on(event: 'ready', act: () => void): void;
  create_libflac_encoder(rate: number, channels: number, bits: number, level: number, frames: number): number;
  init_encoder_stream(
    encoder: number,
    write: (data: Uint8Array) => void,
    described: (data: {
      readonly min_framesize: number;
      readonly max_framesize: number;
      readonly md5sum: string;
    }) => void,
  ): number;
  FLAC__stream_encoder_process_interleaved(encoder: number, samples: Int32Array, frames: number): boolean;
  FLAC__stream_encoder_finish(encoder: number): boolean;
  FLAC__stream_encoder_delete(encoder: number): void;
}

/** The FLAC reference encoder, compiled to run here: the plain JavaScript form, which loads in one piece. */
async function library(): Promise<FlacLibrary> {
  const load = createRequire(`${__dirname}/`)('libflacjs') as (variant: string) => FlacLibrary;
  const made = load('release');
  if (!made.isReady()) await new Promise<void>((resolve) => made.on('ready', resolve));
  return made;
}

/** Writes FLAC frame by frame; the stream info is known at the end and written over the beginning. */
export class FlacWriter {
  private readonly buffer: Int32Array;
  private described: {
    readonly min_framesize: number;
    readonly max_framesize: number;
    readonly md5sum: string;
  } | null = null;

  private constructor(
    private readonly flac: FlacLibrary,
    private readonly encoder: number,
    private readonly channels: number,
    private readonly put: { write(bytes: Uint8Array): void },
  ) {
    this.buffer = new Int32Array(BLOCK * channels);
    const state = flac.init_encoder_stream(
      encoder,
      (data) => put.write(data),
      (data) => {
        this.described = data;
      },
    );
    if (state !== 0) throw new Error(`The FLAC encoder could not be started (${state}).`);
  }

  static async begin(
    rate: number,
    channels: number,
    bits: 16 | 24,
    frames: number,
    write: (bytes: Uint8Array) => void,
  ): Promise<FlacWriter> {
    const flac = await library();
    const encoder = flac.create_libflac_encoder(rate, channels, bits, LEVEL, frames);
    if (encoder === 0) throw new Error('The FLAC encoder could not be started.');
    return new FlacWriter(flac, encoder, channels, { write });
  }

  /** @param step gives a sample of a channel as an integer */
  write(frames: number, step: (channel: number, frame: number) => number): void {
    const { buffer, channels } = this;
    for (let from = 0; from < frames; from += BLOCK) {
      const n = Math.min(BLOCK, frames - from);
      for (let i = 0, at = 0; i < n; i += 1)
        for (let c = 0; c < channels; c += 1, at += 1) buffer[at] = step(c, from + i);
      if (!this.flac.FLAC__stream_encoder_process_interleaved(this.encoder, buffer, n))
        throw new Error('The FLAC encoder refused the sound.');
    }
  }

  /**
   * @returns what belongs at byte 12 of the file: least and most size of a frame; and at byte 26: the sum over its
   * samples
   */
  finish(): { readonly sizes: Uint8Array; readonly md5: Uint8Array } {
    this.flac.FLAC__stream_encoder_finish(this.encoder);
    this.flac.FLAC__stream_encoder_delete(this.encoder);
    const {
      min_framesize: least,
      max_framesize: most,
      md5sum,
    } = this.described ?? { min_framesize: 0, max_framesize: 0, md5sum: '0'.repeat(32) };
    return {
      sizes: Uint8Array.of(least >> 16, (least >> 8) & 255, least & 255, most >> 16, (most >> 8) & 255, most & 255),
      md5: Uint8Array.from({ length: 16 }, (_, i) => parseInt(md5sum.slice(2 * i, 2 * i + 2), 16)),
    };
  }
}

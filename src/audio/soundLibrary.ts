import { RestartingWorker } from './restartingWorker';
import { fromLoader, type ToLoader } from './soundProtocol';

/** Frames per peak of a waveform. */
export const FRAMES_PER_PEAK = 240;

export interface LoadedSound {
  readonly hash: string;
  /** Samples at the piece's rate, in memory the audio thread shares. */
  readonly channels: readonly Float32Array[];
  readonly peaks: Float32Array;
}

type Waiting = { resolve(sound: LoadedSound): void; reject(error: Error): void };

/** Loads sounds in a worker, each once; a failed one can be requested again. */
export class SoundLibrary {
  private readonly waiting = new Map<string, Waiting>();
  private readonly loads = new Map<string, Promise<LoadedSound>>();
  private readonly worker = new RestartingWorker(
    '/rt/sound.worker.js',
    (data) => {
      const answer = fromLoader.parse(data);
      if (answer.type === 'failed') return this.fail(answer.hash, answer.message);
      this.waiting.get(answer.hash)?.resolve(answer);
      this.waiting.delete(answer.hash);
    },
    () => {
      for (const hash of [...this.waiting.keys()])
        this.fail(hash, 'What reads sounds could not be fetched, or broke. Nothing was changed');
    },
  );

  constructor(private readonly sampleRate: number) {}

  private fail(hash: string, message: string): void {
    this.loads.delete(hash);
    this.waiting.get(hash)?.reject(new Error(message));
    this.waiting.delete(hash);
  }

  load(hash: string): Promise<LoadedSound> {
    const known = this.loads.get(hash);
    if (known) return known;
    const load = new Promise<LoadedSound>((resolve, reject) => {
      this.waiting.set(hash, { resolve, reject });
      const order: ToLoader = {
        hash,
        url: `/api/sounds/${hash}`,
        sampleRate: this.sampleRate,
        framesPerPeak: FRAMES_PER_PEAK,
      };
      this.worker.post(order);
    });
    this.loads.set(hash, load);
    return load;
  }

  close(): void {
    this.worker.close();
  }
}

import { fromLoader, type ToLoader } from './soundProtocol';

/** Frames that one peak of a waveform stands for. */
export const FRAMES_PER_PEAK = 240;

export interface LoadedSound {
  readonly hash: string;
  /** Samples at the piece's rate, in memory the audio thread shares. */
  readonly channels: readonly Float32Array[];
  readonly peaks: Float32Array;
}

type Waiting = { resolve(sound: LoadedSound): void; reject(error: Error): void };

/** Loads sounds in a worker, each once; what failed can be asked for again. */
export class SoundLibrary {
  private worker: Worker | null = null;
  private readonly waiting = new Map<string, Waiting>();
  private readonly loads = new Map<string, Promise<LoadedSound>>();

  constructor(private readonly sampleRate: number) {}

  private started(): Worker {
    if (this.worker) return this.worker;
    const worker = new Worker('/rt/sound.worker.js', { type: 'module' });
    worker.onmessage = (event: MessageEvent<unknown>) => {
      const answer = fromLoader.parse(event.data);
      if (answer.type === 'failed') return this.fail(answer.hash, answer.message);
      this.waiting.get(answer.hash)?.resolve(answer);
      this.waiting.delete(answer.hash);
    };
    // It could not be fetched, or broke: nothing that waits for it would ever be answered. The next wish starts another.
    worker.onerror = () => {
      this.close();
      for (const hash of [...this.waiting.keys()]) this.fail(hash, 'Sounds cannot be read: the server is away.');
    };
    this.worker = worker;
    return worker;
  }

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
      this.started().postMessage(order);
    });
    this.loads.set(hash, load);
    return load;
  }

  close(): void {
    this.worker?.terminate();
    this.worker = null;
  }
}

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

/** Loads sounds in a worker, each once. */
export class SoundLibrary {
  private readonly worker = new Worker('/rt/sound.worker.js', { type: 'module' });
  private readonly waiting = new Map<string, Waiting>();
  private readonly loads = new Map<string, Promise<LoadedSound>>();

  constructor(private readonly sampleRate: number) {
    this.worker.onmessage = (event: MessageEvent<unknown>) => {
      const answer = fromLoader.parse(event.data);
      const waiter = this.waiting.get(answer.hash);
      this.waiting.delete(answer.hash);
      if (answer.type === 'loaded') waiter?.resolve(answer);
      else {
        this.loads.delete(answer.hash);
        waiter?.reject(new Error(answer.message));
      }
    };
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
      this.worker.postMessage(order);
    });
    this.loads.set(hash, load);
    return load;
  }

  close(): void {
    this.worker.terminate();
  }
}

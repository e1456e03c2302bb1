import { exponentialSweep, SWEEP_SECONDS } from '../core/impulses/sweep';
import { fromPlaces, type ToPlaces } from './soundProtocol';

/** Why nothing could be recorded, in words for the screen. */
export class NoInput extends Error {}

export interface Take {
  /** Plays the sweep while it records; else waits for a clap. */
  readonly sweep: boolean;
  readonly seconds: number;
  readonly sampleRate: number;
  readonly onLevel: (peak: number, share: number) => void;
}

/** A sound input: records one or two channels. */
export interface SoundInput {
  readonly id: 'microphone' | 'standIn';
  readonly name: string;
  record(take: Take): Promise<Float32Array[]>;
}

function askPlaces(order: ToPlaces): Promise<Float32Array[]> {
  const worker = new Worker('/rt/place.worker.js', { type: 'module' });
  return new Promise<Float32Array[]>((resolve, reject) => {
    worker.onmessage = (event: MessageEvent<unknown>) => resolve(fromPlaces.parse(event.data).channels);
    worker.onerror = (event) => reject(new NoInput(event.message || 'The recording could not be worked on.'));
    worker.postMessage(order);
  }).finally(() => worker.terminate());
}

/** The impulse response from a recorded sweep. */
export const findPlace = (recorded: readonly Float32Array[], sampleRate: number): Promise<Float32Array[]> =>
  askPlaces({ type: 'sweep', recorded: [...recorded], sampleRate });

/** The simulated room that ships with Zephiro, for use without a microphone. */
const standIn: SoundInput = {
  id: 'standIn',
  name: 'Stand-in room',
  record: ({ sweep, seconds, sampleRate }) => askPlaces({ type: 'standIn', sweep, seconds, sampleRate }),
};

async function openMicrophone(): Promise<MediaStream> {
  try {
    return await navigator.mediaDevices.getUserMedia({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false, channelCount: 2 },
    });
  } catch {
    throw new NoInput(
      'The microphone may not be used, or there is none. Nothing was changed. Allow it in the browser, or use the stand-in room or a file.',
    );
  }
}

const microphone: SoundInput = {
  id: 'microphone',
  name: 'Microphone',
  record: async (take) => {
    const stream = await openMicrophone();
    const context = new AudioContext({ sampleRate: take.sampleRate, latencyHint: 'interactive' });
    try {
      await context.resume();
      await context.audioWorklet.addModule('/rt/recorder.worklet.js');
      return await listen(context, stream, take);
    } finally {
      stream.getTracks().forEach((track) => track.stop());
      await context.close();
    }
  },
};

function listen(
  context: AudioContext,
  stream: MediaStream,
  { sweep, seconds, sampleRate, onLevel }: Take,
): Promise<Float32Array[]> {
  const frames = Math.round(seconds * sampleRate);
  const channels = [new Float32Array(frames), new Float32Array(frames)];
  let filled = 0;
  const recorder = new AudioWorkletNode(context, 'zephiro-recorder', { numberOfInputs: 1, numberOfOutputs: 0 });
  const done = new Promise<Float32Array[]>((resolve) => {
    recorder.port.onmessage = (event: MessageEvent<Float32Array[]>) => {
      const [left, right] = [event.data[0]!, event.data[1] ?? event.data[0]!];
      const n = Math.min(left.length, frames - filled);
      channels[0]!.set(left.subarray(0, n), filled);
      channels[1]!.set(right.subarray(0, n), filled);
      filled += n;
      onLevel(
        left.reduce((peak, x) => Math.max(peak, Math.abs(x)), 0),
        filled / frames,
      );
      if (filled >= frames) resolve(channels);
    };
  });
  context.createMediaStreamSource(stream).connect(recorder);
  if (sweep) playSweep(context, sampleRate);
  return done;
}

function playSweep(context: AudioContext, sampleRate: number): void {
  const samples = exponentialSweep(SWEEP_SECONDS, sampleRate);
  const buffer = context.createBuffer(1, samples.length, sampleRate);
  buffer.getChannelData(0).set(samples);
  const source = new AudioBufferSourceNode(context, { buffer });
  source.connect(context.destination);
  source.start();
}

export const SOUND_INPUTS: readonly SoundInput[] = [microphone, standIn];

import { peakRow } from '../core/analysis/levels';
import { resample } from '../core/dsp/resample';
import { readFloatWav } from '../core/formats/floatWav';
import { toLoader } from './soundProtocol';
import { reasonOf } from '../core/reasonOf';

/**
 * Fetches a sound, resamples it to the piece's rate, copies it into memory shared with the audio thread, and computes
 * its peaks.
 */
async function load(data: unknown): Promise<void> {
  const order = toLoader.parse(data);
  try {
    const answer = await fetch(order.url);
    if (!answer.ok)
      throw new Error(answer.status === 404 ? 'it is not on the server' : `the server answered ${answer.status}`);
    const audio = readFloatWav(new Uint8Array(await answer.arrayBuffer()));
    const channels = audio.channels.map((channel) => shared(resample(channel, audio.sampleRate, order.sampleRate)));
    self.postMessage({ type: 'loaded', hash: order.hash, channels, peaks: peakRow(channels, order.framesPerPeak) });
  } catch (error) {
    self.postMessage({
      type: 'failed',
      hash: order.hash,
      message: reasonOf(error),
    });
  }
}

function shared(samples: Float32Array): Float32Array {
  const copy = new Float32Array(new SharedArrayBuffer(samples.length * 4));
  copy.set(samples);
  return copy;
}

self.onmessage = (event: MessageEvent<unknown>) => void load(event.data);

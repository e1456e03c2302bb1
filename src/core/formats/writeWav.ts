import type { Audio } from './audio';
import { bytesOf, SampleWriter, type WavDepth } from './sampleBytes';
import { wavHead, type WavHead } from './wavHead';

export type { WavDepth } from './sampleBytes';

/** A WAV file's bytes. @param marks cues, a loop and a time stamp, where there are any */
export function writeWav(
  { channels, sampleRate }: Audio,
  depth: WavDepth,
  marks: Pick<WavHead, 'cues' | 'loop' | 'timeStamp'> = {},
): Uint8Array {
  const frames = channels[0]?.length ?? 0;
  const head = wavHead({ channels: channels.length, sampleRate, depth, frames, ...marks });
  const dataBytes = frames * channels.length * bytesOf(depth);
  const out = new Uint8Array(head.length + dataBytes + (dataBytes & 1));
  out.set(head);
  new SampleWriter(depth).write(channels, 0, frames, new DataView(out.buffer), head.length);
  return out;
}

let context: AudioContext | null = null;
let playing: AudioBufferSourceNode | null = null;

/** Plays a sound by itself, outside the piece; a second call stops the first. @returns a function that stops it */
export async function preview(
  sound: { readonly channels: readonly Float32Array[] },
  sampleRate: number,
  onEnd: () => void,
): Promise<() => void> {
  context ??= new AudioContext({ sampleRate });
  await context.resume();
  playing?.stop();
  const length = sound.channels[0]!.length;
  const buffer = context.createBuffer(sound.channels.length, length, sampleRate);
  sound.channels.forEach((channel, i) => buffer.getChannelData(i).set(channel));
  const source = new AudioBufferSourceNode(context, { buffer });
  source.connect(context.destination);
  source.onended = onEnd;
  source.start();
  playing = source;
  return () => source.stop();
}

/** The same work by the browser's own nodes, in an offline context; runs in the page. @returns milliseconds */
export async function browserNodes({ what, seconds }: { what: 'echo' | 'fraction' | 'filters'; seconds: number }): Promise<number> {
  const rate = 48_000;
  const context = new OfflineAudioContext(2, seconds * rate, rate);
  const noise = context.createBuffer(2, 65_536, rate);
  for (let c = 0; c < 2; c += 1) noise.getChannelData(c).forEach((_, i, samples) => void (samples[i] = Math.sin(i * i) * 0.3));
  const source = new AudioBufferSourceNode(context, { buffer: noise, loop: true });
  const lowPass = (): BiquadFilterNode => new BiquadFilterNode(context, { type: 'lowpass', frequency: 3000, Q: -3.01 });
  if (what !== 'filters') {
    const delay = new DelayNode(context, { delayTime: what === 'echo' ? 0.375 : 45 / 92, maxDelayTime: 1 });
    const filter = lowPass();
    const feedback = new GainNode(context, { gain: 0.6 });
    source.connect(delay).connect(filter).connect(feedback).connect(delay);
    filter.connect(context.destination);
  } else {
    const chain = [lowPass(), lowPass(), lowPass(), lowPass()];
    const last = chain.reduce<AudioNode>((from, to) => from.connect(to), source);
    last.connect(context.destination);
  }
  source.start();
  const began = performance.now();
  await context.startRendering();
  return performance.now() - began;
}

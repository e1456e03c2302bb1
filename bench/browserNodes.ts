/** The same work by the browser's own nodes, in an offline context; runs in the page. @returns milliseconds */
export async function browserNodes({
  what,
  seconds,
}: {
  what: 'echo' | 'fraction' | 'filters' | 'network' | 'convolution' | 'shaping';
  seconds: number;
}): Promise<number> {
  const rate = 48_000;
  const context = new OfflineAudioContext(2, seconds * rate, rate);
  const noise = context.createBuffer(2, 65_536, rate);
  for (let c = 0; c < 2; c += 1)
    noise.getChannelData(c).forEach((_, i, samples) => void (samples[i] = Math.sin(i * i) * 0.3));
  const source = new AudioBufferSourceNode(context, { buffer: noise, loop: true });
  const lowPass = (): BiquadFilterNode => new BiquadFilterNode(context, { type: 'lowpass', frequency: 3000, Q: -3.01 });
  if (what === 'network') network(context, source);
  else if (what === 'convolution') convolution(context, source);
  else if (what === 'shaping') shaping(context, source);
  else if (what !== 'filters') {
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

const LINES = 16;
const MS = [23, 25.1, 27.2, 29.6, 32.2, 35, 38, 41.3, 44.9, 48.8, 53, 57.7, 62.7, 68.2, 74.1, 79.7];

/** Sixteen delays, each with a filter, through the four stages of the same matrix: a gain node for each path. */
function network(context: OfflineAudioContext, source: AudioNode): void {
  const delays = MS.map((ms) => new DelayNode(context, { delayTime: ms / 1000, maxDelayTime: 0.1 }));
  let lines: AudioNode[] = delays.map((delay) =>
    delay.connect(new BiquadFilterNode(context, { type: 'highshelf', frequency: 5000, gain: -1 })),
  );
  delays.forEach((delay) => delay.connect(context.destination));
  for (let span = 1; span < LINES; span *= 2) {
    lines = lines.map((line, i) => {
      const sum = new GainNode(context, { gain: 1 });
      line.connect(new GainNode(context, { gain: i & span ? -Math.SQRT1_2 : Math.SQRT1_2 })).connect(sum);
      lines[i ^ span]!.connect(new GainNode(context, { gain: Math.SQRT1_2 })).connect(sum);
      return sum;
    });
  }
  lines.forEach((line, i) => line.connect(new GainNode(context, { gain: 0.97 })).connect(delays[i]!));
  delays.forEach((delay) => source.connect(new GainNode(context, { gain: 0.25 })).connect(delay));
}

/** The browser's own convolver with three seconds of falling noise on both sides. */
function convolution(context: OfflineAudioContext, source: AudioNode): void {
  const rate = context.sampleRate;
  const buffer = context.createBuffer(2, 3 * rate, rate);
  for (let c = 0; c < 2; c += 1)
    buffer
      .getChannelData(c)
      .forEach(
        (_, i, samples) => void (samples[i] = Math.sin(i * i * (1 + 0.1 * c)) * Math.exp((-5 * i) / samples.length)),
      );
  source.connect(new ConvolverNode(context, { buffer })).connect(context.destination);
}

/** A tanh curve at four times the rate, driven by twelve decibels. */
function shaping(context: OfflineAudioContext, source: AudioNode): void {
  const curve = Float32Array.from({ length: 4097 }, (_, i) => Math.tanh(4 * (i / 2048 - 1)) / 4);
  source.connect(new WaveShaperNode(context, { curve, oversample: '4x' })).connect(context.destination);
}

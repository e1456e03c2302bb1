import { ChannelAnalyser } from '../core/analysis/channelAnalyser';
import { toAnalyserSchema } from './soundProtocol';
import { ScopeReader } from './scopeMemory';

/** Twelve looks a second: the eye takes no more, and the page draws each. */
const LOOK_MS = 80;

let analyser: ChannelAnalyser | null = null;
let reader: ScopeReader | null = null;

self.onmessage = (event: MessageEvent<unknown>) => {
  const message = toAnalyserSchema.parse(event.data);
  if (message.type === 'clear') analyser?.clear();
  else {
    analyser = new ChannelAnalyser(message.sampleRate);
    reader = new ScopeReader(message.memory);
  }
};

setInterval(() => {
  if (!analyser || !reader) return;
  reader.read((four, frames) => analyser?.listen(four, frames));
  self.postMessage(analyser.report());
}, LOOK_MS);

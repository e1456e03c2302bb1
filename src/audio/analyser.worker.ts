import { ChannelAnalyser } from '../core/analysis/channelAnalyser';
import { toAnalyserSchema } from './soundProtocol';
import { ScopeReader } from './scopeMemory';

/** Twelve looks a second: the eye takes no more, and the page draws each. */
const LOOK_MS = 80;

let analyser: ChannelAnalyser | null = null;
let reader: ScopeReader | null = null;
/** What was told last is not so any more. */
let cleared = false;

self.onmessage = (event: MessageEvent<unknown>) => {
  const message = toAnalyserSchema.parse(event.data);
  cleared = true;
  if (message.type === 'clear') analyser?.clear();
  else {
    analyser = new ChannelAnalyser(message.sampleRate);
    reader = new ScopeReader(message.memory);
  }
};

setInterval(() => {
  if (!analyser || !reader) return;
  const frames = reader.read((four, count) => analyser?.listen(four, count));
  // An audio thread that sleeps leaves nothing, and there is nothing new to tell.
  if (frames === 0 && !cleared) return;
  cleared = false;
  self.postMessage(analyser.report());
}, LOOK_MS);

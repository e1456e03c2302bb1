import { ChannelAnalyser } from '../core/analysis/channelAnalyser';
import { toAnalyserSchema } from './soundProtocol';
import { ScopeReader } from './scopeMemory';

/** Twelve reports a second: more cannot be read, and the page draws each. */
const LOOK_MS = 80;

let analyser: ChannelAnalyser | null = null;
let reader: ScopeReader | null = null;
/** The analyser was cleared or made since its last report. */
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
  const frames = reader.read((four, count) => analyser?.process(four, count));
  // A suspended audio thread writes nothing, so the report would be the same.
  if (frames === 0 && !cleared) return;
  cleared = false;
  self.postMessage(analyser.report());
}, LOOK_MS);

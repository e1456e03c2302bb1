import { ChannelJudge } from '../core/analysis/channelJudge';
import { toJudge } from './soundProtocol';
import { ScopeReader } from './scopeMemory';

/** Twelve looks a second: the eye takes no more, and the page draws each. */
const LOOK_MS = 80;

let judge: ChannelJudge | null = null;
let reader: ScopeReader | null = null;

self.onmessage = (event: MessageEvent<unknown>) => {
  const message = toJudge.parse(event.data);
  if (message.type === 'clear') judge?.clear();
  else {
    judge = new ChannelJudge(message.sampleRate);
    reader = new ScopeReader(message.memory);
  }
};

setInterval(() => {
  if (!judge || !reader) return;
  reader.read((four, frames) => judge?.listen(four, frames));
  self.postMessage(judge.report());
}, LOOK_MS);

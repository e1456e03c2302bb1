import { bytesOf, type WavDepth } from './sampleBytes';

export interface Cue {
  readonly frame: number;
  readonly name: string;
}

export interface WavHead {
  readonly channels: number;
  readonly sampleRate: number;
  readonly depth: WavDepth;
  readonly frames: number;
  /** Places with names, in frames from the beginning. */
  readonly cues?: readonly Cue[];
  /** First and last frame of a seamless loop. */
  readonly loop?: { readonly first: number; readonly last: number } | undefined;
  /** Position of the first sample in the piece, in samples: written as a broadcast extension's time stamp. */
  readonly timeStamp?: number;
  /** Leaves room for 64-bit lengths, for a file whose length is not known yet. */
  readonly growing?: boolean;
}

/** Beyond this a plain header cannot say how long it is: the 64-bit form of EBU Tech 3306 is written. */
const MAX_PLAIN = 0xfffffff0;
const BEXT_BYTES = 602;

/** Bytes put together chunk by chunk. */
class Bytes {
  private readonly parts: Uint8Array[] = [];

  add(id: string, body: Uint8Array): void {
    const head = new Uint8Array(8);
    writeWord(head, 0, id);
    new DataView(head.buffer).setUint32(4, body.length, true);
    this.parts.push(head, body);
    if (body.length % 2 === 1) this.parts.push(new Uint8Array(1));
  }

  get whole(): Uint8Array {
    const out = new Uint8Array(this.parts.reduce((sum, part) => sum + part.length, 0));
    let at = 0;
    for (const part of this.parts) {
      out.set(part, at);
      at += part.length;
    }
    return out;
  }
}

function writeWord(out: Uint8Array, at: number, word: string): void {
  for (let i = 0; i < word.length; i += 1) out[at + i] = word.charCodeAt(i);
}

/**
 * All of a WAV file before its samples, always of one length for the same markers, so that it can be written again once
 * the length is known. Markers come first: what reads a stream finds them in time. Sources: Microsoft, "Multimedia
 * Programming Interface and Data Specifications 1.0" (1991); EBU Tech 3285 (bext) and 3306 (RF64).
 */
export function wavHead(head: WavHead): Uint8Array {
  const dataBytes = head.frames * head.channels * bytesOf(head.depth);
  const chunks = new Bytes();
  chunks.add('fmt ', format(head));
  if (head.timeStamp !== undefined) chunks.add('bext', broadcast(head.timeStamp));
  if (head.cues && head.cues.length > 0) {
    chunks.add('cue ', cuePoints(head.cues));
    chunks.add('LIST', labels(head.cues));
  }
  if (head.loop) chunks.add('smpl', sampler(head.sampleRate, head.loop));
  const marks = chunks.whole;
  // Room for 64-bit lengths is first: named so when they are needed, else as junk that is passed over. A plain file has
  // none.
  const sizes = new Uint8Array(head.growing ? 36 : 0);
  const out = new Uint8Array(12 + sizes.length + marks.length + 8);
  const riffBytes = out.length - 8 + dataBytes + (dataBytes & 1);
  const long = riffBytes > MAX_PLAIN && sizes.length > 0;
  if (sizes.length > 0) {
    writeWord(sizes, 0, long ? 'ds64' : 'JUNK');
    new DataView(sizes.buffer).setUint32(4, 28, true);
  }
  if (long) {
    const size = new DataView(sizes.buffer);
    size.setBigUint64(8, BigInt(riffBytes), true);
    size.setBigUint64(16, BigInt(dataBytes), true);
    size.setBigUint64(24, BigInt(head.frames), true);
  }
  const view = new DataView(out.buffer);
  writeWord(out, 0, long ? 'RF64' : 'RIFF');
  view.setUint32(4, long ? 0xffffffff : riffBytes, true);
  writeWord(out, 8, 'WAVE');
  out.set(sizes, 12);
  const after = 12 + sizes.length;
  out.set(marks, after);
  writeWord(out, after + marks.length, 'data');
  view.setUint32(after + 4 + marks.length, long ? 0xffffffff : dataBytes, true);
  return out;
}

function format({ channels, sampleRate, depth }: WavHead): Uint8Array {
  const view = new DataView(new ArrayBuffer(16));
  const bytes = bytesOf(depth);
  view.setUint16(0, depth === '32f' ? 3 : 1, true);
  view.setUint16(2, channels, true);
  view.setUint32(4, sampleRate, true);
  view.setUint32(8, sampleRate * channels * bytes, true);
  view.setUint16(12, channels * bytes, true);
  view.setUint16(14, bytes * 8, true);
  return new Uint8Array(view.buffer);
}

function broadcast(timeStamp: number): Uint8Array {
  const out = new Uint8Array(BEXT_BYTES);
  const view = new DataView(out.buffer);
  view.setBigUint64(338, BigInt(timeStamp), true);
  view.setUint16(346, 1, true);
  return out;
}

function cuePoints(cues: readonly Cue[]): Uint8Array {
  const out = new Uint8Array(4 + 24 * cues.length);
  const view = new DataView(out.buffer);
  view.setUint32(0, cues.length, true);
  cues.forEach(({ frame }, i) => {
    const at = 4 + 24 * i;
    view.setUint32(at, i + 1, true);
    view.setUint32(at + 4, frame, true);
    writeWord(out, at + 8, 'data');
    view.setUint32(at + 20, frame, true);
  });
  return out;
}

function labels(cues: readonly Cue[]): Uint8Array {
  const list = new Bytes();
  cues.forEach(({ name }, i) => {
    const text = new TextEncoder().encode(name);
    const body = new Uint8Array(4 + text.length + 1);
    new DataView(body.buffer).setUint32(0, i + 1, true);
    body.set(text, 4);
    list.add('labl', body);
  });
  const { whole } = list;
  const out = new Uint8Array(4 + whole.length);
  writeWord(out, 0, 'adtl');
  out.set(whole, 4);
  return out;
}

function sampler(sampleRate: number, { first, last }: NonNullable<WavHead['loop']>): Uint8Array {
  const view = new DataView(new ArrayBuffer(36 + 24));
  view.setUint32(8, Math.round(1e9 / sampleRate), true);
  view.setUint32(12, 60, true);
  view.setUint32(28, 1, true);
  view.setUint32(36, 1, true);
  view.setUint32(36 + 8, first, true);
  view.setUint32(36 + 12, last, true);
  return new Uint8Array(view.buffer);
}

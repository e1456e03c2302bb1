import type { Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';

interface Listening {
  /** Interleaved stereo, a second or so each. */
  readonly heard: Float32Array[];
  ready: boolean;
  frames: number;
}

/**
 * Hangs a listener behind the engine's node, before a page is opened, and keeps what it gives to the loudspeakers. The
 * page's security policy has to be lifted (`bypassCSP`).
 */
export async function listenIn(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const listening: Listening = { heard: [], ready: false, frames: 0 };
    Object.assign(window, { listening });
    const code = `registerProcessor('listener', class extends AudioWorkletProcessor {
      kept = new Float32Array(2 * 12800);
      at = 0;
      process([input]) {
        const [left, right = left] = input;
        if (!left) return true;
        for (let i = 0; i < left.length; i += 1) {
          this.kept[this.at] = left[i];
          this.kept[this.at + 1] = right[i];
          this.at += 2;
        }
        if (this.at >= this.kept.length) {
          this.port.postMessage(this.kept.slice());
          this.at = 0;
        }
        return true;
      }
    })`;
    const Plain = window.AudioWorkletNode;
    window.AudioWorkletNode = class extends Plain {
      constructor(context: BaseAudioContext, name: string, options?: AudioWorkletNodeOptions) {
        super(context, name, options);
        if (name !== 'zephiro-engine') return;
        void context.audioWorklet
          .addModule(URL.createObjectURL(new Blob([code], { type: 'text/javascript' })))
          .then(() => {
            const listener = new Plain(context, 'listener');
            listener.port.onmessage = ({ data }: MessageEvent<Float32Array>) => {
              listening.heard.push(data);
              listening.frames += data.length / 2;
            };
            this.connect(listener);
            listening.ready = true;
          });
      }
    };
  });
}

export const listenerReady = async (page: Page): Promise<void> => {
  await page.waitForFunction(() => (window as unknown as { listening: Listening }).listening.ready);
};

/** Stereo frames heard since the page was opened. */
export const framesHeard = (page: Page): Promise<number> =>
  page.evaluate(() => (window as unknown as { listening: Listening }).listening.frames);

export async function waitForFrames(page: Page, frames: number): Promise<void> {
  await page.waitForFunction(
    (wanted) => (window as unknown as { listening: Listening }).listening.frames >= wanted,
    frames,
    { timeout: 60_000 },
  );
}

/** All that was heard, taken out of the page as a file: minutes are too many figures for a message. */
export async function takeHeard(page: Page): Promise<{ left: Float32Array; right: Float32Array }> {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.evaluate(() => {
      const { heard } = (window as unknown as { listening: Listening }).listening;
      const link = document.createElement('a');
      link.href = URL.createObjectURL(new Blob(heard as Float32Array<ArrayBuffer>[]));
      link.download = 'heard.raw';
      link.click();
    }),
  ]);
  const bytes = await readFile((await download.path())!);
  const both = new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
  const side = (from: number): Float32Array =>
    Float32Array.from({ length: both.length / 2 }, (_, i) => both[2 * i + from]!);
  return { left: side(0), right: side(1) };
}

import type { Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';

interface Capture {
  /** Interleaved stereo, a quarter of a second each. */
  readonly blocks: Float32Array[];
  ready: boolean;
  frames: number;
}

/**
 * Connects a node that records the output of the engine's node. To be called before the page is opened; needs `bypassCSP`.
 */
export async function captureOutput(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const capture: Capture = { blocks: [], ready: false, frames: 0 };
    Object.assign(window, { capture });
    const code = `registerProcessor('capture', class extends AudioWorkletProcessor {
      block = new Float32Array(2 * 12800);
      at = 0;
      process([input]) {
        const [left, right = left] = input;
        if (!left) return true;
        for (let i = 0; i < left.length; i += 1) {
          this.block[this.at] = left[i];
          this.block[this.at + 1] = right[i];
          this.at += 2;
        }
        if (this.at >= this.block.length) {
          this.port.postMessage(this.block.slice());
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
            const recorder = new Plain(context, 'capture');
            recorder.port.onmessage = ({ data }: MessageEvent<Float32Array>) => {
              capture.blocks.push(data);
              capture.frames += data.length / 2;
            };
            this.connect(recorder);
            capture.ready = true;
          });
      }
    };
  });
}

export const captureReady = async (page: Page): Promise<void> => {
  await page.waitForFunction(() => (window as unknown as { capture: Capture }).capture.ready);
};

/** Stereo frames recorded since the page was opened. */
export const framesCaptured = (page: Page): Promise<number> =>
  page.evaluate(() => (window as unknown as { capture: Capture }).capture.frames);

export async function waitForFrames(page: Page, frames: number): Promise<void> {
  await page.waitForFunction((wanted) => (window as unknown as { capture: Capture }).capture.frames >= wanted, frames, {
    timeout: 60_000,
  });
}

/** The whole recording, downloaded as a file: minutes of samples are too much for a message. */
export async function capturedOutput(page: Page): Promise<{ left: Float32Array; right: Float32Array }> {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.evaluate(() => {
      const { blocks } = (window as unknown as { capture: Capture }).capture;
      const link = document.createElement('a');
      link.href = URL.createObjectURL(new Blob(blocks as Float32Array<ArrayBuffer>[]));
      link.download = 'output.raw';
      link.click();
    }),
  ]);
  const bytes = await readFile((await download.path())!);
  const both = new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
  const side = (from: number): Float32Array =>
    Float32Array.from({ length: both.length / 2 }, (_, i) => both[2 * i + from]!);
  return { left: side(0), right: side(1) };
}

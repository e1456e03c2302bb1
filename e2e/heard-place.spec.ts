import { compilePlan } from '../src/core/engine/compilePlan';
import { render } from '../src/core/engine/render';
import { readWav } from '../src/core/formats/readWav';
import { expect, handOn, saved, test } from './fixtures';

interface Heard {
  /** Frame of the audio clock at which the first sound of the piece was given out. */
  firstFrame: number;
  readonly moves: { readonly at: number; readonly frame: number }[];
}

const LOUD = 1e-3;

test.use({ bypassCSP: true });

test('moves land where they were heard when they were made, within 5 ms, on eight rails', async ({ page, pieceId }) => {
  // A listener of its own behind the engine's node says when the first sound leaves it, whatever the app believes.
  await page.addInitScript((loud) => {
    const heard: Heard = { firstFrame: -1, moves: [] };
    Object.assign(window, { heard });
    const code = `registerProcessor("ear", class extends AudioWorkletProcessor { process([input]) { const at = input[0] ? input[0].findIndex((x) => Math.abs(x) > ${loud}) : -1; if (at >= 0 && !this.told) { this.told = true; this.port.postMessage(currentFrame + at); } return true; } })`;
    const Plain = window.AudioWorkletNode;
    window.AudioWorkletNode = class extends Plain {
      constructor(context: BaseAudioContext, name: string, options?: AudioWorkletNodeOptions) {
        super(context, name, options);
        if (name !== 'zephiro-engine') return;
        Object.assign(window, { earContext: context });
        void context.audioWorklet
          .addModule(URL.createObjectURL(new Blob([code], { type: 'text/javascript' })))
          .then(() => {
            const ear = new Plain(context, 'ear');
            ear.port.onmessage = ({ data }: MessageEvent<number>) => (heard.firstFrame = data);
            this.connect(ear);
            Object.assign(window, { earReady: true });
          });
      }
    };
  }, LOUD);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Salt Pier' })).toBeVisible();
  const hand = handOn(page, false);
  await hand.view('Chain');
  await hand.add('Echo', 'Neutral');
  const { piece } = await saved(page, pieceId, (stored) => stored.piece.tracks[1]!.chain.length === 1);
  await page.reload();
  await page.waitForFunction(() => 'earReady' in window);
  await expect(page.getByText('loading …')).toHaveCount(0);
  await hand.view('Chain');
  await hand.press('button', /^Open Echo/);
  await hand.press('switch', 'Record moves');
  await hand.press('button', 'Play');
  await page.waitForFunction(() => (window as unknown as { heard: Heard }).heard.firstFrame >= 0, undefined, {
    timeout: 30_000,
  });
  // A machine that has just stopped for a while catches up: its output clock has to run evenly before anything can be
  // told by it.
  await page.evaluate(async () => {
    const { earContext } = window as unknown as { earContext: AudioContext };
    const offset = (): number => {
      const { contextTime, performanceTime } = earContext.getOutputTimestamp();
      return performanceTime! - contextTime! * 1000;
    };
    let from = offset();
    for (let steady = 0; steady < 30; steady += 1) {
      await new Promise(requestAnimationFrame);
      const now = offset();
      if (Math.abs(now - from) < 2) continue;
      from = now;
      steady = 0;
    }
  });
  // A finger on eight rails, one after another, at moments of no grid; each notes what the browser puts out at that
  // moment.
  await page.evaluate(async (count) => {
    const { heard, earContext } = window as unknown as { heard: Heard; earContext: AudioContext };
    // A finger that only the page knows cannot be captured.
    HTMLElement.prototype.setPointerCapture = () => undefined;
    const rails = [...document.querySelectorAll<HTMLElement>('[role=slider]')]
      .filter((element) => element.getAttribute('aria-label') !== 'Place in the piece')
      .slice(0, count);
    for (const [i, rail] of rails.entries()) {
      rail.scrollIntoView({ block: 'center' });
      await new Promise((done) => setTimeout(done, 230 + 37 * i));
      const box = rail.getBoundingClientRect();
      const fire = (type: string, x: number): void =>
        void rail.dispatchEvent(
          new PointerEvent(type, {
            bubbles: true,
            pointerId: 7,
            button: 0,
            buttons: 1,
            pointerType: 'touch',
            clientX: box.left + x * box.width,
            clientY: box.top + box.height / 2,
          }),
        );
      fire('pointerdown', 0.5);
      const stamp = earContext.getOutputTimestamp();
      heard.moves.push({
        at: i,
        frame: (stamp.contextTime! + (performance.now() - stamp.performanceTime!) / 1000) * earContext.sampleRate,
      });
      fire('pointermove', 0.6);
      fire('pointerup', 0.6);
    }
  }, RAILS);
  await hand.press('button', 'Stop');
  const heard = await page.evaluate(() => (window as unknown as { heard: Heard }).heard);
  const stored = await saved(page, pieceId, (now) => now.piece.lanes.length === RAILS);

  const sounds = new Map<string, readonly Float32Array[]>();
  for (const hash of Object.keys(piece.sounds))
    sounds.set(hash, readWav(await (await page.request.get(`/api/sounds/${hash}`)).body()).channels);
  const { left } = render({
    plan: compilePlan(piece),
    sounds,
    fromSample: 0,
    toSample: 4 * piece.sampleRate,
    tail: { kind: 'seconds', seconds: 0 },
  })!;
  const firstSample = left.findIndex((x) => Math.abs(x) > LOUD);
  const made = heard.moves.map(({ frame }) => ((frame - heard.firstFrame + firstSample) / piece.sampleRate) * 1000);
  // The first point is where the glide into the move begins.
  const landed = stored.piece.lanes.map(({ points }) => (points[1]!.beat * 60_000) / piece.tempo.bpm);
  const off = made.map((at) => Math.min(...landed.map((found) => Math.abs(found - at))));
  process.stdout.write(`moves off by ${off.map((ms) => ms.toFixed(1)).join(', ')} ms\n`);
  for (const ms of off) expect(ms).toBeLessThan(5);
});

const RAILS = 8;

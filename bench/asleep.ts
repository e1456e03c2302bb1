import { STEP_FRAMES } from '../src/core/dsp/blocks';
import { EFFECTS } from '../src/core/effects/catalogue';
import type { Engine } from '../src/core/engine/engine';
import { engineOf } from '../src/core/engine/testing';
import { newSlot } from '../src/core/piece/edits/chain';
import { clipOf, RATE, scene, soundOf } from '../src/core/piece/testing';

const SECONDS = 60;
const ROUNDS = 150;
/** Blocks of 128 in a round; short, so that the fastest round is one that nothing interrupted. */
const BLOCKS = 200;
const BLOCK_FRAMES = 2 * STEP_FRAMES;
const BLOCK_US = (BLOCK_FRAMES / RATE) * 1e6;

const tone = soundOf(SECONDS, (i) => 0.3 * Math.sin(i * 0.02));

function playing(holds: readonly string[]): Engine {
  const { piece, sounds } = scene([tone], [{ clips: [clipOf('a', 0, 0, SECONDS)] }], { lengthBeats: 256 });
  const chain = holds.map((effect) => newSlot(effect, effect, 'neutral'));
  const engine = engineOf({ piece: { ...piece, main: { ...piece.main, chain } }, sounds });
  engine.play(0);
  return engine;
}

function microsecondsOfBlock(engine: Engine): number {
  const [left, right] = [new Float32Array(BLOCK_FRAMES), new Float32Array(BLOCK_FRAMES)];
  const start = performance.now();
  for (let i = 0; i < BLOCKS; i += 1) engine.process(left, right, BLOCK_FRAMES);
  return (1000 * (performance.now() - start)) / BLOCKS;
}

/**
 * What each hold costs that nobody holds, as a share of the deadline: a tone on the main output with and without it, in
 * turns, the least of each.
 */
export function asleepShares(): readonly (readonly [hold: string, share: number])[] {
  const kinds = EFFECTS.filter(({ family }) => family === 'hold').map(({ id }) => id);
  const engines = new Map<string, Engine>([['', playing([])], ...kinds.map((id) => [id, playing([id])] as const)]);
  const least = new Map<string, number>();
  for (let round = 0; round < ROUNDS; round += 1)
    for (const [id, engine] of engines) {
      if (round % 50 === 0) engine.play(0);
      least.set(id, Math.min(least.get(id) ?? Infinity, microsecondsOfBlock(engine)));
    }
  const none = least.get('')!;
  return kinds.map((id) => [id, (least.get(id)! - none) / BLOCK_US] as const);
}

import { Engine } from '../src/core/engine/engine';
import { compilePlan } from '../src/core/engine/compilePlan';
import type { Piece } from '../src/core/piece/piece';

const BLOCK = 128;

/** Milliseconds that a piece takes for so many blocks, one after another. */
function run(piece: Piece, blocks: number): number {
  const engine = new Engine(piece.sampleRate);
  engine.setPlan(compilePlan(piece));
  engine.play(0);
  const left = new Float32Array(BLOCK);
  const right = new Float32Array(BLOCK);
  const began = performance.now();
  for (let i = 0; i < blocks; i += 1) engine.process(left, right, BLOCK);
  return performance.now() - began;
}

self.onmessage = ({ data }: MessageEvent<{ piece: Piece; blocks: number }>) =>
  self.postMessage(run(data.piece, data.blocks));

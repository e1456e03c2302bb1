import fc from 'fast-check';
import { makeRandom } from '../dsp/random';
import { effectOf } from '../effects/catalogue';
import { paramAtPosition } from '../params/resolve';
import { clipOf, echoSlot, scene, soundOf } from '../piece/testing';
import { engineOf } from './testing';

const BLOCK = 4800;
const SECONDS = 30;

/** Loud noise with pauses, in which every tenth of a second three parameters of an echo are set at random. */
function playAtRandom(random: () => number): { peak: number; finite: boolean; caught: number } {
  const noise = soundOf(SECONDS, (i) => (Math.floor(i / 30_000) % 3 === 2 ? 0 : random() * 1.6 - 0.8));
  const engine = engineOf(
    scene([noise], [{ clips: [clipOf('c', 0, 0, SECONDS)], chain: [echoSlot('e', {})] }], { lengthBeats: 2 * SECONDS }),
  );
  const { params, paramIds } = effectOf('echo');
  engine.play(0);
  let peak = 0;
  let finite = true;
  const left = new Float32Array(BLOCK);
  const right = new Float32Array(BLOCK);
  for (let turn = 0; turn < SECONDS * 10; turn += 1) {
    for (let k = 0; k < 3; k += 1) {
      const value = Math.floor(random() * paramIds.length);
      const edge = random();
      const position = edge < 0.15 ? 0 : edge > 0.85 ? 1 : random();
      const to = paramAtPosition(params[paramIds[value]!]!, position);
      engine.queue({ kind: 'hold', channel: 't0', slot: 'e', value, to, atSample: 0 });
    }
    engine.process(left, right, BLOCK);
    for (let i = 0; i < BLOCK; i += 1) {
      peak = Math.max(peak, Math.abs(left[i]!), Math.abs(right[i]!));
      finite &&= Number.isFinite(left[i]!) && Number.isFinite(right[i]!);
    }
  }
  return { peak, finite, caught: engine.caught };
}

test('an echo with every parameter at random stays finite and under the ceiling', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e8 }), (number) => {
      const { peak, finite, caught } = playAtRandom(makeRandom(number));
      expect([finite, peak <= 1, caught]).toEqual([true, true, 0]);
    }),
    { numRuns: 6, endOnFailure: true },
  );
});

import { clipOf, echoSlot, scene, soundOf } from '../piece/testing';
import { makeRandom } from '../dsp/random';
import { effectOf } from '../effects/catalogue';
import { paramAtPosition } from '../params/resolve';
import { engineOf } from './testing';

test('ten minutes of every parameter at random stay finite and under the ceiling', () => {
  const random = makeRandom(20_261_124);
  const noise = soundOf(600, (i) => (Math.floor(i / 30_000) % 3 === 2 ? 0 : random() * 1.6 - 0.8));
  const engine = engineOf(
    scene([noise], [{ clips: [clipOf('c', 0, 0, 600)], chain: [echoSlot('e', {})] }], { lengthBeats: 1200 }),
  );
  const { params, paramIds } = effectOf('echo');
  engine.play(0);
  let peak = 0;
  let finite = true;
  const left = new Float32Array(4800);
  const right = new Float32Array(4800);
  for (let turn = 0; turn < 6000; turn += 1) {
    for (let k = 0; k < 3; k += 1) {
      const value = Math.floor(random() * paramIds.length);
      const edge = random();
      const position = edge < 0.15 ? 0 : edge > 0.85 ? 1 : random();
      engine.queue({
        kind: 'hold',
        channel: 't0',
        slot: 'e',
        value,
        to: paramAtPosition(params[paramIds[value]!]!, position),
        atSample: 0,
      });
    }
    engine.process(left, right, 4800);
    for (let i = 0; i < 4800; i += 1) {
      peak = Math.max(peak, Math.abs(left[i]!), Math.abs(right[i]!));
      finite &&= Number.isFinite(left[i]!) && Number.isFinite(right[i]!);
    }
  }
  expect(finite).toBe(true);
  expect(peak).toBeLessThanOrEqual(1);
  expect(engine.caught).toBe(0);
});

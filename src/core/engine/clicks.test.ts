import { EFFECTS } from '../effects/catalogue';
import type { EffectDefinition } from '../effects/define';
import { paramAtPosition } from '../params/resolve';
import { newSlot } from '../piece/edits/chain';
import { clipOf, engineOf, peakIn, RATE, roughness, runEngine, scene, soundOf } from './testing';

const HZ = 220;
const LEVEL = 0.25;
const sine = soundOf(4, (i) => LEVEL * Math.sin((2 * Math.PI * HZ * i) / RATE));
const CYCLE = [0, 1, 0.37, 0.8, 0];
const HOLD_SECONDS = 0.15;
/** A step of 0.05 in a clean sine shows as 0.5; the sine itself as 1e-9. */
const CLICK = 0.1;

/** Parameters whose work it is to break the wave. */
const BREAKS: Readonly<Record<string, readonly string[]>> = { echo: ['bitDepth', 'rateReduction'] };

function ridden(effect: EffectDefinition, id: string): number {
  const slot = { ...newSlot('s', effect.id, effect.presets[1]!.id), id: 's' };
  const engine = engineOf(scene([sine], [{ clips: [clipOf('c', 0, 0, 4)], chain: [slot] }]));
  engine.play(0);
  runEngine(engine, 0.5);
  let most = 0;
  for (const position of CYCLE) {
    const to = paramAtPosition(effect.params[id]!, position);
    engine.queue({ kind: 'hold', channel: 't0', slot: 's', value: effect.paramIds.indexOf(id), to, atSample: 0 });
    const out = runEngine(engine, HOLD_SECONDS);
    // Against what is heard: a rail of +12 dB makes corners four times as high, and the sound too.
    const loud = Math.max(LEVEL, peakIn(out.left), peakIn(out.right)) / LEVEL;
    most = Math.max(most, roughness(out.left, 6) / loud, roughness(out.right, 6) / loud);
  }
  return most;
}

const cases = EFFECTS.flatMap((effect) => effect.paramIds.filter((id) => !BREAKS[effect.id]?.includes(id)).map((id) => [effect.name, id, effect] as const));

test.each(cases)('%s: %s thrown from end to end makes no click', (_name, id, effect) => {
  expect(ridden(effect, id)).toBeLessThan(CLICK);
});

import { clipOf, RATE, scene, soundOf, type Scene } from '../piece/testing';
import { EFFECTS } from '../effects/catalogue';
import type { EffectDefinition } from '../effects/define';
import { paramAtPosition } from '../params/resolve';
import { newSlot } from '../piece/edits/chain';
import { preparedImpulse } from '../impulses/make';
import type { Piece } from '../piece/piece';
import type { Engine } from './engine';
import { compilePlan } from './compilePlan';
import { planSlotsIn } from './plan';
import { roughness } from '../testing';
import { awayFrom, engineOf, peakIn, runEngine } from './testing';

const HZ = 220;
const LEVEL = 0.25;
/** Comes up softly: holds read it from its beginning, at other speeds. */
const sine = soundOf(4, (i) => LEVEL * Math.min(1, (i / RATE / 0.4) ** 2) * Math.sin((2 * Math.PI * HZ * i) / RATE));
const CYCLE = [0, 1, 0.37, 0.8, 0];
const HOLD_SECONDS = 0.15;
/** A step of 0.05 in a clean sine shows as 0.5; the sine itself as 1e-9. */
const CLICK = 0.1;

/** Parameters whose work it is to break the wave. */
const BREAKS: Readonly<Record<string, readonly string[]>> = {
  echo: ['bitDepth', 'rateReduction'],
  drive: ['drive'],
  crush: ['rate', 'bits', 'bend', 'after'],
  grit: ['amount'],
};

function giveImpulses(engine: Engine, piece: Piece): void {
  const needs = planSlotsIn(compilePlan(piece).channels.flatMap(({ slots }) => slots)).flatMap(({ impulse }) =>
    impulse ? [impulse] : [],
  );
  for (const { key, order } of needs) engine.addImpulse(key, preparedImpulse(order, new Map())!);
}

test('another impulse in the convolver while it plays makes no click, and is heard', () => {
  const withImpulse = (impulse: string): Scene =>
    scene(
      [sine],
      [
        {
          clips: [clipOf('c', 0, 0, 4)],
          chain: [newSlot('s', 'convolver', 'neutral', { balance: 'levels', dry: 0, wet: 0.1, impulse })],
        },
      ],
    );
  const [before, after] = [withImpulse('boatShed'), withImpulse('saltCistern')];
  const engine = engineOf(before);
  giveImpulses(engine, before.piece);
  engine.play(0);
  runEngine(engine, 1);
  engine.setPlan(compilePlan(after.piece));
  giveImpulses(engine, after.piece);
  const swapped = runEngine(engine, 1.5);
  const plain = engineOf(before);
  giveImpulses(plain, before.piece);
  plain.play(0);
  runEngine(plain, 1);
  const stayed = runEngine(plain, 1.5);
  expect(peakIn(swapped.left)).toBeGreaterThan(0.01);
  expect(roughness(swapped.left, 6)).toBeLessThan(CLICK / 10);
  expect(awayFrom(swapped.left, stayed.left)).toBeGreaterThan(0.005);
});

/** @param isHeld a hold that has been held for a moment by then */
function ridden(effect: EffectDefinition, id: string, isHeld = false): number {
  const slot = { ...newSlot('s', effect.id, effect.presets[1]!.id), id: 's' };
  const turn = (param: string, to: number): void =>
    engine.queue({ kind: 'hold', channel: 't0', slot: 's', value: effect.paramIds.indexOf(param), to, atSample: 0 });
  const played = scene([sine], [{ clips: [clipOf('c', 0, 0, 4)], chain: [slot] }]);
  const engine = engineOf(played);
  giveImpulses(engine, played.piece);
  engine.play(0);
  runEngine(engine, 0.5);
  if (isHeld) {
    turn('startsOn', 0);
    turn('held', 1);
    runEngine(engine, 0.1);
  }
  let most = 0;
  for (const position of CYCLE) {
    turn(id, paramAtPosition(effect.params[id]!, position));
    const out = runEngine(engine, HOLD_SECONDS);
    // Against what is heard: a rail of +12 dB makes corners four times as high, and the sound too.
    const loud = Math.max(LEVEL, peakIn(out.left), peakIn(out.right)) / LEVEL;
    most = Math.max(most, roughness(out.left, 6) / loud, roughness(out.right, 6) / loud);
  }
  return most;
}

const cases = EFFECTS.flatMap((effect) =>
  effect.paramIds.filter((id) => !BREAKS[effect.id]?.includes(id)).map((id) => [effect.name, id, effect] as const),
);

test.each(cases)('%s: %s thrown from end to end makes no click', (_name, id, effect) => {
  expect(ridden(effect, id)).toBeLessThan(CLICK);
});

const held = cases.filter(([, id, { family }]) => family === 'hold' && id !== 'held');

test.each(held)('%s: %s thrown from end to end while it is held makes no click', (_name, id, effect) => {
  expect(ridden(effect, id, true)).toBeLessThan(CLICK);
});

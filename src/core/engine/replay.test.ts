import { EFFECTS } from '../effects/catalogue';
import { preparedImpulse } from '../impulses/make';
import { newSlot } from '../piece/edits/chain';
import { clipOf, RATE, scene, soundOf, type Scene } from '../piece/testing';
import { compilePlan } from './compilePlan';
import type { Engine } from './engine';
import { planSlotsIn } from './plan';
import { awayFrom, engineOf, runEngine } from './testing';

const SECONDS = 2;
const sweep = soundOf(SECONDS, (i) => 0.3 * Math.sin(i * i * 0.0002));

function withEffect(effect: string, preset: string): Scene {
  return scene([sweep], [{ clips: [clipOf('a', 0, 0.1, SECONDS - 0.2)], chain: [newSlot('e', effect, preset)] }], {
    tempo: { bpm: 93, beatsPerBar: 4 },
    lengthBeats: 64,
  });
}

function newEngine(made: Scene): Engine {
  const engine = engineOf(made);
  for (const { slots } of compilePlan(made.piece).channels)
    for (const { impulse } of planSlotsIn(slots)) {
      const prepared = impulse && preparedImpulse(impulse.order, new Map());
      if (prepared) engine.addImpulse(impulse.key, prepared);
    }
  return engine;
}

/** Longer than anything here rings but what is frozen. */
const MOST_SECONDS = 120;

/**
 * Largest difference between a first playing and one after another had been played and had rung out.
 * @returns null for what never falls silent
 */
function replayDifference(made: Scene): number | null {
  const first = newEngine(made);
  first.play(0);
  const played = runEngine(first, SECONDS).left;
  const again = newEngine(made);
  again.play(0);
  // Whole steps, so that the second one begins at the start of a step, too.
  runEngine(again, (1001 * 64) / RATE);
  again.stop();
  for (let seconds = 0; seconds < MOST_SECONDS && (seconds < 2 || !again.silent); seconds += 1)
    runEngine(again, (751 * 64) / RATE);
  if (!again.silent) return null;
  again.play(0);
  return awayFrom(runEngine(again, SECONDS).left, played);
}

/** What is left of a sound that counts as silence, -120 dB, is still in long delays: it may change the last bit. */
const LAST_BIT = 4e-7;
/** Grains read the nearest of 4096 places between two samples: where rounding decides, another sample is read. */
const LIMITS: Readonly<Record<string, number>> = { grains: 3e-4 };
/** Of those whose tails take long to render, fewer presets. */
const LONG = new Set(['echo', 'reverb', 'convolver', 'pitch', 'braid']);
const EVERY = { long: 6, other: 2 } as const;

describe('what is played again after it has rung out sounds as at first', () => {
  test.each(EFFECTS.map(({ id, presets }) => [id, presets] as const))('%s', (effect, presets) => {
    const limit = LIMITS[effect] ?? LAST_BIT;
    for (const { id } of presets.filter((_, i) => i % (LONG.has(effect) ? EVERY.long : EVERY.other) === 0)) {
      const difference = replayDifference(withEffect(effect, id));
      if (difference === null) expect(id).toMatch(/^frozen/);
      else expect([id, difference < limit ? 'alike' : difference]).toEqual([id, 'alike']);
    }
  });
});

import { loudness } from '../analysis/loudness';
import { EFFECTS } from '../effects/catalogue';
import type { EffectDefinition } from '../effects/define';
import { treat } from '../engine/treat';
import { newSlot } from '../piece/edits/chain';
import { makeSaltPier } from '../sounds/saltPier';
import { SOUND_RATE } from '../sounds/tools';
import type { Accuracy } from './measure';

const SECONDS = 3.5;
const FROM = SOUND_RATE / 2;
const PARTS = [
  ['Kalimba, ebb', 1],
  ['Hum, first call', 0.7],
  ['Crates, all hands', 1],
  ['Foghorn, swell 1', 0.7],
] as const;
const PEAK = 0.5;
/** A preset that is meant to be much quieter says so in its purpose. */
const SAYS_SO = /quieter/;

type Sides = readonly [Float32Array, Float32Array];

let known: Sides | null = null;

/** Four parts of the demo at once, played from half a second on: plucked, sung, struck and low. */
function material(): Sides {
  if (known) return known;
  let count = 0;
  const { piece, sounds } = makeSaltPier(() => String((count += 1)).padStart(64, '0'));
  const sides: Sides = [new Float32Array(SECONDS * SOUND_RATE), new Float32Array(SECONDS * SOUND_RATE)];
  for (const [name, gain] of PARTS) {
    const { channels } = sounds.find(({ hash }) => piece.sounds[hash]!.name === name)!;
    sides.forEach((side, s) => side.forEach((x, i) => (side[i] = x + gain * (channels[s] ?? channels[0]!)[FROM + i]!)));
  }
  const peak = sides.reduce((most, side) => side.reduce((a, x) => Math.max(a, Math.abs(x)), most), 0);
  known = [sides[0].map((x) => (x * PEAK) / peak), sides[1].map((x) => (x * PEAK) / peak)];
  return known;
}

/**
 * By how many LU each preset of an effect changes the loudness of the demo's parts; those that say they are quieter
 * left out.
 */
export function presetLoudness(
  effect: EffectDefinition,
): readonly { readonly preset: string; readonly change: number }[] {
  const sound = material();
  const dry = loudness(sound, SOUND_RATE).integrated;
  return effect.presets
    .filter(({ purpose }) => !SAYS_SO.test(purpose))
    .map(({ id }) => {
      const { left, right } = treat({
        sound,
        sampleRate: SOUND_RATE,
        bpm: 92,
        chain: [newSlot('s', effect.id, id)],
        tail: { kind: 'seconds', seconds: 1 },
        hear: 'mix',
      })!;
      return { preset: id, change: loudness([left, right], SOUND_RATE).integrated - dry };
    });
}

export const presetPromises: readonly Accuracy[] = EFFECTS.map((effect) => ({
  effect: effect.name,
  promise: 'no preset changes the loudness by more, but those that say so',
  unit: 'LU',
  limit: 6,
  measure: () => presetLoudness(effect).reduce((most, { change }) => Math.max(most, Math.abs(change)), 0),
}));

import { useMemo } from 'react';
import { effectOf } from '../../core/effects/catalogue';
import { initialValues } from '../../core/params/resolve';
import { findSlot } from '../../core/piece/find';
import type { EffectTarget, Slot } from '../../core/piece/piece';
import { usePlayed, type PresetChoice } from '../studio/played';
import { ownPresets, useBlocks } from '../shared/blocks/ownPresets';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { holdGrid } from '../studio/useHoldPad';

function readyPresets(effect: string): PresetChoice[] {
  const { presets, params } = effectOf(effect);
  return presets.map(({ id, name, purpose, values }) => ({
    id,
    name,
    purpose,
    values: { ...initialValues(params), ...values },
    own: false,
  }));
}

/** The preset that an effect has: the one it started from, or one of one's own with the same values. */
export function presetOf(slot: Slot, choices: readonly PresetChoice[]): PresetChoice | undefined {
  const { holds } = effectOf(slot.effect);
  const same = ({ values }: PresetChoice): boolean =>
    Object.entries(values).every(([id, value]) => holds?.includes(id) || slot.values[id] === value);
  return slot.preset === null
    ? choices.find((choice) => choice.own && same(choice))
    : choices.find(({ id }) => id === slot.preset);
}

interface HoldPresets {
  /** The effect's own first, then one's own. */
  readonly choices: readonly PresetChoice[];
  readonly now: PresetChoice | undefined;
  take(choice: PresetChoice): void;
  step(direction: 1 | -1): void;
}

/** The presets of a hold, and the way from one to the next while it is held. */
export function useHoldPresets(target: EffectTarget | undefined): HoldPresets {
  const piece = usePiece();
  const { studio } = useStudio();
  const blocks = useBlocks();
  const slot = target && findSlot(piece, target.channel, target.effect);
  const effect = slot?.effect;
  const choices = useMemo(
    () => (effect === undefined ? [] : [...readyPresets(effect), ...ownPresets(blocks, effect)]),
    [effect, blocks],
  );
  const stepped = usePlayed((state) => (slot ? state.presets[slot.id] : undefined));
  const now = stepped ?? (slot ? presetOf(slot, choices) : undefined);
  const take = (choice: PresetChoice): void => {
    if (target) studio.live.takePreset(target, choice, holdGrid(piece, target, 'startsOn', studio.beat));
  };
  return {
    choices,
    now,
    take,
    step: (direction) => {
      const at = choices.findIndex(({ id }) => id === now?.id);
      const next = choices[(at + direction + choices.length) % choices.length];
      if (next) take(next);
    },
  };
}

import { MODULATOR_KINDS, type ModulatorKind } from '../../../core/automation/modulator';
import { effectOf } from '../../../core/effects/catalogue';
import { findSlot } from '../../../core/piece/find';
import type { Piece, Target } from '../../../core/piece/piece';

export const KIND_NAMES: Record<ModulatorKind, string> = {
  lfo: 'LFO',
  steps: 'Steps',
  drift: 'Drift',
  macro: 'Macro',
  follower: 'Follower',
  run: 'Run',
};

export function isHold(piece: Piece, channel: string, effect: string): boolean {
  const slot = findSlot(piece, channel, effect);
  return slot !== undefined && effectOf(slot.effect).family === 'hold';
}

/**
 * Kinds of modulators for a target: all but macros for a macro; runs only for parameters of holds, where they are
 * listed first.
 */
export function kindsFor(piece: Piece, target: Target): ModulatorKind[] {
  const ofHold = target.kind === 'effect' && isHold(piece, target.channel, target.effect);
  const kinds: readonly ModulatorKind[] = ofHold ? ['run', ...MODULATOR_KINDS] : MODULATOR_KINDS;
  return [...new Set(kinds)].filter((kind) =>
    kind === 'run' ? ofHold : kind === 'macro' ? target.kind !== 'macro' : true,
  );
}

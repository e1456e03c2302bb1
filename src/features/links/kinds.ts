import type { ModulatorKind } from '../../core/automation/modulator';

export const KIND_NAMES: Record<ModulatorKind, string> = {
  lfo: 'LFO',
  steps: 'Steps',
  drift: 'Drift',
  macro: 'Macro',
  follower: 'Follower',
};

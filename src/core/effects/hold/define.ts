import { defineEffect, type EditorPart, type EffectDefinition, type Preset } from '../define';
import type { Params } from '../../params/param';
import type { VisibleWhen } from '../visibleWhen';
import { holdVisibleWhen } from './params';

interface HoldParts extends Pick<EffectDefinition, 'id' | 'name' | 'purpose' | 'searchWords' | 'headline'> {
  readonly glyph: string;
  readonly params: Params;
  readonly presets: readonly Preset[];
  readonly visibleWhen?: VisibleWhen;
}

const PAD: readonly EditorPart[] = [{ part: 'holdPad', after: 'held' }];

/** An effect of the family of holds: played by a pad, and let go when it is switched off. */
export const defineHold = (parts: HoldParts): EffectDefinition =>
  defineEffect({
    ...parts,
    family: 'hold',
    visibleWhen: { ...holdVisibleWhen, ...parts.visibleWhen },
    editorParts: PAD,
    holds: ['held'],
    sampleAccurateSwitch: 'held',
  });

import { searchIndex, type SearchFields } from '../searchIndex';
import { EFFECTS } from './catalogue';
import type { EffectDefinition, Preset } from './define';

/** A preset that matches a search. */
export interface FoundPreset {
  readonly effect: EffectDefinition;
  readonly preset: Preset;
  /** Relevance: higher is better. */
  readonly score: number;
}

interface Entry {
  readonly id: string;
  readonly effect: EffectDefinition;
  readonly preset: Preset;
}

const ENTRIES: readonly Entry[] = EFFECTS.flatMap((effect) =>
  effect.presets.map((preset) => ({ id: `${effect.id}/${preset.id}`, effect, preset })),
);

const FIELDS: SearchFields<Entry> = {
  presetName: [4, ({ preset }) => preset.name],
  presetWords: [5, ({ preset }) => preset.searchWords ?? ''],
  effectName: [6, ({ effect }) => effect.name],
  effectWords: [3, ({ effect }) => effect.searchWords],
  family: [2, ({ effect }) => effect.family],
  presetPurpose: [1.5, ({ preset }) => preset.purpose],
  effectPurpose: [1, ({ effect }) => effect.purpose],
  params: [
    0.5,
    ({ effect }) =>
      Object.values(effect.params)
        .map(({ label }) => label)
        .join(' '),
  ],
};

let search: ReturnType<typeof searchIndex<Entry>> | null = null;

/**
 * Presets that match every one of the words by their effect's name, purpose, parameters or the trade's words for it;
 * best first. Prefixes and words with a typing error match as well.
 */
export function searchEffects(words: string): FoundPreset[] {
  search ??= searchIndex(ENTRIES, FIELDS);
  return search(words).map(({ entry: { effect, preset }, score }) => ({ effect, preset, score }));
}

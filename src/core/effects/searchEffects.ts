import MiniSearch from 'minisearch';
import { EFFECTS } from './catalogue';
import type { EffectDefinition, Preset } from './define';

/** A preset of an effect that the words lead to. */
export interface FoundPreset {
  readonly effect: EffectDefinition;
  readonly preset: Preset;
  /** The higher the likelier. */
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

/** What each field of an entry says, and how much a word found in it counts. */
const FIELDS: Readonly<Record<string, readonly [weight: number, text: (entry: Entry) => string]>> = {
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

/** "lo-fi" and "lofi", "low-pass" and "lowpass" are one word. */
const joined = (text: string): string => text.replace(/(\p{L})[-/](\p{L})/gu, '$1$2');
/** A word this short has to be meant as it is written. */
const MIN_FUZZY = 5;

let index: MiniSearch<Entry> | null = null;

function entries(): MiniSearch<Entry> {
  if (index) return index;
  index = new MiniSearch<Entry>({
    fields: Object.keys(FIELDS),
    extractField: (entry, field) => (field === 'id' ? entry.id : joined(FIELDS[field]![1](entry))),
    processTerm: (term) => term.toLowerCase(),
    searchOptions: {
      boost: Object.fromEntries(Object.entries(FIELDS).map(([field, [weight]]) => [field, weight])),
      combineWith: 'AND',
      prefix: true,
      fuzzy: (term) => (term.length >= MIN_FUZZY ? 0.2 : false),
    },
  });
  index.addAll(ENTRIES);
  return index;
}

const BY_ID = new Map(ENTRIES.map((entry) => [entry.id, entry]));

/**
 * Presets that hold every one of the words, in their effect's name, purpose, parameters or the trade's words for it;
 * likeliest first. A word may be begun, or have a slip of the pen in it.
 */
export const searchEffects = (words: string): FoundPreset[] =>
  entries()
    .search(joined(words))
    .map(({ id, score }) => ({ effect: BY_ID.get(id)!.effect, preset: BY_ID.get(id)!.preset, score }));

import { useState, type ReactNode } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { EFFECTS } from '../../../core/effects/catalogue';
import type { EffectDefinition, Preset } from '../../../core/effects/define';
import { searchEffects } from '../../../core/effects/searchEffects';
import { addEffect, newSlot, replaceEffect, type Inside } from '../../../core/piece/edits/chain';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';
import { Chip } from '../../../ui/Chip';
import { Text } from '../../../ui/Text';
import { ListItem } from '../../../ui/ListItem';
import { BlockChoices } from '../blocks/BlockChoices';
import { SearchField } from '../../../ui/SearchField';
import { useTokens } from '../../../ui/theme';
import { newId } from '../../../data/newId';

interface EffectChoicesProps {
  readonly channel: string;
  /** Index in the chain at which it is inserted. */
  readonly at: number;
  /** Purposes side by side where there is room. */
  readonly roomy?: boolean;
  /** The strand or wet path that it is added to; none for the channel's own chain. */
  readonly inside?: Inside | undefined;
  readonly onAdded?: () => void;
  /** The effect that it replaces; none when it is added. */
  readonly replaces?: string;
}

type Family = EffectDefinition['family'];
const FAMILIES: readonly (Family | 'all')[] = [
  'all',
  'delay',
  'reverb',
  'modulation',
  'space',
  'tone',
  'hold',
  'braid',
];

interface Found {
  readonly effect: EffectDefinition;
  readonly presets: readonly Preset[];
}

/** Effects of a family with their presets; with search words, the matching ones, best first. */
function find(family: Family | 'all', query: string): Found[] {
  const wanted = (effect: EffectDefinition): boolean => family === 'all' || effect.family === family;
  if (query === '')
    return EFFECTS.filter(wanted).map((effect) => ({
      effect,
      presets: [...effect.presets].sort((a, b) => Number(a.id === 'neutral') - Number(b.id === 'neutral')),
    }));
  const found = new Map<string, { effect: EffectDefinition; presets: Preset[] }>();
  for (const { effect, preset } of searchEffects(query)) {
    if (!wanted(effect)) continue;
    const group = found.get(effect.id) ?? { effect, presets: [] };
    group.presets.push(preset);
    found.set(effect.id, group);
  }
  return [...found.values()];
}

/**
 * Every effect by family and by the purposes it can be started from, with search; a tap adds it and opens its editor.
 */
export function EffectChoices({ channel, at, roomy = false, onAdded, replaces, inside }: EffectChoicesProps) {
  const add = (effect: string, preset: string): void => {
    const id = replaces ?? newId();
    const { run } = useOpenPiece.getState();
    const done = replaces
      ? run(replaceEffect, { channel, slot: replaces, effect, preset })
      : run(addEffect, { channel, slot: newSlot(id, effect, preset), at, ...(inside ? { inside } : {}) });
    if (done) useView.setState({ channel, slot: id });
    onAdded?.();
  };
  return (
    <EffectPicker
      verb={replaces ? 'Replace by' : 'Add'}
      roomy={roomy}
      onPick={add}
      before={(family, query) =>
        replaces === undefined && family === 'all' ? (
          <BlockChoices channel={channel} at={at} inside={inside} query={query} onAdded={onAdded} />
        ) : null
      }
    />
  );
}

interface EffectPickerProps {
  /** Spoken action of each choice. */
  readonly verb: string;
  readonly roomy?: boolean;
  readonly onPick: (effect: string, preset: string) => void;
  /** Shown before the list, by family and words. */
  readonly before?: (family: Family | 'all', query: string) => ReactNode;
}

/** The list of effects and presets itself. */
export function EffectPicker({ verb, roomy = false, onPick, before }: EffectPickerProps) {
  const tokens = useTokens();
  const [family, setFamily] = useState<Family | 'all'>('all');
  const [words, setWords] = useState('');
  const [open, setOpen] = useState(EFFECTS[0]!.id);
  const query = words.trim().toLowerCase();
  const found = find(family, query);
  return (
    <View style={styles.all}>
      <SearchField
        label="Search effects and purposes"
        placeholder="Search: vocal, slapback, lofi …"
        words={words}
        onWords={setWords}
      />
      <ScrollView
        horizontal
        showsHorizontalScrollIndicator={false}
        role="radiogroup"
        aria-label="Family"
        contentContainerStyle={styles.families}
      >
        {FAMILIES.map((name) => (
          <Chip
            key={name}
            role="radio"
            label={`Family: ${name}`}
            chosen={name === family}
            tone="sea"
            onPress={() => setFamily(name)}
          >
            {name}
          </Chip>
        ))}
      </ScrollView>
      {before?.(family, query)}
      {found.length === 0 ? (
        <Text variant="bodySmall">Nothing is called or made for that. Try another word, or all families.</Text>
      ) : null}
      {found.map(({ effect, presets }) => {
        const shown = query !== '' || effect.id === open;
        return (
          <View key={effect.id} style={[styles.effect, { borderColor: tokens.line }]}>
            <ListItem
              title={effect.name}
              note={effect.purpose}
              label={`${shown ? 'Fold' : 'Unfold'} ${effect.name}`}
              variant="headlineMedium"
              style={styles.item}
              onPress={() => setOpen(shown ? '' : effect.id)}
            />
            {shown ? (
              <View style={roomy ? styles.roomy : undefined}>
                {presets.map((preset) => (
                  <ListItem
                    key={preset.id}
                    title={preset.name}
                    note={preset.purpose}
                    label={`${verb} ${effect.name}: ${preset.name}`}
                    variant="headlineSmall"
                    style={[styles.item, styles.preset, roomy && styles.half]}
                    onPress={() => onPick(effect.id, preset.id)}
                  />
                ))}
              </View>
            ) : null}
          </View>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 8 },
  families: { gap: 6, paddingVertical: 2 },
  effect: { borderTopWidth: 1, paddingTop: 2 },
  item: { alignItems: 'flex-start', paddingVertical: 7, paddingHorizontal: 0 },
  preset: { paddingLeft: 14 },
  roomy: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 28 },
  half: { width: '46%' },
});

import { StyleSheet, View } from 'react-native';
import { Surface } from 'react-native-paper';
import type { SoundFigures } from '../../../core/analysis/soundFigures';
import { formatDb } from '../../../core/params/format';
import { Button } from '../../../ui/Button';
import { IconButton } from '../../../ui/IconButton';
import { Text } from '../../../ui/Text';
import { Touchable } from '../../../ui/Touchable';
import { useTokens } from '../../../ui/theme';
import type { Alternative, Compared } from './useAlternatives';

interface AlternativeListProps {
  readonly alternatives: readonly Alternative[];
  readonly audition: Compared;
  /** The channel's present chain: nothing to store there. */
  readonly current: string;
  /** Names and figures are hidden, so that only the ear judges. */
  readonly blind: boolean;
  readonly keepLabel: string;
  readonly onKeep: (id: string) => void;
  readonly onDrop?: (id: string) => void;
}

/** A list of alternatives: a tap plays one in the piece; each shows its width and its loss in mono. */
export function AlternativeList({
  alternatives,
  audition,
  current,
  blind,
  keepLabel,
  onKeep,
  onDrop,
}: AlternativeListProps) {
  const tokens = useTokens();
  return (
    <View role="radiogroup" aria-label="Hear">
      {alternatives.map((one, index) => {
        const heard = audition.heard === one.id;
        const name = blind ? `Number ${index + 1}` : one.name;
        return (
          <Surface
            key={one.id}
            elevation={0}
            style={[styles.row, { backgroundColor: heard ? tokens.seaSoft : 'transparent' }]}
          >
            <Touchable
              role="radio"
              label={`Hear ${name}`}
              chosen={heard}
              style={styles.main}
              onPress={() => audition.hear(one.id)}
            >
              <Text variant="headlineSmall" style={styles.name}>
                {name}
              </Text>
              {blind ? null : <Text variant="bodySmall">{one.purpose}</Text>}
              {blind ? null : <Figures figures={audition.figures.get(one.id)} name={name} />}
            </Touchable>
            {blind || one.id === current ? null : (
              <Button label={`${keepLabel} ${one.name}`} tone="sea" onPress={() => onKeep(one.id)}>
                {keepLabel}
              </Button>
            )}
            {blind || one.id === current || !onDrop ? null : (
              <IconButton icon="x" label={`Let go of ${one.name}`} tone="mute" onPress={() => onDrop(one.id)} />
            )}
          </Surface>
        );
      })}
    </View>
  );
}

function Figures({ figures, name }: { readonly figures: SoundFigures | null | undefined; readonly name: string }) {
  if (!figures) return <Text variant="bodySmall">measuring …</Text>;
  if (figures.lufs === null) return <Text variant="bodySmall">silent here</Text>;
  return (
    <Text
      variant="titleSmall"
      aria-label={`${name}: width ${Math.round(figures.width * 100)} %, in mono ${formatDb(figures.monoLossDb)}, ${figures.lufs.toFixed(1)} LUFS`}
      style={styles.figures}
    >
      {`width ${Math.round(figures.width * 100)} % · in mono ${formatDb(figures.monoLossDb)} · ${figures.lufs.toFixed(1).replace('-', '−')} LUFS`}
    </Text>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: 6, paddingRight: 6, borderRadius: 10 },
  main: { flex: 1, alignItems: 'flex-start', paddingVertical: 8, paddingHorizontal: 8, borderRadius: 10 },
  name: { fontSize: 18, lineHeight: 23 },
  figures: { fontSize: 13, lineHeight: 18 },
});

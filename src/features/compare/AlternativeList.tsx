import { StyleSheet, View } from 'react-native';
import type { SoundFigures } from '../../core/analysis/soundFigures';
import { formatDb } from '../../core/params/format';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';
import type { Alternative, Audition } from './useAudition';

interface AlternativeListProps {
  readonly alternatives: readonly Alternative[];
  readonly audition: Audition;
  /** The one that stands on the channel now: nothing to keep there. */
  readonly current: string;
  /** Names and figures are hidden, so that only the ear judges. */
  readonly blind: boolean;
  readonly keepLabel: string;
  readonly onKeep: (id: string) => void;
  readonly onDrop?: (id: string) => void;
}

/**
 * Alternatives one under the other: a tap lets one be heard in the piece, with how wide it is and what mono costs it.
 */
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
          <View
            key={one.id}
            style={[styles.row, { borderColor: tokens.line, backgroundColor: heard ? tokens.seaSoft : 'transparent' }]}
          >
            <Tap
              plain
              role="radio"
              chosen={heard}
              label={`Hear ${name}`}
              onPress={() => audition.hear(one.id)}
              style={styles.main}
            >
              <Words kind="water" style={styles.name}>
                {name}
              </Words>
              {blind ? null : <Words kind="small">{one.purpose}</Words>}
              {blind ? null : <Figures figures={audition.figures.get(one.id)} name={name} />}
            </Tap>
            {blind || one.id === current ? null : (
              <Tap text={keepLabel} label={`${keepLabel} ${one.name}`} tone="sea" onPress={() => onKeep(one.id)} />
            )}
            {blind || one.id === current || !onDrop ? null : (
              <Tap plain icon="x" tone="mute" label={`Let go of ${one.name}`} onPress={() => onDrop(one.id)} />
            )}
          </View>
        );
      })}
    </View>
  );
}

function Figures({ figures, name }: { readonly figures: SoundFigures | null | undefined; readonly name: string }) {
  if (!figures) return <Words kind="small">measuring …</Words>;
  if (figures.lufs === null) return <Words kind="small">silent here</Words>;
  return (
    <Words
      kind="strong"
      aria-label={`${name}: width ${Math.round(figures.width * 100)} %, in mono ${formatDb(figures.monoLossDb)}, ${figures.lufs.toFixed(1)} LUFS`}
      style={styles.figures}
    >
      {`width ${Math.round(figures.width * 100)} % · in mono ${formatDb(figures.monoLossDb)} · ${figures.lufs.toFixed(1).replace('-', '−')} LUFS`}
    </Words>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', borderTopWidth: 1, gap: 6, paddingRight: 6, borderRadius: 10 },
  main: { flex: 1, alignItems: 'flex-start', paddingVertical: 8, paddingHorizontal: 8, borderRadius: 10 },
  name: { fontSize: 18, lineHeight: 23 },
  figures: { fontSize: 13, lineHeight: 18 },
});

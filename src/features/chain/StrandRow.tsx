import { StyleSheet, View } from 'react-native';
import { ROW_IDS } from '../../core/effects/braid/params';
import { effectOf } from '../../core/effects/catalogue';
import type { Slot } from '../../core/piece/piece';
import { StepField, useStepField } from '../../ui/StepField';
import { Text } from '../../ui/Text';
import { useTokens } from '../../ui/theme';
import { useStudio } from '../studio/StudioProvider';

/** Height of the line of one strand. */
const LINE_PX = 34;
const REST = { position: 0, name: 'rest' };

/** The drawn row of a pattern: a column for each step, a line for each strand and one for a rest. */
export function StrandRow({ channel, slot }: { readonly channel: string; readonly slot: Slot }) {
  const tokens = useTokens();
  const { studio } = useStudio();
  const { params } = effectOf(slot.effect);
  const valueOf = (id: string): number => Math.round(Number(slot.values[id] ?? params[id]!.initial));
  const count = valueOf('steps');
  const row = ROW_IDS.slice(0, count).map(valueOf);
  const lines = [...(slot.strands ?? []).map(({ place, name }) => ({ position: place, name })), REST];
  const lineOf = (position: number): number => lines.findIndex((line) => line.position === position);
  const positionAt = (line: number): number => lines[Math.max(0, Math.min(lines.length - 1, line))]!.position;
  const state = useStepField({
    values: row,
    valueAt: (y) => positionAt(Math.floor(y * lines.length)),
    // A removed strand counts as the line below the last.
    moved: (position, up) => positionAt((lineOf(position) < 0 ? lines.length : lineOf(position)) - up),
    onChange: (next) => {
      const changed = next.flatMap((position, i) => (position === row[i] ? [] : [[ROW_IDS[i]!, position] as const]));
      if (changed.length > 0) studio.releaseTogether(channel, slot.id, Object.fromEntries(changed));
    },
  });
  const { shown, chosen } = state;
  const name = lines[lineOf(shown[chosen]!)]?.name ?? 'a strand that is gone';
  return (
    <View style={styles.row}>
      <View style={styles.names}>
        {lines.map((line) => (
          <Text key={line.position} variant="bodySmall" numberOfLines={1} style={styles.name}>
            {line.name}
          </Text>
        ))}
      </View>
      <StepField
        state={state}
        label="Row of strands. Left and right choose a step, up and down its strand"
        min={1}
        max={count}
        now={chosen + 1}
        text={`step ${chosen + 1} of ${count}: ${name}`}
        height={LINE_PX * lines.length}
        renderStep={(position) =>
          lines.map((line) => (
            <View
              key={line.position}
              style={[
                styles.cell,
                { borderColor: tokens.line },
                position === line.position && { backgroundColor: line === REST ? tokens.line : tokens.coral },
              ]}
            />
          ))
        }
      />
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', marginTop: 6 },
  names: { width: 78 },
  name: { height: LINE_PX, lineHeight: LINE_PX, paddingRight: 6 },
  cell: { flex: 1, margin: 1, borderRadius: 4, borderWidth: StyleSheet.hairlineWidth },
});

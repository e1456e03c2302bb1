import { useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { ROW_IDS } from '../../core/effects/braid/params';
import { effectOf } from '../../core/effects/catalogue';
import type { Slot } from '../../core/piece/piece';
import { useDrag, useKeys, type Drag } from '../../ui/pointer';
import { Text } from '../../ui/Text';
import { useTokens } from '../../ui/theme';
import { TOUCH } from '../../ui/tokens';
import { useStudio } from '../studio/StudioProvider';

/** Height of the row of one strand. */
const HIGH = 34;

/**
 * The drawn row of a pattern: a column for each step, a line for each strand and one for a rest. Drawn with one stroke,
 * or step by step with the arrow keys.
 */
export function StrandRow({ channel, slot }: { readonly channel: string; readonly slot: Slot }) {
  const tokens = useTokens();
  const { studio } = useStudio();
  const field = useRef<View>(null);
  const [drawn, setDrawn] = useState<readonly number[] | null>(null);
  const [chosen, setChosen] = useState(0);
  const { params } = effectOf(slot.effect);
  const valueOf = (id: string): number => Math.round(Number(slot.values[id] ?? params[id]!.initial));
  const count = valueOf('steps');
  const kept = ROW_IDS.slice(0, count).map(valueOf);
  const lines = [...(slot.strands ?? []).map(({ place, name }) => ({ place, name })), { place: 0, name: 'rest' }];
  const shown = drawn ?? kept;
  const step = Math.min(chosen, count - 1);
  const stroke = useRef<readonly number[]>(kept);
  const keep = (row: readonly number[]): void => {
    const changed = row.flatMap((place, i) => (place === kept[i] ? [] : [[ROW_IDS[i]!, place] as const]));
    if (changed.length > 0) studio.releaseTogether(channel, slot.id, Object.fromEntries(changed));
  };
  const put = ({ x, y, width, height }: Pick<Drag, 'x' | 'y' | 'width' | 'height'>): void => {
    const at = (way: number, cells: number): number => Math.max(0, Math.min(cells - 1, Math.floor(way * cells)));
    const index = at(x / width, count);
    const { place } = lines[at(y / height, lines.length)]!;
    stroke.current = stroke.current.map((before, i) => (i === index ? place : before));
    setChosen(index);
    setDrawn(stroke.current);
  };
  const begin = (drag: Drag, x: number, y: number): void => {
    stroke.current = kept;
    put({ ...drag, x, y });
  };
  const end = (cancelled: boolean): void => {
    if (!cancelled) keep(stroke.current);
    setDrawn(null);
  };
  useDrag(
    field,
    {
      begin: (drag) => begin(drag, drag.startX, drag.startY),
      move: put,
      end: (_drag, cancelled) => end(cancelled),
      tap: (drag) => {
        begin(drag, drag.x, drag.y);
        end(false);
      },
    },
    'none',
  );
  useKeys(field, ({ key }) => {
    const aside = key === 'ArrowRight' ? 1 : key === 'ArrowLeft' ? -1 : 0;
    const down = key === 'ArrowDown' ? 1 : key === 'ArrowUp' ? -1 : 0;
    if (aside !== 0) setChosen(Math.max(0, Math.min(count - 1, step + aside)));
    if (down !== 0) {
      const line = lines.findIndex(({ place }) => place === kept[step]);
      const next = lines[Math.max(0, Math.min(lines.length - 1, (line < 0 ? lines.length - 1 : line) + down))]!;
      keep(kept.map((place, i) => (i === step ? next.place : place)));
    }
    return aside !== 0 || down !== 0;
  });
  const nameOf = (place: number): string => lines.find((line) => line.place === place)?.name ?? 'a strand that is gone';
  return (
    <View style={styles.row}>
      <View style={styles.names}>
        {lines.map(({ place, name }) => (
          <Text key={place} variant="bodySmall" numberOfLines={1} style={styles.name}>
            {name}
          </Text>
        ))}
      </View>
      <View
        ref={field}
        role="slider"
        tabIndex={0}
        aria-label="Row of strands. Left and right choose a step, up and down its strand"
        aria-valuemin={1}
        aria-valuemax={count}
        aria-valuenow={step + 1}
        aria-valuetext={`step ${step + 1} of ${count}: ${nameOf(shown[step]!)}`}
        style={[styles.field, { height: HIGH * lines.length, borderColor: tokens.line, backgroundColor: tokens.paper }]}
      >
        {shown.map((place, i) => (
          <View key={i} style={[styles.column, i === step && { backgroundColor: tokens.coralSoft }]}>
            {lines.map((line) => (
              <View
                key={line.place}
                style={[
                  styles.cell,
                  { borderColor: tokens.line },
                  place === line.place && { backgroundColor: line.place === 0 ? tokens.line : tokens.coral },
                ]}
              />
            ))}
          </View>
        ))}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', marginTop: 6, minHeight: TOUCH },
  names: { width: 78 },
  name: { height: HIGH, lineHeight: HIGH, paddingRight: 6 },
  field: {
    flex: 1,
    flexDirection: 'row',
    borderRadius: 10,
    borderWidth: 1,
    overflow: 'hidden',
    userSelect: 'none',
    cursor: 'pointer',
  },
  column: { flex: 1, pointerEvents: 'none' },
  cell: { flex: 1, margin: 1, borderRadius: 4, borderWidth: StyleSheet.hairlineWidth },
});

import { useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { Line } from 'react-native-svg';
import { formatNumber, formatValue } from '../../core/params/format';
import { notchesOf } from '../../core/params/notches';
import type { Param, ValueContext } from '../../core/params/param';
import { syncedNote } from '../../core/params/resolve';
import { useTokens } from '../../ui/theme';
import { Text } from '../../ui/Text';

export interface AxisMark {
  readonly position: number;
  readonly says: string;
}

/** Words closer than this would run into each other. */
const MIN_PX = 17;
const LINE = 17;

/** The labels of a lane's axis: its two ends, then as many note values, choices and named figures as have room. */
export function axisMarks(param: Param, context: ValueContext, y: (position: number) => number): AxisMark[] {
  const ends: AxisMark[] =
    param.kind === 'number'
      ? [1, 0].map((position) => ({
          position,
          says: formatNumber({ ...param, offAt: undefined }, position === 1 ? param.max : param.min),
        }))
      : [];
  const notches = notchesOf(param, context)
    .filter(({ major }) => major)
    .map(({ position, value }): AxisMark => ({
      position,
      says: typeof value === 'string' && syncedNote(value) ? value : formatValue(param, value, context),
    }));
  const marks: AxisMark[] = [];
  for (const mark of [...ends, ...notches])
    if (marks.every(({ position }) => Math.abs(y(position) - y(mark.position)) >= MIN_PX)) marks.push(mark);
  return marks;
}

interface AxisLinesProps {
  readonly marks: readonly AxisMark[];
  readonly from: number;
  readonly to: number;
  readonly y: (position: number) => number;
}

/** Fine lines across the lane at each mark of its axis. */
export function AxisLines({ marks, from, to, y }: AxisLinesProps) {
  const tokens = useTokens();
  return (
    <>
      {marks.map(({ position }) => (
        <Line
          key={position}
          x1={from}
          x2={to}
          y1={y(position)}
          y2={y(position)}
          stroke={tokens.line}
          strokeWidth={1}
          strokeDasharray="1 5"
        />
      ))}
    </>
  );
}

/** The parameter's own units beside the lane. */
export function AxisWords({
  marks,
  y,
}: {
  readonly marks: readonly AxisMark[];
  readonly y: (position: number) => number;
}) {
  const tokens = useTokens();
  const order = useMemo(() => [...marks].sort((a, b) => b.position - a.position), [marks]);
  return (
    <View aria-hidden style={styles.words}>
      {order.map(({ position, says }) => (
        <Text
          key={position}
          variant="bodySmall"
          style={[styles.mark, { top: y(position) - LINE / 2, backgroundColor: tokens.card }]}
        >
          {says}
        </Text>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  words: { pointerEvents: 'none', width: 120 },
  mark: { position: 'absolute', left: 2, paddingHorizontal: 3, borderRadius: 4, opacity: 0.92 },
});

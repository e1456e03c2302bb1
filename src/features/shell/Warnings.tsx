import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { formatDb, gainToDb } from '../../core/params/format';
import { useAudition } from '../../data/audition';
import { Button } from '../../ui/Button';
import { useFrame } from '../../ui/frame';
import { useTokens } from '../../ui/theme';
import { Text } from '../../ui/Text';
import { MONITOR_NAMES } from '../shared/shell/MonitorChoice';
import { useStudio } from '../studio/StudioProvider';

/** A warning stays for a while after what it tells of, so that it can be read. */
const SHOWN_MS = 1500;

interface Seen {
  limiter: number;
  guard: number;
  late: number;
  caught: number;
}

/**
 * What the engine does to keep ears and speakers safe, told while it does it: limiter, loop guard, late blocks, caught
 * faults.
 */
export function Warnings() {
  const tokens = useTokens();
  const { studio } = useStudio();
  const [texts, setTexts] = useState<readonly string[]>([]);
  const [memory] = useState(() => ({
    limiterAt: -Infinity,
    guardAt: -Infinity,
    lateAt: -Infinity,
    seen: { limiter: 1, guard: 1, late: 0, caught: 0 } as Seen,
  }));
  useFrame(() => {
    const now = performance.now();
    const state = studio.player.meters.read();
    if (state.limiterGain < 0.999)
      Object.assign(memory, { limiterAt: now, seen: { ...memory.seen, limiter: state.limiterGain } });
    if (state.guardGain < 0.999)
      Object.assign(memory, { guardAt: now, seen: { ...memory.seen, guard: state.guardGain } });
    if (state.late > memory.seen.late)
      Object.assign(memory, { lateAt: now, seen: { ...memory.seen, late: state.late } });
    const next: string[] = [];
    if (now - memory.guardAt < SHOWN_MS) next.push('Guard holds a loop from running away');
    if (now - memory.limiterAt < SHOWN_MS) next.push(`Limiter ${formatDb(gainToDb(memory.seen.limiter))}`);
    if (state.late > 0 && now - memory.lateAt < 6000)
      next.push(`Sound fell behind ${state.late} ${state.late === 1 ? 'time' : 'times'}`);
    if (state.caught > 0)
      next.push(`A fault in an effect was silenced ${state.caught} ${state.caught === 1 ? 'time' : 'times'}`);
    if (next.join() !== texts.join()) setTexts(next);
    return next.length > 0;
  });
  const monitor = useAudition((audition) => audition.monitor);
  if (texts.length === 0 && monitor === 'stereo') return null;
  return (
    <View role="status" style={styles.row}>
      {monitor === 'stereo' ? null : (
        <Button
          label={`Listening: ${MONITOR_NAMES[monitor]}. Back to stereo`}
          icon="headphones"
          onPress={() => useAudition.setState({ monitor: 'stereo' })}
        >
          {`Listening: ${MONITOR_NAMES[monitor]}`}
        </Button>
      )}
      {texts.map((text) => (
        <View key={text} style={[styles.chip, { backgroundColor: tokens.card, borderColor: tokens.danger }]}>
          <Text variant="bodySmall" tone="danger">{`▲ ${text}`}</Text>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  row: {
    position: 'absolute',
    right: 10,
    bottom: '100%',
    marginBottom: 6,
    flexDirection: 'row',
    flexWrap: 'wrap',
    justifyContent: 'flex-end',
    gap: 6,
    pointerEvents: 'none',
  },
  chip: { borderWidth: 1, borderRadius: 10, paddingHorizontal: 9, paddingVertical: 3 },
});

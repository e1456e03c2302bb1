import { useEffect } from 'react';
import { StyleSheet, View } from 'react-native';
import { formatDb } from '../../core/params/format';
import type { Hear } from '../../core/engine/slot';
import { useAudition } from '../../data/audition';
import { LiveText } from '../../ui/LiveText';
import { Text } from '../../ui/Text';
import { Touchable } from '../../ui/Touchable';
import { useTokens } from '../../ui/theme';
import { useStudio } from '../studio/StudioProvider';

const CHOICES: readonly { readonly id: Hear; readonly label: string }[] = [
  { id: 'mix', label: 'mix' },
  { id: 'wet', label: 'wet' },
  { id: 'dry', label: 'dry' },
  { id: 'difference', label: 'difference' },
];

/** Audition modes of an effect, and loudness matching with its gain. Closing the editor ends them. */
export function HearBar({ channel, slot }: { readonly channel: string; readonly slot: string }) {
  const { studio } = useStudio();
  const tokens = useTokens();
  const hear = useAudition((audition) => audition.hear);
  const matched = useAudition((audition) => audition.matched);
  useEffect(() => {
    useAudition.setState({ metered: { channel, slot } });
    return () => useAudition.setState({ metered: null, hear: 'mix', matched: false });
  }, [channel, slot]);
  return (
    <View style={[styles.bar, { borderColor: tokens.line, backgroundColor: tokens.paper }]}>
      <Text variant="bodySmall">hear</Text>
      <View role="radiogroup" aria-label="Hear" style={[styles.group, { borderColor: tokens.line }]}>
        {CHOICES.map((choice) => (
          <Touchable
            key={choice.id}
            role="radio"
            label={`Hear ${choice.label}`}
            chosen={hear === choice.id}
            style={[styles.choice, hear === choice.id && { backgroundColor: tokens.ink }]}
            onPress={() => useAudition.setState({ hear: choice.id })}
          >
            <Text style={{ color: hear === choice.id ? tokens.paper : tokens.ink }}>{choice.label}</Text>
          </Touchable>
        ))}
      </View>
      <Touchable
        role="switch"
        label="Match loudness to the untreated sound"
        chosen={matched}
        mode="outlined"
        tone="sea"
        style={styles.match}
        onPress={() => useAudition.setState({ matched: !matched })}
      >
        {matched ? (
          <LiveText
            strong
            size={14}
            style={[styles.gain, { color: tokens.paper }]}
            read={() => formatDb(studio.player.meters.read().matchDb)}
          />
        ) : (
          <Text tone="sea">match</Text>
        )}
      </Touchable>
    </View>
  );
}

const styles = StyleSheet.create({
  bar: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: 8,
    borderTopWidth: 1,
    paddingHorizontal: 14,
    paddingVertical: 6,
  },
  group: { flex: 1, flexDirection: 'row', borderWidth: 1, borderRadius: 14, overflow: 'hidden' },
  choice: { flexGrow: 1, borderRadius: 12, paddingHorizontal: 4 },
  match: { width: 84, paddingHorizontal: 4, borderRadius: 14 },
  gain: { textAlign: 'center' },
});

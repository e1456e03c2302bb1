import { StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import type { EffectTarget, Slot } from '../../core/piece/piece';
import { Pad } from '../../ui/Pad';
import { Text } from '../../ui/Text';
import { useHoldPad } from '../studio/useHoldPad';

const FREE = 'free';

/** Plays a hold for as long as it is pressed, or from one tap to the next when it latches. */
export function HoldPad({ channel, slot }: { readonly channel: string; readonly slot: Slot }) {
  const { name } = effectOf(slot.effect);
  const { startsOn, endsOn } = slot.values;
  const target: EffectTarget = { kind: 'effect', channel, effect: slot.id, param: 'held' };
  const { begin, end, down } = useHoldPad(target);
  const lines = [
    startsOn === FREE ? 'starts at once' : `starts on the next line of ${String(startsOn)}`,
    endsOn === FREE ? 'ends at once' : `ends on the next line of ${String(endsOn)}`,
  ];
  return (
    <View style={styles.block}>
      <Pad label={`Hold ${name}`} title={down ? 'Held' : 'Hold'} tone="sea" down={down} onBegin={begin} onEnd={end} />
      <Text variant="bodySmall">{lines.join(', ')}</Text>
    </View>
  );
}

const styles = StyleSheet.create({ block: { gap: 4, marginVertical: 8 } });

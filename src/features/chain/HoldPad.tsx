import { StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import type { Slot, Target } from '../../core/piece/piece';
import { Pad } from '../../ui/Pad';
import { Text } from '../../ui/Text';
import { useStudio } from '../studio/StudioProvider';

const FREE = 'free';

/** Plays a hold for as long as it is pressed, or from one tap to the next when it latches. */
export function HoldPad({ channel, slot }: { readonly channel: string; readonly slot: Slot }) {
  const { studio } = useStudio();
  const { name } = effectOf(slot.effect);
  const { held, latch, startsOn, endsOn } = slot.values;
  const target: Target = { kind: 'effect', channel, effect: slot.id, param: 'held' };
  // What is on by itself is let go by a tap, whether it latches or not.
  const toggles = latch === true || held === true;
  const begin = (): void => {
    if (toggles) studio.release(target, held !== true);
    else studio.playSwitch(target, true);
  };
  const end = (): void => {
    if (!toggles) studio.playSwitch(target, false);
  };
  const lines = [
    startsOn === FREE ? 'starts at once' : `starts on the next line of ${String(startsOn)}`,
    endsOn === FREE ? 'ends at once' : `ends on the next line of ${String(endsOn)}`,
  ];
  return (
    <View style={styles.block}>
      <Pad
        label={`Hold ${name}`}
        title={held === true ? 'Held' : 'Hold'}
        tone="sea"
        down={held === true}
        onBegin={begin}
        onEnd={end}
      />
      <Text variant="bodySmall">{lines.join(', ')}</Text>
    </View>
  );
}

const styles = StyleSheet.create({ block: { gap: 4, marginVertical: 8 } });

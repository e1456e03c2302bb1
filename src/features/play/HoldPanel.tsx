import { ScrollView, StyleSheet, View } from 'react-native';
import { Link } from 'expo-router';
import { effectOf } from '../../core/effects/catalogue';
import { orderHoldParams } from '../../core/effects/hold/params';
import { isVisible } from '../../core/effects/visibleWhen';
import { channelName, findSlot } from '../../core/piece/find';
import type { EffectTarget, Slot } from '../../core/piece/piece';
import { formatAddress } from '../../data/address';
import { useView } from '../../data/view';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { ParamRail } from '../shared/channels/ParamRail';
import { LinkList } from '../shared/links/LinkList';
import { usePiece } from '../studio/StudioProvider';
import { ExpressionChoice } from './ExpressionChoice';
import { useHoldPresets } from './presets';
import { PresetTools } from './PresetTools';

/** The figures of the hold that was played last: its preset, stepped while it is held, and its rails. */
export function HoldPanel({ target }: { readonly target: EffectTarget }) {
  const piece = usePiece();
  const slot = findSlot(piece, target.channel, target.effect);
  return slot ? <Figures target={target} slot={slot} /> : null;
}

/** The preset, and the ones before and after it: stepped while it is held. */
function PresetStep({ presets: { now, step } }: { readonly presets: ReturnType<typeof useHoldPresets> }) {
  return (
    <View style={styles.head}>
      <IconButton icon="chevron-left" label="Preset before" mode="outlined" onPress={() => step(-1)} />
      <View style={styles.preset}>
        <Text variant="titleSmall" style={styles.presetName} numberOfLines={1}>
          {now?.name ?? 'Own setting'}
        </Text>
        <Text variant="bodyMedium" tone="mute" style={styles.presetName} numberOfLines={2}>
          {now?.purpose ?? 'Keep it, and it is here in every piece.'}
        </Text>
      </View>
      <IconButton icon="chevron-right" label="Next preset" mode="outlined" onPress={() => step(1)} />
    </View>
  );
}

function Figures({ target, slot }: { readonly target: EffectTarget; readonly slot: Slot }) {
  const piece = usePiece();
  const definition = effectOf(slot.effect);
  const { name, params } = definition;
  const presets = useHoldPresets(target);
  const stage = useView((view) => view.stage);
  const shown = Object.entries(params).filter(
    ([id]) => id !== target.param && isVisible(definition, id, { values: slot.values, strands: slot.strands }),
  );
  const href = formatAddress({ piece: piece.id, view: 'chain', channel: target.channel, slot: slot.id });
  return (
    <View role="group" aria-label={`Figures of ${name}`} style={styles.panel}>
      <View style={styles.head}>
        <Text variant="headlineSmall" role="heading" aria-level={2} style={styles.name} numberOfLines={1}>
          {`${name}, ${channelName(piece, target.channel)}`}
        </Text>
        <Link href={href} asChild>
          <Button mode="text" onPress={() => undefined}>
            In the chain
          </Button>
        </Link>
      </View>
      <PresetStep presets={presets} />
      <PresetTools slot={slot} presets={presets} />
      <ScrollView style={styles.rails}>
        <ExpressionChoice slot={slot} />
        {orderHoldParams(shown, ([, { group }]) => group).map(([id, param]) => (
          <ParamRail
            key={id}
            target={{ kind: 'effect', channel: target.channel, effect: slot.id, param: id }}
            param={param}
            value={slot.values[id] ?? param.initial}
          />
        ))}
        {stage ? null : (
          <>
            <Text variant="titleSmall" role="heading" aria-level={3} style={styles.runs}>
              Runs and links
            </Text>
            <LinkList channel={target.channel} effect={slot.id} />
          </>
        )}
      </ScrollView>
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { flex: 1, minHeight: 0 },
  head: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  name: { flex: 1 },
  preset: { flex: 1, minHeight: 58, justifyContent: 'center' },
  presetName: { textAlign: 'center' },
  rails: { flex: 1, minHeight: 0, marginTop: 6 },
  runs: { marginTop: 12 },
});

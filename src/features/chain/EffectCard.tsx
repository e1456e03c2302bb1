import { useMemo, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Card } from 'react-native-paper';
import { effectOf } from '../../core/effects/catalogue';
import { formatValue } from '../../core/params/format';
import type { Param } from '../../core/params/param';
import { contextOf } from '../../core/piece/find';
import { ON_PARAM, type Slot } from '../../core/piece/piece';
import { useView } from '../../data/view';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { Touchable } from '../../ui/Touchable';
import { useTokens } from '../../ui/theme';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { CardMenu } from './CardMenu';
import { PictureThumb } from './pictures/PictureThumb';
import { useOwnSound } from './useOwnSound';
import { usePicture } from './usePicture';
import { isVisible } from '../../core/effects/visibleWhen';

interface EffectCardProps {
  readonly channel: string;
  readonly slot: Slot;
  readonly index: number;
  readonly count: number;
  /** Within a strand: without its picture. */
  readonly small: boolean;
  readonly handle: ReactNode;
}

/** A card of an effect in the chain: name, main values and picture; a tap opens its editor. */
export function EffectCard({ channel, slot, index, count, small, handle }: EffectCardProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const chosen = useView((view) => view.slot);
  const definition = effectOf(slot.effect);
  const preset = definition.presets.find((candidate) => candidate.id === slot.preset);
  const context = useMemo(() => contextOf(piece), [piece]);
  const say = (id: string): string => formatValue(definition.params[id] as Param, slot.values[id] ?? 0, context);
  const where = { channel, slot: slot.id };
  return (
    <Card
      mode="outlined"
      testID={`effect ${slot.id}`}
      style={[
        styles.card,
        {
          borderColor: slot.id === chosen ? tokens.sea : tokens.line,
          opacity: slot.on ? 1 : 0.62,
        },
      ]}
      contentStyle={styles.within}
    >
      <Touchable
        label={`Open ${definition.name}, ${preset?.name ?? 'own setting'}`}
        style={styles.cardMain}
        onPress={() => useView.setState(where)}
      >
        <View style={styles.cardWords}>
          <Text variant="headlineSmall">{definition.name}</Text>
          <Text variant="bodySmall" numberOfLines={1}>
            {preset?.name ?? 'own setting'}
          </Text>
          <Text variant="titleSmall" numberOfLines={2}>
            {definition.headline
              .filter((id) => isVisible(definition, id, slot))
              .map(say)
              .join(' · ')}
          </Text>
          {small || slot.strands ? null : <Thumb slot={slot} />}
        </View>
      </Touchable>
      <View style={styles.cardTools}>
        <IconButton
          role="switch"
          icon="power"
          label={`${definition.name} on`}
          chosen={slot.on}
          tone={slot.on ? 'sea' : 'mute'}
          onPress={() => studio.release({ kind: 'effect', channel, effect: slot.id, param: ON_PARAM }, !slot.on)}
        />
        <CardMenu channel={channel} slot={slot} index={index} count={count} />
        {handle}
      </View>
    </Card>
  );
}

function Thumb({ slot }: { readonly slot: Slot }) {
  const piece = usePiece();
  const context = useMemo(() => contextOf(piece), [piece]);
  const picture = usePicture(slot.effect, slot.values, context, useOwnSound(slot));
  return (
    <View testID="small picture" style={styles.thumb}>
      {picture ? <PictureThumb picture={picture} /> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  card: { flex: 1, borderRadius: 16, marginBottom: 12, minWidth: 0 },
  within: { flexDirection: 'row' },
  cardMain: { flex: 1, alignItems: 'stretch', borderRadius: 16, minWidth: 0, paddingVertical: 10 },
  cardWords: { gap: 1, alignItems: 'flex-start' },
  thumb: { height: 60 },
  cardTools: { justifyContent: 'center', paddingRight: 4 },
});

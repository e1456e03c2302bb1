import { useMemo, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { formatValue } from '../../core/params/format';
import type { Param } from '../../core/params/param';
import { contextOf } from '../../core/piece/find';
import { ON_PARAM, type Slot } from '../../core/piece/piece';
import { useSession } from '../../data/session';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { CardMenu } from './CardMenu';
import { PictureThumb } from './pictures/PictureThumb';
import { isShown } from './shown';
import { useOwnSound } from './useOwnSound';
import { usePicture } from './usePicture';

interface CardProps {
  readonly channel: string;
  readonly slot: Slot;
  readonly index: number;
  readonly count: number;
  /** Within a strand: without its picture. */
  readonly small: boolean;
  readonly handle: ReactNode;
}

/** An effect in the strand: what it is, what says most about it, and its picture; a tap opens its bench. */
export function Card({ channel, slot, index, count, small, handle }: CardProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const { slot: chosen, set } = useSession();
  const definition = effectOf(slot.effect);
  const preset = definition.presets.find((candidate) => candidate.id === slot.preset);
  const context = useMemo(() => contextOf(piece), [piece]);
  const say = (id: string): string => formatValue(definition.params[id] as Param, slot.values[id] ?? 0, context);
  const where = { channel, slot: slot.id };
  return (
    <View
      style={[
        styles.card,
        {
          backgroundColor: tokens.card,
          borderColor: slot.id === chosen ? tokens.sea : tokens.line,
          opacity: slot.on ? 1 : 0.62,
        },
      ]}
    >
      <Tap
        plain
        label={`Open ${definition.name}, ${preset?.name ?? 'own setting'}`}
        onPress={() => set(where)}
        style={styles.cardMain}
      >
        <View style={styles.cardWords}>
          <Words kind="water">{definition.name}</Words>
          <Words kind="small" numberOfLines={1}>
            {preset?.name ?? 'own setting'}
          </Words>
          <Words kind="strong" numberOfLines={2}>
            {definition.headline
              .filter((id) => isShown(id, definition.params[id] as Param, slot))
              .map(say)
              .join(' · ')}
          </Words>
          {small || slot.strands ? null : <Thumb slot={slot} />}
        </View>
      </Tap>
      <View style={styles.cardTools}>
        <Tap
          plain
          role="switch"
          chosen={slot.on}
          icon="power"
          tone={slot.on ? 'sea' : 'mute'}
          label={`${definition.name} on`}
          onPress={() => studio.release({ channel, effect: slot.id, param: ON_PARAM }, !slot.on)}
        />
        <CardMenu channel={channel} slot={slot} index={index} count={count} />
        {handle}
      </View>
    </View>
  );
}

function Thumb({ slot }: { readonly slot: Slot }) {
  const piece = usePiece();
  const context = useMemo(() => contextOf(piece), [piece]);
  const picture = usePicture(slot.effect, slot.values, context, useOwnSound(slot));
  return <View style={styles.thumb}>{picture ? <PictureThumb picture={picture} /> : null}</View>;
}

const styles = StyleSheet.create({
  card: { flex: 1, borderWidth: 1, borderRadius: 16, marginBottom: 12, flexDirection: 'row', minWidth: 0 },
  cardMain: { flex: 1, alignItems: 'stretch', borderRadius: 16, minWidth: 0, paddingVertical: 10 },
  cardWords: { gap: 1, alignItems: 'flex-start' },
  thumb: { height: 60 },
  cardTools: { justifyContent: 'center', paddingRight: 4 },
});

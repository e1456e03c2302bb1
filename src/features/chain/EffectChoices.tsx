import { StyleSheet, View } from 'react-native';
import { EFFECTS } from '../../core/effects/catalogue';
import { addEffect, newSlot } from '../../core/piece/edits/chain';
import { useOpenPiece } from '../../data/openPiece';
import { useSession } from '../../data/session';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';

interface EffectChoicesProps {
  readonly channel: string;
  /** Where in the chain it goes. */
  readonly at: number;
  /** Purposes side by side where there is room. */
  readonly roomy?: boolean;
  readonly onAdded?: () => void;
}

/** Every effect by the purposes it can be started from; a tap adds it and opens its bench. */
export function EffectChoices({ channel, at, roomy = false, onAdded }: EffectChoicesProps) {
  const add = (effect: string, preset: string): void => {
    const id = crypto.randomUUID();
    if (useOpenPiece.getState().run(addEffect, { channel, slot: newSlot(id, effect, preset), at })) useSession.getState().set({ channel, slot: id });
    onAdded?.();
  };
  return (
    <>
      {EFFECTS.map((effect) => (
        <View key={effect.id}>
          <Words kind="waterBig">{effect.name}</Words>
          <Words kind="small">{effect.purpose}</Words>
          <View style={roomy ? styles.roomy : undefined}>
            {[...effect.presets].sort((a, b) => Number(a.id === 'neutral') - Number(b.id === 'neutral')).map((preset) => (
              <Tap key={preset.id} plain label={`Add ${effect.name}: ${preset.name}`} onPress={() => add(effect.id, preset.id)} style={[styles.item, roomy && styles.half]}>
                <View>
                  <Words kind="water">{preset.name}</Words>
                  <Words kind="small">{preset.purpose}</Words>
                </View>
              </Tap>
            ))}
          </View>
        </View>
      ))}
    </>
  );
}

const styles = StyleSheet.create({
  item: { alignItems: 'flex-start', paddingVertical: 7, paddingHorizontal: 0 },
  roomy: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 28 },
  half: { width: '47%' },
});

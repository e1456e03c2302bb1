import { useState, type ReactNode } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { moveEffect, type Inside } from '../../core/piece/edits/chain';
import type { Slot } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { Button } from '../../ui/Button';
import { SortableList } from '../../ui/SortableList';
import { BraidStrands } from './BraidStrands';
import { EffectCard } from './EffectCard';
import { EffectChoices } from '../shared/channels/EffectChoices';
import { BranchGroup } from './BranchGroup';
import { SignalMeter } from './SignalMeter';

interface ChainEffectsProps {
  readonly channel: string;
  readonly chain: readonly Slot[];
  /** Strand or wet path; none for the channel's own chain. */
  readonly inside?: Inside;
  /** Its name when an effect is added. */
  readonly name: string;
}

/** A chain as a vertical line with its effects; nested chains branch from the line below their effect. */
export function ChainEffects({ channel, chain, inside, name }: ChainEffectsProps) {
  const narrow = inside !== undefined;
  const renderEffect = (slot: Slot, index: number, handle: ReactNode) => (
    <View>
      <View style={styles.effect}>
        <SignalMeter slot={slot.id} before={chain[index - 1]?.id ?? null} narrow={narrow} />
        <EffectCard channel={channel} slot={slot} index={index} count={chain.length} small={narrow} handle={handle} />
      </View>
      {slot.strands ? (
        <BraidStrands
          channel={channel}
          slot={slot}
          renderChain={(strand) => (
            <ChainEffects
              channel={channel}
              chain={strand.chain}
              inside={{ slot: slot.id, strand: strand.place }}
              name={strand.name}
            />
          )}
        />
      ) : null}
      {slot.wetPath && slot.wetPath.length > 0 ? (
        <BranchGroup title="on its wet sound">
          <ChainEffects
            channel={channel}
            chain={slot.wetPath}
            inside={{ slot: slot.id, strand: null }}
            name="its wet sound"
          />
        </BranchGroup>
      ) : null}
    </View>
  );
  const last = chain[chain.length - 1];
  return (
    <View>
      <SortableList
        items={chain}
        keyOf={({ id }) => id}
        nameOf={({ effect }) => effectOf(effect).name}
        onMove={(slot, to) => useOpenPiece.getState().run(moveEffect, { channel, slot, to })}
        renderItem={renderEffect}
      />
      {last || narrow ? (
        <View style={styles.effect}>
          {last ? <SignalMeter slot={last.id} before={last.id} narrow={narrow} end /> : null}
          <AddEffect channel={channel} at={chain.length} inside={inside} name={name} />
        </View>
      ) : null}
    </View>
  );
}

function AddEffect({
  channel,
  at,
  inside,
  name,
}: {
  readonly channel: string;
  readonly at: number;
  readonly inside?: Inside;
  readonly name: string;
}) {
  const [adding, setAdding] = useState(false);
  return (
    <>
      <Button
        label={inside ? `Add an effect to ${name}` : 'Add an effect'}
        icon="plus"
        style={[styles.add, inside && styles.addInside]}
        onPress={() => setAdding(true)}
      >
        {inside ? 'Add' : 'Add after this'}
      </Button>
      <Sheet title={inside ? `Add to ${name}` : 'Add an effect'} visible={adding} onClose={() => setAdding(false)}>
        <ScrollView style={styles.sheetList}>
          <EffectChoices channel={channel} at={at} inside={inside} onAdded={() => setAdding(false)} />
        </ScrollView>
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  effect: { flexDirection: 'row', alignItems: 'stretch', gap: 12 },
  add: { flex: 1, borderStyle: 'dashed', borderRadius: 16, marginBottom: 12 },
  addInside: { marginBottom: 6 },
  sheetList: { maxHeight: 560 },
});

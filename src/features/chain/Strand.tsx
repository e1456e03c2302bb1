import { useMemo, useState, type ReactNode } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { formatValue } from '../../core/params/format';
import type { Param } from '../../core/params/param';
import { moveEffect, setEffectOn } from '../../core/piece/edits/chain';
import { channelName, chainOf, contextOf, findChannel } from '../../core/piece/find';
import { channelParams, MAIN, type Slot } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { useSession } from '../../data/session';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';
import { SendList } from '../sends/SendList';
import { usePiece } from '../studio/StudioProvider';
import { Beads } from './Beads';
import { CardMenu } from './CardMenu';
import { ChannelButton } from './ChannelButton';
import { EffectChoices } from './EffectChoices';
import { ImageMeter } from './ImageMeter';
import { ParamRail } from './ParamRail';
import { PictureThumb } from './pictures/PictureThumb';
import { isShown } from './shown';
import { Thread } from './Thread';
import { useOwnSound } from './useOwnSound';
import { usePicture } from './usePicture';

/** A channel's chain as a thread from top to bottom, an effect a bead on it, then the channel's own level and place. */
export function Strand({ channel, starters = true }: { readonly channel: string; readonly starters?: boolean }) {
  const piece = usePiece();
  const chain = chainOf(piece, channel);
  const own = findChannel(piece, channel);
  const [adding, setAdding] = useState(false);
  const gain = channel === MAIN ? piece.main.gain : (own?.gain ?? 1);
  return (
    <ScrollView contentContainerStyle={styles.strand}>
      <Words kind="small">{piece.name}</Words>
      <ChannelButton channel={channel} />
      <View style={styles.legend}>
        <Words kind="small" tone="sandInk">▬ dry</Words>
        <Words kind="small" tone="sea">▬ wet</Words>
        <Words kind="small">thickness is level</Words>
      </View>
      <Beads
        slots={chain}
        onMove={(slot, to) => useOpenPiece.getState().run(moveEffect, { channel, slot, to })}
        renderBead={(slot, index, handle) => (
          <View style={styles.bead}>
            <Thread channel={channel} first={index === 0} />
            <Card channel={channel} slot={slot} index={index} count={chain.length} handle={handle} />
          </View>
        )}
      />
      {chain.length > 0 ? (
        <View style={styles.bead}>
          <Thread channel={channel} first={false} end />
          <Tap label="Add an effect" icon="plus" text="Add after this" onPress={() => setAdding(true)} style={styles.add} />
        </View>
      ) : null}
      <View style={styles.channelRails}>
        <ParamRail target={{ channel, effect: null, param: 'gain' }} param={channelParams.gain} value={gain} look="plain" />
        {own ? <ParamRail target={{ channel, effect: null, param: 'pan' }} param={channelParams.pan} value={own.pan} look="plain" /> : null}
        <ImageMeter channel={channel} />
        <SendList channel={channel} />
      </View>
      {chain.length === 0 && starters ? (
        <View style={styles.starters}>
          <Words kind="small">{`${channelName(piece, channel)} sounds as it was recorded. Start from a purpose:`}</Words>
          <EffectChoices channel={channel} at={0} />
        </View>
      ) : null}
      <Sheet title="Add an effect" visible={adding} onClose={() => setAdding(false)}>
        <ScrollView style={styles.sheetList}>
          <EffectChoices channel={channel} at={chain.length} onAdded={() => setAdding(false)} />
        </ScrollView>
      </Sheet>
    </ScrollView>
  );
}

interface CardProps {
  readonly channel: string;
  readonly slot: Slot;
  readonly index: number;
  readonly count: number;
  readonly handle: ReactNode;
}

function Card({ channel, slot, index, count, handle }: CardProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const { slot: chosen, set } = useSession();
  const definition = effectOf(slot.effect);
  const preset = definition.presets.find((candidate) => candidate.id === slot.preset);
  const context = useMemo(() => contextOf(piece), [piece]);
  const picture = usePicture(slot.effect, slot.values, context, useOwnSound(slot));
  const say = (id: string): string => formatValue(definition.params[id] as Param, slot.values[id] ?? 0, context);
  const { run } = useOpenPiece.getState();
  const where = { channel, slot: slot.id };
  return (
    <View style={[styles.card, { backgroundColor: tokens.card, borderColor: slot.id === chosen ? tokens.sea : tokens.line, opacity: slot.on ? 1 : 0.62 }]}>
      <Tap plain label={`Open ${definition.name}, ${preset?.name ?? 'own setting'}`} onPress={() => set({ channel, slot: slot.id })} style={styles.cardMain}>
        <View style={styles.cardWords}>
          <Words kind="water">{definition.name}</Words>
          <Words kind="small" numberOfLines={1}>{preset?.name ?? 'own setting'}</Words>
          <Words kind="strong" numberOfLines={2}>{definition.headline.filter((id) => isShown(id, definition.params[id] as Param, slot.values)).map(say).join(' · ')}</Words>
          <View style={styles.thumb}>{picture ? <PictureThumb picture={picture} /> : null}</View>
        </View>
      </Tap>
      <View style={styles.cardTools}>
        <Tap plain role="switch" chosen={slot.on} icon="power" tone={slot.on ? 'sea' : 'mute'} label={`${definition.name} on`} onPress={() => run(setEffectOn, { ...where, on: !slot.on })} />
        <CardMenu channel={channel} slot={slot} index={index} count={count} />
        {handle}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  strand: { padding: 16 },
  legend: { flexDirection: 'row', gap: 14, marginBottom: 8 },
  bead: { flexDirection: 'row', alignItems: 'stretch', gap: 12 },
  card: { flex: 1, borderWidth: 1, borderRadius: 16, marginBottom: 12, flexDirection: 'row', minWidth: 0 },
  cardMain: { flex: 1, alignItems: 'stretch', borderRadius: 16, minWidth: 0, paddingVertical: 10 },
  cardWords: { gap: 1, alignItems: 'flex-start' },
  thumb: { height: 60 },
  cardTools: { justifyContent: 'center', paddingRight: 4 },
  add: { flex: 1, borderStyle: 'dashed', borderRadius: 16, marginBottom: 12 },
  starters: { marginTop: 14, gap: 6 },
  channelRails: { marginTop: 8, gap: 4 },
  sheetList: { maxHeight: 560 },
});

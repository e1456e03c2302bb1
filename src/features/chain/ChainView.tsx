import { useEffect, useRef, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { EFFECTS, effectOf } from '../../core/effects/catalogue';
import { formatValue } from '../../core/params/format';
import type { Param } from '../../core/params/param';
import { addEffect, moveEffect, newSlot, removeEffect, setEffectOn } from '../../core/piece/edits/chain';
import { channelName, chainOf, contextOf, findSlot } from '../../core/piece/find';
import { channelParams, MAIN, type Slot } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { useSession } from '../../data/session';
import { elementOf, useFrame } from '../../ui/frame';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { useTokens, useWide } from '../../ui/theme';
import { Words } from '../../ui/Words';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { Bench } from './Bench';
import { ChannelButton } from './ChannelButton';
import { ParamRail } from './ParamRail';

/** The strand of the chosen channel; on a phone the bench of an effect takes its place when its card is tapped. */
export function ChainView() {
  const piece = usePiece();
  const wide = useWide();
  const tokens = useTokens();
  const { channel: wanted, slot } = useSession();
  const channel = wanted === MAIN || piece.tracks.some((track) => track.id === wanted) ? wanted : (piece.tracks[0]?.id ?? MAIN);
  const open = slot ? findSlot(piece, channel, slot) : undefined;
  if (!wide) {
    return <ChannelPane channel={channel} />;
  }
  return (
    <View style={styles.panes}>
      <View style={[styles.strandPane, { borderColor: tokens.line }]}><Strand channel={channel} /></View>
      <View style={styles.benchPane}>
        {open ? <Bench key={open.id} channel={channel} slot={open} /> : <NoBench />}
      </View>
    </View>
  );
}

/** One pane for a channel: the bench of the open effect, else the strand. */
export function ChannelPane({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const { slot, set } = useSession();
  const open = slot ? findSlot(piece, channel, slot) : undefined;
  return open ? <Bench key={open.id} channel={channel} slot={open} onBack={() => set({ slot: null })} /> : <Strand channel={channel} />;
}

function NoBench() {
  return (
    <View style={styles.none}>
      <Words kind="water">Choose a card of the strand</Words>
      <Words kind="small">Its bench opens here: what it does, and every rail of it.</Words>
    </View>
  );
}

function Strand({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const chain = chainOf(piece, channel);
  const track = piece.tracks.find((candidate) => candidate.id === channel);
  const [adding, setAdding] = useState(false);
  const gain = channel === MAIN ? piece.main.gain : (track?.gain ?? 1);
  return (
    <ScrollView contentContainerStyle={styles.strand}>
      <Words kind="small">{piece.name}</Words>
      <ChannelButton channel={channel} />
      <View style={styles.legend}>
        <Words kind="small" tone="sandInk">▬ dry</Words>
        <Words kind="small" tone="sea">▬ wet</Words>
        <Words kind="small">thickness is level</Words>
      </View>
      {chain.map((slot, index) => (
        <View key={slot.id} style={styles.bead}>
          <Thread channel={channel} first={index === 0} />
          <Card channel={channel} slot={slot} index={index} count={chain.length} />
        </View>
      ))}
      <View style={styles.bead}>
        <Thread channel={channel} first={chain.length === 0} end />
        <Tap label="Add an effect" icon="plus" text={chain.length === 0 ? 'Add the first effect' : 'Add after this'} onPress={() => setAdding(true)} style={styles.add} />
      </View>
      {chain.length === 0 ? (
        <Words kind="small" style={styles.empty}>{`${channelName(piece, channel)} sounds as it was recorded. An echo is a good first bead.`}</Words>
      ) : null}
      <View style={styles.channelRails}>
        <ParamRail target={{ channel, effect: null, param: 'gain' }} param={channelParams.gain} value={gain} />
        {track ? <ParamRail target={{ channel, effect: null, param: 'pan' }} param={channelParams.pan} value={track.pan} /> : null}
      </View>
      <AddSheet channel={channel} at={chain.length} visible={adding} onClose={() => setAdding(false)} />
    </ScrollView>
  );
}

function Card({ channel, slot, index, count }: { readonly channel: string; readonly slot: Slot; readonly index: number; readonly count: number }) {
  const piece = usePiece();
  const tokens = useTokens();
  const { slot: chosen, set } = useSession();
  const definition = effectOf(slot.effect);
  const preset = definition.presets.find((candidate) => candidate.id === slot.preset);
  const context = contextOf(piece);
  const say = (id: string): string => formatValue(definition.params[id] as Param, slot.values[id] ?? 0, context);
  const { run } = useOpenPiece.getState();
  const where = { channel, slot: slot.id };
  return (
    <View style={[styles.card, { backgroundColor: tokens.card, borderColor: slot.id === chosen ? tokens.sea : tokens.line, opacity: slot.on ? 1 : 0.62 }]}>
      <Tap plain label={`Open ${definition.name}, ${preset?.name ?? 'own setting'}`} onPress={() => set({ channel, slot: slot.id })} style={styles.cardMain}>
        <View style={styles.cardWords}>
          <Words kind="water">{definition.name}</Words>
          <Words kind="small" numberOfLines={1}>{preset?.name ?? 'own setting'}</Words>
          <Words kind="strong" numberOfLines={2}>{`${say('timeL')} · ${say('feedback')}`}</Words>
        </View>
      </Tap>
      <View style={styles.cardTools}>
        <Tap plain role="switch" chosen={slot.on} icon="power" tone={slot.on ? 'sea' : 'mute'} label={`${definition.name} on`} onPress={() => run(setEffectOn, { ...where, on: !slot.on })} />
        {index > 0 ? <Tap plain icon="arrow-up" label={`Move ${definition.name} up`} onPress={() => run(moveEffect, { ...where, to: index - 1 })} /> : null}
        {index < count - 1 ? <Tap plain icon="arrow-down" label={`Move ${definition.name} down`} onPress={() => run(moveEffect, { ...where, to: index + 1 })} /> : null}
        <Tap plain icon="trash-2" tone="mute" label={`Remove ${definition.name}`} onPress={() => run(removeEffect, where)} />
      </View>
    </View>
  );
}

/** The thread beside a bead: sand as thick as the dry sound, sea as thick as the wet, at this moment. */
function Thread({ channel, first, end = false }: { readonly channel: string; readonly first: boolean; readonly end?: boolean }) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const sand = useRef<View>(null);
  const sea = useRef<View>(null);
  const index = channel === MAIN ? piece.tracks.length : piece.tracks.findIndex((track) => track.id === channel);
  useFrame(() => {
    const { meters } = studio.player;
    const thick = (peak: number): string => `${(1.5 + 11 * Math.pow(Math.min(1, peak), 0.5)).toFixed(1)}px`;
    const dry = elementOf(sand.current);
    const wet = elementOf(sea.current);
    if (dry) dry.style.width = thick(meters.peak(index, 2));
    if (wet) wet.style.width = first ? '0px' : thick(meters.peak(index, 3));
  });
  return (
    <View aria-hidden style={styles.thread}>
      <View style={styles.lines}>
        <View ref={sand} style={{ width: 2, backgroundColor: tokens.sand }} />
        <View ref={sea} style={{ width: 0, backgroundColor: tokens.sea }} />
      </View>
      {end ? null : <View style={[styles.knot, { backgroundColor: tokens.card, borderColor: tokens.ink }]} />}
    </View>
  );
}

function AddSheet({ channel, at, visible, onClose }: { readonly channel: string; readonly at: number; readonly visible: boolean; readonly onClose: () => void }) {
  const added = useRef<string | null>(null);
  useEffect(() => {
    if (visible) added.current = null;
  }, [visible]);
  const add = (effect: string, preset: string): void => {
    const id = crypto.randomUUID();
    if (useOpenPiece.getState().run(addEffect, { channel, slot: newSlot(id, effect, preset), at })) useSession.getState().set({ channel, slot: id });
    onClose();
  };
  return (
    <Sheet title="Add an effect" visible={visible} onClose={onClose}>
      <ScrollView style={styles.sheetList}>
        {EFFECTS.map((effect) => (
          <View key={effect.id}>
            <Words kind="waterBig">{effect.name}</Words>
            <Words kind="small">{effect.purpose}</Words>
            {effect.presets.filter((preset) => preset.id !== 'neutral').map((preset) => (
              <Tap key={preset.id} plain label={`Add ${effect.name}: ${preset.name}`} onPress={() => add(effect.id, preset.id)} style={styles.sheetItem}>
                <View>
                  <Words kind="water">{preset.name}</Words>
                  <Words kind="small">{preset.purpose}</Words>
                </View>
              </Tap>
            ))}
            <Tap plain label={`Add ${effect.name}: Neutral`} text="Neutral" onPress={() => add(effect.id, 'neutral')} style={styles.sheetItem} />
          </View>
        ))}
      </ScrollView>
    </Sheet>
  );
}

const styles = StyleSheet.create({
  panes: { flex: 1, flexDirection: 'row', minHeight: 0 },
  strandPane: { width: 420, borderRightWidth: 1 },
  benchPane: { flex: 1, minWidth: 0, minHeight: 0 },
  none: { flex: 1, alignItems: 'center', justifyContent: 'center', gap: 6 },
  strand: { padding: 16 },
  legend: { flexDirection: 'row', gap: 14, marginBottom: 8 },
  bead: { flexDirection: 'row', alignItems: 'stretch', gap: 12 },
  thread: { width: 40, alignItems: 'center' },
  lines: { position: 'absolute', top: 0, bottom: 0, flexDirection: 'row', justifyContent: 'center' },
  knot: { position: 'absolute', top: 44, width: 20, height: 20, borderRadius: 10, borderWidth: 2 },
  card: { flex: 1, borderWidth: 1, borderRadius: 16, marginBottom: 12, flexDirection: 'row', minWidth: 0 },
  cardMain: { flex: 1, alignItems: 'stretch', borderRadius: 16, minWidth: 0, paddingVertical: 10 },
  cardWords: { gap: 1, alignItems: 'flex-start' },
  cardTools: { justifyContent: 'center', paddingRight: 4 },
  add: { flex: 1, borderStyle: 'dashed', borderRadius: 16, marginBottom: 12 },
  empty: { marginLeft: 52, marginBottom: 8 },
  channelRails: { marginTop: 8, gap: 4 },
  sheetList: { maxHeight: 560 },
  sheetItem: { alignItems: 'flex-start', paddingVertical: 7, paddingHorizontal: 0 },
});

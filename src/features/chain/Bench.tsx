import { useMemo, useState } from 'react';
import { ScrollView, StyleSheet, View, type LayoutChangeEvent } from 'react-native';
import { ECHO_GROUPS } from '../../core/effects/echo/params';
import { effectOf } from '../../core/effects/catalogue';
import type { NumberParam, ParamValue } from '../../core/params/param';
import { describeTime } from '../../core/params/format';
import { scaledTime } from '../../core/params/notches';
import { resolveNumber, syncedNote } from '../../core/params/resolve';
import { noteBeats, noteId, nearestNote, type NoteFeel } from '../../core/music/noteValue';
import { presetValues, setEffectOn } from '../../core/piece/edits/chain';
import { channelName, contextOf, findLane } from '../../core/piece/find';
import type { Slot, Target } from '../../core/piece/piece';
import { secondsPerBeat } from '../../core/music/tempo';
import { useOpenPiece } from '../../data/openPiece';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';
import { usePiece, useHand } from '../studio/StudioProvider';
import { EchoChart } from './EchoChart';
import { HearBar } from './HearBar';
import { ParamRail } from './ParamRail';
import { PresetButton } from './PresetButton';
import { usePicture } from './usePicture';

const CHART_HEIGHT = 208;

/** The full bench of one effect: its picture, its rails by section, and what of it is heard. */
export function Bench({ channel, slot, onBack }: { readonly channel: string; readonly slot: Slot; readonly onBack?: () => void }) {
  const piece = usePiece();
  const tokens = useTokens();
  const definition = effectOf(slot.effect);
  const [live, setLive] = useState<Readonly<Record<string, ParamValue>>>({});
  const [group, setGroup] = useState<string>(ECHO_GROUPS[0]);
  const [width, setWidth] = useState(0);
  const context = useMemo(() => contextOf(piece), [piece]);
  const values = useMemo(() => ({ ...slot.values, ...live }), [slot.values, live]);
  const picture = usePicture(slot.effect, values, context);
  const initial = useMemo(() => presetValues(slot.effect, slot.preset ?? 'neutral'), [slot.effect, slot.preset]);
  const target = (param: string): Target => ({ channel, effect: slot.id, param });
  const onLive = (param: string) => (value: ParamValue | null) =>
    setLive((before) => {
      const { [param]: _gone, ...rest } = before;
      return value === null ? rest : { ...rest, [param]: value };
    });
  const time = useHand(target('timeL'));
  const feedback = useHand(target('feedback'));
  const drag = (param: 'timeL' | 'feedback') => (value: number, done: boolean) => {
    const hand = param === 'timeL' ? time : feedback;
    const kept: ParamValue = param === 'timeL' ? snapTime(value, secondsPerBeat(context.tempo), context.tempo.beatsPerBar) : Math.round(value * 1000) / 1000;
    if (done) hand.release(kept);
    else hand.touch(kept);
    onLive(param)(done ? null : kept);
  };
  const shown = Object.entries(definition.params).filter(([id, param]) => param.group === group && isShown(id, values));
  return (
    <View style={styles.bench}>
      <View style={[styles.head, { borderColor: tokens.line }]}>
        {onBack ? <Tap plain icon="chevron-left" label="Back to the chain" onPress={onBack} /> : null}
        <View style={styles.names}>
          <Words kind="small" numberOfLines={1}>{channelName(piece, channel)}</Words>
          <Words kind="waterBig" role="heading" aria-level={2}>{definition.name}</Words>
        </View>
        <Tap
          plain
          role="switch"
          chosen={slot.on}
          label={`${definition.name} on`}
          icon="power"
          tone={slot.on ? 'sea' : 'mute'}
          onPress={() => useOpenPiece.getState().run(setEffectOn, { channel, slot: slot.id, on: !slot.on })}
        />
        <PresetButton channel={channel} slot={slot} />
      </View>
      <View onLayout={(event: LayoutChangeEvent) => setWidth(event.nativeEvent.layout.width)} style={[styles.chart, { backgroundColor: tokens.card, borderColor: tokens.line, opacity: slot.on ? 1 : 0.5 }]}>
        {picture && width > 0 ? (
          <EchoChart picture={picture} tempo={piece.tempo} width={width} height={CHART_HEIGHT} onTime={drag('timeL')} onFeedback={drag('feedback')} />
        ) : (
          <View style={styles.waiting}><Words kind="small">Sounding it out …</Words></View>
        )}
      </View>
      <ScrollView horizontal showsHorizontalScrollIndicator={false} style={styles.tabs} contentContainerStyle={styles.tabRow} role="tablist">
        {ECHO_GROUPS.map((name) => (
          <Tap key={name} plain role="tab" label={`${name}${hasMoves(piece, channel, slot, name) ? ', has moves' : ''}`} chosen={name === group} onPress={() => setGroup(name)} style={[styles.tab, name === group && { borderBottomColor: tokens.sea }]}>
            <Words kind={name === group ? 'strong' : 'body'} tone={name === group ? 'ink' : 'mute'}>{hasMoves(piece, channel, slot, name) ? `${name} ∿` : name}</Words>
          </Tap>
        ))}
      </ScrollView>
      <ScrollView style={styles.rails} contentContainerStyle={styles.railList}>
        {shown.map(([id, param]) => (
          <View key={id}>
            <ParamRail target={target(id)} param={param} value={values[id] ?? param.initial} initial={initial[id]} mix={id === 'mix'} onLive={onLive(id)} />
            {param.kind === 'number' && param.sync === 'time' ? (
              <TimeTools param={param} value={values[id] ?? param.initial} target={target(id)} />
            ) : (
              <Words kind="small" style={styles.hint}>{param.hint}</Words>
            )}
          </View>
        ))}
      </ScrollView>
      <HearBar channel={channel} slot={slot.id} />
    </View>
  );
}

const hasMoves = (piece: ReturnType<typeof usePiece>, channel: string, slot: Slot, group: string): boolean =>
  Object.entries(effectOf(slot.effect).params).some(([id, param]) => param.group === group && findLane(piece, { channel, effect: slot.id, param: id }));

/** Rails that would do nothing stay away: the right time while linked, the levels while one mix rail is chosen. */
function isShown(id: string, values: Readonly<Record<string, ParamValue>>): boolean {
  if (id === 'timeR') return values.linked === false;
  if (id === 'mix') return values.balance !== 'levels';
  if (id === 'dry' || id === 'wet') return values.balance === 'levels';
  if (id === 'firstSide') return values.routing === 'pingpong';
  return true;
}

/** A dragged time within 3 % of a note value becomes that note value. */
function snapTime(ms: number, beatSeconds: number, beatsPerBar: number): ParamValue {
  const beats = ms / 1000 / beatSeconds;
  const note = nearestNote(beats, beatsPerBar);
  if (Math.abs(Math.log(noteBeats(note, beatsPerBar) / beats)) < 0.03) return noteId(note);
  return Number(Math.min(8000, Math.max(0.1, ms)).toPrecision(4));
}

/** Half and double, straight, dotted and triplet, and the time in all three measures. */
function TimeTools({ param, value, target }: { readonly param: NumberParam; readonly value: ParamValue; readonly target: Target }) {
  const piece = usePiece();
  const context = contextOf(piece);
  const hand = useHand(target);
  const ms = resolveNumber(param, value, context);
  const about = describeTime(ms, context);
  const note = syncedNote(value);
  const feel = (wanted: NoteFeel): void => {
    const base = note ?? nearestNote(ms / 1000 / secondsPerBeat(context.tempo), context.tempo.beatsPerBar);
    hand.release(noteId({ base: base.base, feel: wanted }));
  };
  return (
    <View>
      <View style={styles.tools}>
        <Tap label={`${param.label}: half`} text="÷ 2" onPress={() => hand.release(scaledTime(param, value, context, 0.5))} style={styles.tool} />
        <Tap label={`${param.label}: double`} text="× 2" onPress={() => hand.release(scaledTime(param, value, context, 2))} style={styles.tool} />
        {(['straight', 'dotted', 'triplet'] as const).map((name) => (
          <Tap key={name} role="radio" label={`${param.label}: ${name}`} text={name} tone="sea" chosen={note?.feel === name} onPress={() => feel(name)} style={styles.tool} />
        ))}
      </View>
      <Words kind="small" style={styles.hint}>{`${about.exact ? about.note : `near ${about.note}`} · ${about.ms} · ${about.samples}`}</Words>
    </View>
  );
}

const styles = StyleSheet.create({
  bench: { flex: 1, minHeight: 0 },
  head: { flexDirection: 'row', alignItems: 'center', paddingHorizontal: 14, paddingVertical: 6, gap: 4 },
  names: { flex: 1, minWidth: 84 },
  chart: { height: CHART_HEIGHT + 1, borderTopWidth: 1, borderBottomWidth: 1, overflow: 'hidden' },
  waiting: { flex: 1, alignItems: 'center', justifyContent: 'center' },
  tabs: { flexGrow: 0, flexShrink: 0 },
  tabRow: { paddingHorizontal: 8 },
  tab: { borderRadius: 0, borderBottomWidth: 2, borderBottomColor: 'transparent', paddingHorizontal: 10 },
  rails: { flex: 1, minHeight: 0 },
  railList: { paddingHorizontal: 18, paddingBottom: 16, gap: 4 },
  hint: { marginTop: -4, marginBottom: 4 },
  tools: { flexDirection: 'row', gap: 6, marginBottom: 8 },
  tool: { flexGrow: 1, flexBasis: 0, paddingHorizontal: 2, borderRadius: 12 },
});

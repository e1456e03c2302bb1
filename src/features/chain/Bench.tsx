import { useMemo, useState } from 'react';
import { Pressable, StyleSheet, View, type LayoutChangeEvent } from 'react-native';
import Feather from '@expo/vector-icons/Feather';
import { effectOf } from '../../core/effects/catalogue';
import { noteBeats, noteId, nearestNote } from '../../core/music/noteValue';
import { secondsPerBeat } from '../../core/music/tempo';
import type { ParamValue, ValueContext } from '../../core/params/param';
import { presetValues, setEffectOn } from '../../core/piece/edits/chain';
import { channelName, contextOf } from '../../core/piece/find';
import type { Slot } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { TOUCH } from '../../ui/tokens';
import { Words } from '../../ui/Words';
import { usePiece, useHand } from '../studio/StudioProvider';
import { BenchRails } from './BenchRails';
import { EchoChart } from './EchoChart';
import { HearBar } from './HearBar';
import { PresetButton } from './PresetButton';
import { usePicture } from './usePicture';

const CHART_HEIGHT = 190;
const CHART_HEIGHT_ROOMY = 236;
const ROOMY = 620;

interface BenchProps {
  readonly channel: string;
  readonly slot: Slot;
  readonly onBack?: () => void;
}

/** The full bench of one effect: its picture, its rails by section, and what of it is heard. */
export function Bench({ channel, slot, onBack }: BenchProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const [live, setLive] = useState<Readonly<Record<string, ParamValue>>>({});
  const [width, setWidth] = useState(0);
  const context = useMemo(() => contextOf(piece), [piece]);
  const values = useMemo(() => ({ ...slot.values, ...live }), [slot.values, live]);
  const picture = usePicture(slot.effect, values, context);
  const initial = useMemo(() => presetValues(slot.effect, slot.preset ?? 'neutral'), [slot.effect, slot.preset]);
  const onLive = (param: string) => (value: ParamValue | null) =>
    setLive((before) => {
      const { [param]: _gone, ...rest } = before;
      return value === null ? rest : { ...rest, [param]: value };
    });
  const time = useHand({ channel, effect: slot.id, param: 'timeL' });
  const feedback = useHand({ channel, effect: slot.id, param: 'feedback' });
  const dragTo = (param: 'timeL' | 'feedback', value: ParamValue, done: boolean): void => {
    const hand = param === 'timeL' ? time : feedback;
    if (done) hand.release(value);
    else hand.touch(value);
    onLive(param)(done ? null : value);
  };
  const roomy = width >= ROOMY;
  const chartHeight = roomy ? CHART_HEIGHT_ROOMY : CHART_HEIGHT;
  return (
    <View style={styles.bench} onLayout={(event: LayoutChangeEvent) => setWidth(event.nativeEvent.layout.width)}>
      <Head channel={channel} slot={slot} onBack={onBack} />
      <View style={[styles.chart, { height: chartHeight + 2, backgroundColor: tokens.card, borderColor: tokens.line, opacity: slot.on ? 1 : 0.5 }]}>
        {picture && width > 0 ? (
          <EchoChart
            picture={picture}
            tempo={piece.tempo}
            width={width}
            height={chartHeight}
            onTime={(ms, done) => dragTo('timeL', snapTime(ms, context), done)}
            onFeedback={(level, done) => dragTo('feedback', Math.round(level * 1000) / 1000, done)}
          />
        ) : (
          <View style={styles.waiting}><Words kind="small">Sounding it out …</Words></View>
        )}
      </View>
      {width > 0 ? <BenchRails channel={channel} slot={slot} values={values} initial={initial} onLive={onLive} roomy={roomy} /> : null}
      <HearBar channel={channel} slot={slot.id} />
    </View>
  );
}

function Head({ channel, slot, onBack }: BenchProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const { name } = effectOf(slot.effect);
  const names = (
    <View style={styles.names}>
      <Words kind="small" numberOfLines={1}>{channelName(piece, channel)}</Words>
      <Words kind="waterBig" role="heading" aria-level={2}>{name}</Words>
    </View>
  );
  return (
    <View style={styles.head}>
      {onBack ? (
        <Pressable role="button" aria-label="Back to the chain" onPress={onBack} style={styles.back}>
          <Feather name="chevron-left" size={20} color={tokens.mute} />
          {names}
        </Pressable>
      ) : names}
      <Tap
        plain
        role="switch"
        chosen={slot.on}
        label={`${name} on`}
        icon="power"
        tone={slot.on ? 'sea' : 'mute'}
        onPress={() => useOpenPiece.getState().run(setEffectOn, { channel, slot: slot.id, on: !slot.on })}
      />
      <PresetButton channel={channel} slot={slot} />
    </View>
  );
}

/** A dragged time within 3 % of a note value becomes that note value. */
function snapTime(ms: number, { tempo }: ValueContext): ParamValue {
  const beats = ms / 1000 / secondsPerBeat(tempo);
  const note = nearestNote(beats, tempo.beatsPerBar);
  if (Math.abs(Math.log(noteBeats(note, tempo.beatsPerBar) / beats)) < 0.03) return noteId(note);
  return Number(Math.min(8000, Math.max(0.1, ms)).toPrecision(4));
}

const styles = StyleSheet.create({
  bench: { flex: 1, minHeight: 0 },
  head: { flexDirection: 'row', alignItems: 'center', paddingHorizontal: 12, paddingVertical: 6, gap: 2 },
  back: { flexDirection: 'row', alignItems: 'center', flex: 1, minWidth: 0, minHeight: TOUCH, gap: 2 },
  names: { flex: 1, minWidth: 88 },
  chart: { borderTopWidth: 1, borderBottomWidth: 1, overflow: 'hidden' },
  waiting: { flex: 1, alignItems: 'center', justifyContent: 'center' },
});

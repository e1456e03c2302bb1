import { useMemo, useState } from 'react';
import { StyleSheet, View, type LayoutChangeEvent } from 'react-native';
import { Icon } from 'react-native-paper';
import { Touchable } from '../../ui/Touchable';
import { effectOf } from '../../core/effects/catalogue';
import { noteBeats, noteId, nearestNote } from '../../core/music/noteValue';
import { beatsToSeconds, secondsPerBeat } from '../../core/music/tempo';
import type { ParamValue, ValueContext } from '../../core/params/param';
import { syncedNote } from '../../core/params/resolve';
import { presetValues } from '../../core/piece/edits/chain';
import { channelName, contextOf } from '../../core/piece/find';
import { ON_PARAM, type Slot, type Strand } from '../../core/piece/piece';
import { useRecording } from '../../data/recording';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { useTokens } from '../../ui/theme';
import { TOUCH } from '../../ui/tokens';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { useStore } from 'zustand';
import { EffectRails } from './EffectRails';
import { HearBar } from './HearBar';
import { makeLiveValues, setLiveValue, type LiveValues } from './liveValues';
import { PictureChart } from './pictures/PictureChart';
import { PresetButton } from './PresetButton';
import { useOwnSound } from './useOwnSound';
import { usePicture } from './usePicture';
import { PinnedRails } from './PinnedRails';

const CHART_HEIGHT = 190;
const CHART_HEIGHT_ROOMY = 236;
const ROOMY = 620;
const NO_STRANDS: readonly Strand[] = [];

interface EffectEditorProps {
  readonly channel: string;
  readonly slot: Slot;
  readonly onBack?: () => void;
}

/** The full editor of one effect: its picture, its rails by section, and its audition modes. */
export function EffectEditor({ channel, slot, onBack }: EffectEditorProps) {
  const [live] = useState(makeLiveValues);
  const [width, setWidth] = useState(0);
  const initial = useMemo(() => presetValues(slot.effect, slot.preset ?? 'neutral'), [slot.effect, slot.preset]);
  const roomy = width >= ROOMY;
  return (
    <View style={styles.editor} onLayout={(event: LayoutChangeEvent) => setWidth(event.nativeEvent.layout.width)}>
      <Head channel={channel} slot={slot} onBack={onBack} />
      <Picture
        channel={channel}
        slot={slot}
        live={live}
        width={width}
        height={roomy ? CHART_HEIGHT_ROOMY : CHART_HEIGHT}
      />
      {width > 0 ? <PinnedRails channel={channel} slot={slot} width={width} /> : null}
      {width > 0 ? <EffectRails channel={channel} slot={slot} live={live} initial={initial} roomy={roomy} /> : null}
      <HearBar channel={channel} slot={slot.id} />
    </View>
  );
}

interface PictureProps {
  readonly channel: string;
  readonly slot: Slot;
  readonly live: LiveValues;
  readonly width: number;
  readonly height: number;
}

/** The picture of the effect with its present values, including those being dragged; its handles change values. */
function Picture({ channel, slot, live, width, height }: PictureProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const moved = useStore(live);
  const context = useMemo(() => contextOf(piece), [piece]);
  const values = useMemo(() => ({ ...slot.values, ...moved }), [slot.values, moved]);
  const picture = usePicture(slot.effect, values, context, useOwnSound(slot));
  const pull = (pulled: Readonly<Record<string, number>>, done: boolean): void => {
    const settledValues = Object.fromEntries(
      Object.entries(pulled).map(([param, number]) => [param, settled(slot.effect, param, number, context)]),
    );
    for (const [param, value] of Object.entries(settledValues)) {
      if (!done) studio.touch({ kind: 'effect', channel, effect: slot.id, param }, value);
      setLiveValue(live, param, done ? null : value);
    }
    if (done) studio.releaseTogether(channel, slot.id, settledValues);
  };
  const byBeat = useMemo(() => turnsByBeat(slot.effect, values), [slot.effect, values]);
  const playing = (): number | null =>
    !useRecording.getState().playing
      ? null
      : byBeat
        ? beatsToSeconds(studio.beat, piece.tempo)
        : studio.player.position / piece.sampleRate;
  return (
    <View
      testID="picture"
      style={[
        styles.chart,
        { height: height + 2, backgroundColor: tokens.card, borderColor: tokens.line, opacity: slot.on ? 1 : 0.5 },
      ]}
    >
      {picture && width > 0 ? (
        <PictureChart
          picture={picture}
          tempo={piece.tempo}
          strands={slot.strands ?? NO_STRANDS}
          width={width}
          height={height}
          drawing={values.path === 'drawn'}
          playing={playing}
          onPull={pull}
        />
      ) : (
        <View style={styles.waiting}>
          <Text variant="bodySmall">Sounding it out …</Text>
        </View>
      )}
    </View>
  );
}

function Head({ channel, slot, onBack }: EffectEditorProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const { name } = effectOf(slot.effect);
  const names = (
    <View style={styles.names}>
      <Text variant="bodySmall" numberOfLines={1}>
        {channelName(piece, channel)}
      </Text>
      <Text variant="headlineMedium" role="heading" aria-level={2}>
        {name}
      </Text>
    </View>
  );
  return (
    <View style={styles.head}>
      {onBack ? (
        <Touchable label="Back to the chain" style={styles.back} onPress={onBack}>
          <Icon source="chevron-left" size={20} color={tokens.mute} />
          {names}
        </Touchable>
      ) : (
        names
      )}
      <IconButton
        role="switch"
        icon="power"
        label={`${name} on`}
        chosen={slot.on}
        tone={slot.on ? 'sea' : 'mute'}
        onPress={() => studio.release({ kind: 'effect', channel, effect: slot.id, param: ON_PARAM }, !slot.on)}
      />
      <PresetButton channel={channel} slot={slot} />
    </View>
  );
}

/** True when its rate is a note value, which depends on beats and not on seconds. */
const turnsByBeat = (effect: string, values: Readonly<Record<string, ParamValue>>): boolean =>
  Object.entries(effectOf(effect).params).some(
    ([id, param]) =>
      param.kind === 'number' && param.sync === 'rate' && syncedNote(values[id] ?? param.initial) !== null,
  );

/**
 * A dragged value as it is stored: a time within 3 % of a note value becomes that note value, the rest is rounded to
 * what is shown.
 */
function settled(effect: string, id: string, number: number, { tempo }: ValueContext): ParamValue {
  const param = effectOf(effect).params[id];
  if (param?.kind === 'number' && param.sync === 'time' && number > 0) {
    const beats = number / 1000 / secondsPerBeat(tempo);
    const note = nearestNote(beats, tempo.beatsPerBar);
    if (Math.abs(Math.log(noteBeats(note, tempo.beatsPerBar) / beats)) < 0.03) return noteId(note);
  }
  return number === 0 ? 0 : Number(number.toPrecision(4));
}

const styles = StyleSheet.create({
  editor: { flex: 1, minHeight: 0 },
  head: { flexDirection: 'row', alignItems: 'center', paddingHorizontal: 12, paddingVertical: 6, gap: 2 },
  back: { flexDirection: 'row', alignItems: 'center', flex: 1, minWidth: 0, minHeight: TOUCH, gap: 2 },
  names: { flex: 1, minWidth: 88 },
  chart: { borderTopWidth: 1, borderBottomWidth: 1, overflow: 'hidden' },
  waiting: { flex: 1, alignItems: 'center', justifyContent: 'center' },
});
